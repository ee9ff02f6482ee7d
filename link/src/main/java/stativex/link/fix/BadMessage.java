package stativex.link.fix;

/** A message that is valid FIX and yet makes no sense here; one sentence says why. */
final class BadMessage extends Exception {
    private static final long serialVersionUID = 1;

    BadMessage(String problem) {
        super(problem);
    }
}
