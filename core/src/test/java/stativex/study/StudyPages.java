package stativex.study;

import java.util.stream.Collectors;

/** The rows of the studies' table in docs/rule-language.md, made from the kinds themselves. */
final class StudyPages {
    private StudyPages() {}

    static String row(StudyKind kind) {
        String fields = kind.fields().stream().map(f -> "`" + f.name() + "` (" + f.fallback() + ")")
                .collect(Collectors.joining(", "));
        return "| `" + kind.word() + "` | " + kind.of().map(BarField::word).orElse("the bars") + " | " + fields + " | "
                + kind.definition() + " |";
    }

    /** Prints the table. */
    public static void main(String[] none) {
        Studies.kinds().forEach(kind -> System.out.println(row(kind)));
    }
}
