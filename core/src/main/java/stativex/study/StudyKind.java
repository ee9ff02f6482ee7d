package stativex.study;

import java.util.List;
import java.util.Optional;

/**
 * A kind of study.
 *
 * @param word its name in documents and texts
 * @param title as said on screen
 * @param help one line: what it says
 * @param of what it takes when nothing is written; empty: it takes the bars, and {@code of} may not be written
 * @param fields what can be set, the most important first
 * @param beside on the price chart; else it has a panel of its own
 * @param definition formula, seed, warm-up and source
 */
public record StudyKind(String word, String title, String help, Optional<BarField> of, List<StudyField> fields,
        boolean beside, String definition, Maker maker) {

    /** Makes a study of its inputs. */
    public interface Maker {
        Study make(StudyInputs inputs);
    }

    public StudyKind {
        fields = List.copyOf(fields);
    }

    public Optional<StudyField> field(String name) {
        return fields.stream().filter(field -> field.name().equals(name)).findFirst();
    }
}
