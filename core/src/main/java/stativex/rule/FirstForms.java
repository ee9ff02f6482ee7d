package stativex.rule;

import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import stativex.study.Studies;

/** What people write first, and how it is written here: a rule that does not read for such a reason is offered in the right form. */
final class FirstForms {
    /** @param right with groups of the pattern as {@code $1} */
    private record Form(Pattern first, String right) {
        static Form of(String first, String right) {
            return new Form(Pattern.compile(first), right);
        }
    }

    private static final List<Form> FORMS = List.of(
            Form.of("\\b(?:is )?cross(?:es|ed|ing)? (?:above|over|up through|up)\\b", "rises through"),
            Form.of("\\b(?:is )?cross(?:es|ed|ing)? (?:below|under|beneath|down through|down)\\b", "falls through"),
            Form.of("\\bis (?:greater|higher|more|larger) than or equal to\\b", ">="),
            Form.of("\\bis (?:less|lower|smaller) than or equal to\\b", "<="),
            Form.of("\\bis (?:greater|higher|more|larger) than\\b", ">"),
            Form.of("\\bis (?:less|lower|smaller) than\\b", "<"), Form.of("\\b(?:is )?equal(?:s| to)\\b", "="),
            Form.of("> =|=>|\u2265", ">="), Form.of("< =|=<|\u2264", "<="), Form.of("<>|! =|\u2260", "!="),
            Form.of("==", "="), Form.of("&&?", "and"), Form.of("\\|\\|?", "or"), Form.of("\\bAND\\b|\\bAnd\\b", "and"),
            Form.of("\\bOR\\b|\\bOr\\b", "or"), Form.of("\\bNOT\\b|\\bNot\\b", "not"), Form.of("!(?!=)\\s*", "not "),
            Form.of("(?i)^\\s*(?:if|when|buy when|sell when) ", ""), Form.of("(?i) then\\b.*$", ""),
            Form.of("\\b(\\d+) (?:candles?|periods?)\\b", "$1 bars"),
            Form.of("\\b(\\d+) bars? ago\\b", "$1 bars before"),
            Form.of("\\b([a-z_][a-z_0-9.]*)\\[(\\d+)\\]", "$1 $2 bars before"));

    private static final Pattern STUDY = Pattern.compile("([a-z_]+)\\((?:[a-z]+,)? ?([0-9]+)(?:,[^)]*)?\\)");

    private FirstForms() {}

    /** Advice for a study that is written like a function; nothing for anything else. */
    static String study(String call) {
        Matcher study = STUDY.matcher(call);
        return study.matches() && Studies.kinds().stream().anyMatch(kind -> kind.word().equals(study.group(1)))
                ? "; a study has a name of its own: add " + study.group(1) + " " + study.group(2)
                        + " among the studies, then write its name here"
                : "";
    }

    /** The problem with the right form offered, if writing it makes the rule read further. */
    static RuleProblem offered(String text, RuleProblem problem) {
        String better = text;
        Optional<String> advice = Optional.empty();
        for (Form form : FORMS) {
            Matcher found = form.first().matcher(better);
            if (found.find()) {
                String wrong = found.group().strip();
                String next = found.replaceAll(form.right());
                if (Reading.readable(next) >= Reading.readable(better)) {
                    String right = form.first().matcher(wrong).replaceAll(form.right()).strip();
                    advice = advice.or(() -> Optional.of(form.right().isEmpty()
                            ? "leave \"" + wrong + "\" out"
                            : "write \"" + right + "\" for \"" + wrong + "\""));
                    better = next;
                }
            }
        }
        return advice.isPresent() && Reading.readable(better) > problem.from()
                ? problem.with(advice.get(), Optional.of(better))
                : problem;
    }
}
