package stativex.files;

import java.util.List;
import java.util.function.BiConsumer;
import java.util.function.BooleanSupplier;

/** Whoever tries the variants of a search: threads of this machine, or other machines. */
public interface SearchWorkers {
    /**
     * Tries variants in any order.
     *
     * @param done told of each one as it comes, once, from one thread at a time
     * @param stop asked now and then whether to give up; what is begun may still come
     */
    void work(List<VariantTrials.Task> tasks, BiConsumer<VariantTrials.Task, VariantTrials.Outcome> done,
            BooleanSupplier stop);
}
