package stativex.desk.trials;

import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import stativex.desk.look.Form;
import stativex.desk.look.Format;
import stativex.desk.look.HoldButton;
import stativex.engine.Strategy;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.files.SealBook;
import stativex.files.SearchSpec;
import stativex.files.TrialFolder;
import stativex.files.tape.FurtherTape;
import stativex.files.tape.TapeReference;
import stativex.files.tape.TapeStore;
import stativex.market.SessionCalendar;
import stativex.trial.Days;
import stativex.trial.Inputs;

/** What the Trials stage has to do with dates that nobody looks at: offered at a contract's first trial, hidden, opened once for a version. */
final class SealPart {
    private static final DateTimeFormatter DATE = DateTimeFormatter.ofPattern("d MMM", Locale.ENGLISH);

    private final Supplier<TrialsStage.Work> work;
    private boolean declined;

    SealPart(Supplier<TrialsStage.Work> work) {
        this.work = work;
    }

    /** What is offered now: a seal over the last third, once, of a stored tape whose contract has none. */
    Optional<SealBook.Seal> offered() {
        if (work.get().seal().isPresent() || !work.get().stored() || declined) {
            return Optional.empty();
        }
        Inputs inputs = work.get().inputs();
        SessionCalendar calendar = inputs.contract().calendar();
        return SealBook.offered(inputs.contract().symbol(),
                Days.dates(inputs.days().of(inputs.seen(), calendar), calendar));
    }

    /**
     * The question.
     *
     * @param sealed told when it was answered with yes, {@code not} with no
     */
    List<Node> question(SealBook.Seal seal, Runnable sealed, Runnable not, Consumer<String> problems) {
        Label heading = heading("Seal the last third?");
        Button yes = new Button("Seal " + DATE.format(seal.from()) + " – " + DATE.format(seal.to()));
        yes.setId("seal-yes");
        yes.setOnAction(e -> {
            try {
                SealBook.own().seal(seal);
                sealed.run();
            } catch (BadInput problem) {
                problems.accept(problem.getMessage());
            }
        });
        Button no = new Button("Not for this contract now");
        no.setId("seal-no");
        no.setOnAction(e -> {
            declined = true;
            not.run();
        });
        return List.of(heading, Form.wrapped("What a rule was fitted on proves nothing. Sealed dates are"
                + " left out everywhere, trials, searches, marks, odds and replays, until you open them once for one"
                + " version, which is counted for ever. A seal is never changed."), yes, no);
    }

    /** What is said of unseen dates under a result. */
    String words() {
        return SealBook.own().words(work.get().seal());
    }

    /** The seal over a trial's contract. */
    private Optional<SealBook.Seal> over(TrialFolder.Kept one) {
        return work.get().seal().filter(seal -> seal.contract().equals(one.contract()));
    }

    /** The seal over a search's contract. */
    Optional<SealBook.Seal> over(SearchSpec spec) {
        return work.get().seal().filter(seal -> seal.contract().equals(spec.contract().value().symbol()));
    }

    /** Whether a trial looks at sealed dates that nobody opened for its version: it was made before the seal. */
    boolean hides(TrialFolder.Kept one) {
        return over(one).filter(seal -> SealBook.own().hides(seal, one)).isPresent();
    }

    /** Whether a trial is of the unseen range. */
    boolean isUnseen(TrialFolder.Kept one) {
        return over(one).filter(seal -> one.from().filter(seal::holds).isPresent()).isPresent();
    }

    /** The trial of the same version on the other side of the seal, the newest. */
    Optional<TrialFolder.Kept> partner(TrialFolder.Kept one, List<TrialFolder.Kept> kept) {
        return over(one).isEmpty() || hides(one)
                ? Optional.empty()
                : kept.stream().filter(other -> other.versions().equals(one.versions())
                        && other.contract().equals(one.contract()) && isUnseen(other) != isUnseen(one) && !hides(other)
                        && other.from().isPresent()).findFirst();
    }

    /** The days of a trial that looks at further contracts, too: none of them sealed for any. @throws IllegalArgumentException without one left */
    Days fit(Days days, List<FurtherTape> others) {
        Days fit = days;
        for (FurtherTape other : others) {
            if (TapeReference.isStored(TapeStore.own(), other.reference())) {
                Optional<SealBook.Seal> over = SealBook.own().of(other.symbol());
                fit = over.isPresent() ? over.get().fit(fit) : fit;
            }
        }
        return fit;
    }

    /** The sealed trading dates of a trial's contract. */
    List<LocalDate> dates(TrialFolder.Kept one, SessionCalendar calendar) {
        List<LocalDate> dates = new ArrayList<>();
        over(one).ifPresent(seal -> {
            for (LocalDate day = seal.from(); !day.isAfter(seal.to()); day = day.plusDays(1)) {
                if (!calendar.sessions(day).isEmpty()) {
                    dates.add(day);
                }
            }
        });
        return dates;
    }

    /**
     * The unseen range for a version: counted. Returns the inputs of a trial over it.
     *
     * @throws BadInput when the opening cannot be written down: nothing is looked at then
     */
    Inputs open(TrialQueue.Result of) {
        SealBook.Seal seal = work.get().seal().orElseThrow();
        for (Documents.Read<Strategy> strategy : of.documents().strategies()) {
            SealBook.own().open(seal, strategy.value().name(), strategy.value().version());
        }
        Inputs fit = of.run().inputs();
        return of.documents().inputs(fit.tape(), fit.terms()).over(seal.unseen()).rolling(fit.rolls());
    }

    /** What is known of the sealed range, beside a trial. @param open opens it for the version that is shown */
    Node beside(TrialFolder.Kept one, Optional<TrialFolder.Kept> partner, Runnable open) {
        VBox box = new VBox(4);
        Optional<SealBook.Seal> over = over(one);
        if (over.isEmpty()) {
            return box;
        }
        box.setPadding(new Insets(10, 0, 0, 0));
        SealBook.Seal seal = over.get();
        String opened = "Opened " + SealBook.times(SealBook.own().openings(seal)) + ".";
        box.getChildren().add(heading("Unseen"));
        if (isUnseen(one)) {
            box.getChildren().add(Form.wrapped("This is the unseen range. " + opened));
        } else if (partner.isPresent()) {
            TrialFolder.Kept other = partner.get();
            Label words = Form.wrapped("Trial " + other.number() + " of the same version: " + other.trades()
                    + " trades, net " + Format.signedMoney(other.net()) + (other.trades() == 0
                            ? ""
                            : ", average " + Format.signedMoney(other.net() / other.trades()))
                    + ". " + opened);
            words.setId("trial-unseen");
            box.getChildren().add(words);
        } else {
            HoldButton hold = new HoldButton("Hold to open " + DATE.format(seal.from()) + " – "
                    + DATE.format(seal.to()) + " for this version",
                    "It is opened for this version alone, and counted for ever.", open);
            hold.setId("trial-open-seal");
            int others = SealBook.own().openings(seal);
            box.getChildren().addAll(Form.wrapped("Sealed: never looked at with this version; "
                    + (others == 0 ? "no other has opened it." : "opened " + SealBook.times(others) + " by others.")),
                    hold);
        }
        return box;
    }

    private static Label heading(String words) {
        Label heading = new Label(words);
        heading.getStyleClass().add("heading");
        return heading;
    }
}
