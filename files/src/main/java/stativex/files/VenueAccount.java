package stativex.files;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import stativex.account.Account;
import stativex.account.AccountState;

/**
 * The account at a venue, whatever document it is traded with: who trades it now, which journal it was traded with last, and how it was
 * left, locks and all. Only one engine has it at a time. Source: SEMANTICS, "Live".
 */
public final class VenueAccount implements AutoCloseable {
    private final String venue;
    private final Path file;
    private final FileChannel channel;
    private final FileLock lock;
    private Optional<Path> journal = Optional.empty();
    private Optional<AccountState> state = Optional.empty();
    private Optional<LocalDate> confirmed = Optional.empty();

    private VenueAccount(String venue, Path file, FileChannel channel, FileLock lock) {
        this.venue = venue;
        this.file = file;
        this.channel = channel;
        this.lock = lock;
    }

    /** The person's own. @throws BadInput naming who has it, when another engine does */
    public static VenueAccount own(String venue, Path journal) {
        return open(DataFolder.path().resolve("live").resolve("accounts"), venue, journal);
    }

    static VenueAccount open(Path folder, String venue, Path journal) {
        String name = venue.replaceAll("[^A-Za-z0-9.-]", "_");
        Path locked = folder.resolve(name + ".lock");
        FileChannel channel = null;
        try {
            DataFolder.create(folder);
            channel = DataFolder.openFile(locked);
            FileLock lock = lock(channel);
            if (lock == null) {
                channel.close();
                throw new BadInput("the account at " + venue + " is traded already, by " + Files.readString(locked));
            }
            channel.truncate(0);
            channel.write(ByteBuffer.wrap(("process " + ProcessHandle.current().pid() + " with the journal "
                    + journal.toAbsolutePath()).getBytes(StandardCharsets.UTF_8)), 0);
            VenueAccount account = new VenueAccount(venue, folder.resolve(name + ".json"), channel, lock);
            account.read();
            return account;
        } catch (IOException e) {
            throw new BadInput(locked + ": cannot be written: " + Causes.of(e), e);
        }
    }

    /** Null when another has it. */
    private static FileLock lock(FileChannel channel) throws IOException {
        try {
            return channel.tryLock();
        } catch (OverlappingFileLockException e) {
            return null;
        }
    }

    private void read() {
        if (Files.exists(file)) {
            Field of = Field.root(file.toString(), Json.read(file));
            journal = of.maybe("journal").map(path -> Path.of(path.text()));
            state = of.maybe("state").map(AccountStateJson::read);
            confirmed = of.maybe("confirmed").map(date -> date.date());
        }
    }

    /**
     * Looks whether a journal may be gone on with: only the one that the account was traded with last.
     *
     * @throws BadInput naming that one
     */
    public void checkNewest(Path goesOn) {
        journal.filter(last -> Files.exists(last) && !last.equals(goesOn.toAbsolutePath())).ifPresent(last -> {
            throw new BadInput(goesOn + ": the account at " + venue + " was traded last with " + last
                    + ": go on with that one, or begin a new one");
        });
    }

    /** How the account was left: as its last journal says, or, where that is gone, as it was kept; else a new state. */
    public AccountState left(Account account) {
        Optional<AccountState> worked = journal.filter(Files::exists)
                .map(last -> LiveJournal.read(last).again().run().engine().accountState());
        AccountState kept = state.orElseGet(() -> AccountState.fresh(account));
        // a journal that was put back from a copy never lifts a lock
        return worked.map(now -> stricter(now, kept)).orElse(kept);
    }

    private static AccountState stricter(AccountState now, AccountState kept) {
        boolean sameDay = now.day().equals(kept.day());
        return new AccountState(now.balance(), now.standing(), now.begun(),
                now.lock().or(() -> sameDay ? kept.lock() : Optional.empty()), now.broken().or(kept::broken),
                now.losses(), now.day());
    }

    /** It is traded with a journal from now on. @throws BadInput when that cannot be kept */
    public void begins(Path with, AccountState from) {
        journal = Optional.of(with.toAbsolutePath());
        keep(from);
    }

    /** Keeps how it stands, where that differs. @throws BadInput likewise */
    public void keep(AccountState now) {
        if (state.equals(Optional.of(now)) && Files.exists(file)) {
            return;
        }
        state = Optional.of(now);
        write();
    }

    /** Trading date on which somebody has said that the firm shows the same balance and floor; empty: nobody has. */
    public Optional<LocalDate> confirmed() {
        return confirmed;
    }

    /** Somebody says so. @throws BadInput when it cannot be kept */
    public void confirm(LocalDate date) {
        if (!confirmed.equals(Optional.of(date))) {
            confirmed = Optional.of(date);
            write();
        }
    }

    private void write() {
        Map<String, Object> of = new LinkedHashMap<>();
        of.put("document", "account at a venue");
        of.put("version", 1);
        of.put("venue", venue);
        journal.ifPresent(path -> of.put("journal", path.toString()));
        state.ifPresent(now -> of.put("state", AccountStateJson.write(now)));
        confirmed.ifPresent(date -> of.put("confirmed", date.toString()));
        WholeFile.writeOwn(file, out -> out.write(Json.pretty(of)));
    }

    @Override
    public void close() {
        try {
            lock.close();
            channel.close();
        } catch (IOException e) {
            // the system lets go of it with the process
        }
    }
}
