package stativex.files;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import stativex.account.Account;

/** What was changed of accounts, a line each, for ever: {@code account-changes.csv} in the data folder. */
public final class AccountLog {
    private AccountLog() {}

    /** The file. */
    public static Path path() {
        return DataFolder.path().resolve("account-changes.csv");
    }

    /** An account is held to another rulebook from now on. @throws BadInput when that cannot be written down */
    public static void bookChanged(Account account, String to) {
        String line = String.join(",", Instant.now().truncatedTo(ChronoUnit.SECONDS).toString(),
                quoted(account.name()), "rulebook", quoted(account.rulebook().name()), quoted(to)) + "\n";
        try {
            Files.createDirectories(path().getParent());
            if (!Files.exists(path())) {
                WholeFile.writeOwn(path(), out -> out.write("time,account,what,from,to\n"));
            }
            Files.writeString(path(), line, StandardCharsets.UTF_8, StandardOpenOption.APPEND);
        } catch (IOException e) {
            throw new BadInput(path() + ": cannot be written: " + Causes.of(e), e);
        }
    }

    private static String quoted(String text) {
        return "\"" + text.replace("\"", "\"\"") + "\"";
    }
}
