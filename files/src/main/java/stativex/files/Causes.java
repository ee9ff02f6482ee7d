package stativex.files;

import java.io.IOException;
import java.nio.charset.CharacterCodingException;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystemException;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Says why a file could not be read or written, in words: the platform's own messages are often no more than the file's name. */
public final class Causes {
    /** The longest part of a found value that a message repeats, characters. */
    private static final int FOUND = 60;

    /** The longest end of a message that is left whole, characters. */
    private static final int LONGEST = 200;
    private static final Pattern QUOTED = Pattern.compile("\"([^\"]*)\"");
    private static final Pattern LONG_WORD = Pattern.compile("\\S{400,}");

    private Causes() {}

    public static String of(Throwable cause) {
        return switch (cause) {
            case NoSuchFileException ignored -> "there is no such file";
            case AccessDeniedException ignored -> "permission denied";
            case NotDirectoryException ignored -> "it is no folder";
            case FileAlreadyExistsException ignored -> "there is a file of that name";
            case FileSystemException e when e.getReason() != null -> plain(e.getReason());
            case CharacterCodingException ignored -> "its text has characters that cannot be written as UTF-8";
            case IOException e when e.getMessage() != null -> plain(e.getMessage());
            case RuntimeException e when e.getCause() instanceof IOException inner -> of(inner);
            default -> "the disk or the system refused it";
        };
    }

    private static String plain(String message) {
        return Character.toLowerCase(message.charAt(0)) + message.substring(1);
    }

    /** A value as a message repeats it: on one line, not longer than {@value #FOUND} characters. */
    public static String found(String value) {
        String line = oneLine(value);
        return line.length() <= FOUND ? line : line.substring(0, line.offsetByCodePoints(0, FOUND - 2)) + "…";
    }

    /** A message on one line, long found values in it cut. */
    public static String brief(String message) {
        if (message == null) {
            return "it cannot be taken";
        }
        String line = QUOTED.matcher(oneLine(message)).replaceAll(m -> Matcher.quoteReplacement("\""
                + found(m.group(1)) + "\""));
        line = LONG_WORD.matcher(line).replaceAll(m -> Matcher.quoteReplacement(found(m.group())));
        int found = line.lastIndexOf("found ");
        return found < 0 || line.length() - found <= LONGEST
                ? line
                : line.substring(0, found + 6) + found(line.substring(found + 6));
    }

    /** A text without line ends and other characters that move a terminal's cursor. */
    public static String oneLine(String text) {
        StringBuilder line = new StringBuilder(text.length());
        text.codePoints().forEach(c -> {
            boolean shown = !Character.isISOControl(c) && Character.getType(c) != Character.SURROGATE
                    && Character.getType(c) != Character.LINE_SEPARATOR
                    && Character.getType(c) != Character.PARAGRAPH_SEPARATOR;
            line.appendCodePoint(shown ? c : c == '\t' || c == '\n' || c == '\r' ? ' ' : '\uFFFD');
        });
        return line.toString();
    }
}
