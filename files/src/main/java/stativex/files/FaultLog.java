package stativex.files;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Locale;

/** What should never have happened: its details go to a file, a person is told in one sentence. */
public final class FaultLog {
    private FaultLog() {}

    /**
     * Keeps the details of a fault of the program.
     *
     * @return a sentence that says what happened and where the details are
     */
    public static String keep(Throwable fault) {
        String what = switch (fault) {
            case OutOfMemoryError ignored -> "Stativex has run out of memory";
            case StackOverflowError ignored -> "Stativex has met something nested too deeply";
            default -> "Stativex has met something it was not made for";
        };
        StringWriter details = new StringWriter();
        fault.printStackTrace(new PrintWriter(details));
        Path file = DataFolder.path().resolve("faults").resolve("fault-" + DateTimeFormatter
                .ofPattern("yyyy-MM-dd-HHmmss-SSS", Locale.ROOT).format(LocalDateTime.now()) + ".txt");
        try {
            WholeFile.writeOwn(file, out -> out.write("Stativex " + ResultFiles.engineVersion() + ", Java "
                    + Runtime.version() + ", " + System.getProperty("os.name") + "\n" + details));
            return what + ". Please report it with the details in " + file;
        } catch (BadInput e) {
            return what + ". Please report it; its details could not be kept (" + e.getMessage() + "): "
                    + Causes.oneLine(fault.toString());
        }
    }
}
