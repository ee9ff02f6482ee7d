package stativex.files.tape;

import java.util.concurrent.CancellationException;

/** Told now and then how far a long job has come; by throwing it cancels the job, which then leaves nothing behind. */
@FunctionalInterface
public interface Progress {
    /** Nobody looks. */
    Progress NONE = (done, all) -> {
    };

    /**
     * @param done of {@code all} bytes, rows or prints
     * @throws CancellationException when the person cancelled
     */
    void at(long done, long all);
}
