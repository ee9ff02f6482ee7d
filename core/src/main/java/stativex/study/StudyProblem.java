package stativex.study;

/** What is wrong with a study, and with which of its fields. */
public final class StudyProblem extends IllegalArgumentException {
    private static final long serialVersionUID = 1;

    private final String study;
    private final String field;
    private final String what;

    /** @param field its name in documents; empty: the study as a whole */
    public StudyProblem(String study, String field, String message, Throwable cause) {
        super("study \"" + study + "\": " + (field.isEmpty() ? "" : field + ": ") + message, cause);
        this.study = study;
        this.field = field;
        this.what = message;
    }

    /** What is wrong, without the place. */
    public String what() {
        return what;
    }

    public StudyProblem(String study, String field, String message) {
        this(study, field, message, null);
    }

    public String study() {
        return study;
    }

    public String field() {
        return field;
    }
}
