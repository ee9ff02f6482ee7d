package stativex.files;

import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import stativex.engine.Strategy;
import stativex.market.Tape;
import stativex.search.Ranking;
import stativex.search.Space;
import stativex.search.Tried;
import stativex.trial.Run;

/**
 * What variants of a search made of sealed dates that were opened for them: a run of its own for each, beside the fit range and never
 * mixed with it. Variants whose version has opened nothing have none, and are not looked at. Source: SEMANTICS, "Results".
 *
 * @param seal over the contract of the search
 * @param openings of its dates, by whichever version
 * @param tried by the number of the variant
 */
public record SearchUnseen(SealBook.Seal seal, int openings, Map<Integer, Tried> tried) {
    public SearchUnseen {
        tried = Map.copyOf(tried);
    }

    /**
     * Looks at the unseen dates for those that opened them.
     *
     * @param tape that the spec names
     * @param ranked variants that are asked about
     */
    public static SearchUnseen of(SearchSpec spec, Tape tape, SealBook.Seal seal, SealBook book,
            List<Ranking.Ranked> ranked) {
        Set<String> versions = new HashSet<>(book.versions(seal, spec.strategy().path("name").asString("")));
        Map<Integer, Tried> tried = new TreeMap<>();
        Space space = spec.space();
        for (Ranking.Ranked one : ranked) {
            if (versions.isEmpty()) {
                break;
            }
            Documents.Read<Strategy> variant = spec.variant(space.places(one.entry().grid()));
            if (versions.remove(variant.value().version())) {
                tried.put(one.entry().number(), Tried.of(Run.trial(new SessionFile.Set(spec.contract(), spec.account(),
                        List.of(variant)).inputs(tape, spec.trial().terms()).over(seal.unseen()))));
            }
        }
        return new SearchUnseen(seal, book.openings(seal), tried);
    }

    /** Of a variant; empty where its version has opened nothing. */
    public Optional<Tried> of(Ranking.Ranked one) {
        return Optional.ofNullable(tried.get(one.entry().number()));
    }
}
