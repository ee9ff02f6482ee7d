package stativex.files;

/** Input that cannot be taken: which file, where in it, what was expected and what was found; one line, long found values cut. */
public class BadInput extends RuntimeException {
    private static final long serialVersionUID = 1;

    public BadInput(String message) {
        super(Causes.brief(message));
    }

    public BadInput(String message, Throwable cause) {
        super(Causes.brief(message), cause);
    }

    /** @param place a line, or a JSON path */
    public static BadInput at(String file, String place, String message) {
        return new BadInput(file + ", " + place + ": " + message);
    }
}
