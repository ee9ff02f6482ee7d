package stativex.desk.tape;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.CheckBox;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import stativex.desk.look.NumberField;
import stativex.files.ChartSetup;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.Tape;
import stativex.market.TapeTime;
import stativex.study.StudyDefinition;

/** Which bars are to be made: kind, size, hours, where they begin anew, the Heikin-Ashi view, studies on them. */
final class BarControls extends HBox {
    private static final String ALL = "all hours";
    private static final List<String> KINDS = List.of("tick", "volume", "range", "seconds", "renko", "day", "week",
            "month");

    /** What was asked for. */
    record Wish(BarSettings settings, boolean heikinAshi, List<StudyDefinition> studies, String words) {}

    private final ChoiceBox<String> kind = new ChoiceBox<>();
    private final NumberField size = new NumberField("400", 4, "Size of a bar", BigDecimal.ONE);
    private final NumberField turn = new NumberField("6", 3, "Ticks that turn a brick", BigDecimal.ONE);
    private final Label turnWord = new Label("turn");
    private final Label unit = new Label("trades");
    private final ChoiceBox<String> hours = new ChoiceBox<>();
    private final ChoiceBox<String> restart = new ChoiceBox<>();
    private final CheckBox heikinAshi = new CheckBox("Heikin-Ashi");
    private final Label problem = new Label();
    private final List<CheckMenuItem> studies = new ArrayList<>();
    private final MenuButton menu = new MenuButton("Studies");
    private final Consumer<Wish> wanted;
    private Optional<Wish> last = Optional.empty();
    private Optional<LocalDate> anchor = Optional.empty();
    private boolean quiet;

    BarControls(Consumer<Wish> wanted) {
        this.wanted = wanted;
        getStyleClass().add("bar-controls");
        setAlignment(Pos.CENTER_LEFT);
        setSpacing(6);
        kind.setId("bar-kind");
        kind.setAccessibleText("Kind of bars");
        kind.getItems().setAll(KINDS);
        kind.setValue("tick");
        size.setId("bar-size");
        turn.setId("bar-turn");
        hours.setId("bar-hours");
        hours.setAccessibleText("Sessions whose prints make bars");
        restart.setId("bar-restart");
        restart.setAccessibleText("Where bars begin anew");
        restart.getItems().setAll("anew each session", "anew each day", "anew each week", "running on");
        restart.setValue("anew each session");
        restart.setTooltip(
                new Tooltip("Where bars begin anew. Running on, they begin with the tape's first trading date."));
        heikinAshi.setId("heikin-ashi");
        problem.getStyleClass().add("problem");
        problem.setId("bar-problem");
        menu.setId("bar-studies");
        menu.getStyleClass().add("small");
        for (StudyDefinition study : List.of(StudyDefinition.of("ema21", "ema", "length", "21"),
                StudyDefinition.of("ema89", "ema", "length", "89"), StudyDefinition.of("vwap", "vwap"),
                StudyDefinition.of("atr14", "atr", "length", "14"))) {
            offer(study).setSelected(study.kind().equals("vwap"));
        }
        getChildren().addAll(kind, size, unit, turnWord, turn, hours, restart, heikinAshi, menu, problem);
        getChildren().forEach(child -> {
            if (child instanceof Region region) {
                region.setMinWidth(Region.USE_PREF_SIZE);
            }
        });
        kind.setPrefWidth(96);
        hours.setPrefWidth(116);
        restart.setPrefWidth(158);
        kind.setOnAction(e -> {
            suggest();
            ask();
        });
        size.onChanged(this::ask);
        turn.onChanged(this::ask);
        hours.setOnAction(e -> ask());
        restart.setOnAction(e -> ask());
        heikinAshi.setOnAction(e -> ask());
        fields();
    }

    private CheckMenuItem offer(StudyDefinition study) {
        CheckMenuItem item = new CheckMenuItem(study.words());
        item.setUserData(study);
        item.setOnAction(e -> ask());
        studies.add(item);
        menu.getItems().add(item);
        return item;
    }

    /** Sets everything to what a look says; nothing is asked for yet. Hours that the contract does not have are all hours. */
    void set(ChartSetup setup) {
        quiet = true;
        BarType type = setup.bars().type();
        kind.setValue(switch (type) {
            case BarType.Ticks ignored -> "tick";
            case BarType.Volume ignored -> "volume";
            case BarType.Range ignored -> "range";
            case BarType.Time ignored -> "seconds";
            case BarType.Renko ignored -> "renko";
            case BarType.Period period -> period.name().toLowerCase(Locale.ROOT);
        });
        switch (type) {
            case BarType.Ticks t -> size.setText(Integer.toString(t.trades()));
            case BarType.Volume v -> size.setText(Long.toString(v.contracts()));
            case BarType.Range r -> size.setText(Long.toString(r.ticks()));
            case BarType.Time t -> size.setText(BigDecimal.valueOf(t.nanos(), 9).stripTrailingZeros().toPlainString());
            case BarType.Renko r -> {
                size.setText(Long.toString(r.step()));
                turn.setText(Long.toString(r.turn()));
            }
            case BarType.Period ignored -> {
                // has no size
            }
        }
        restart.setValue(restart.getItems().get(setup.bars().restart().ordinal()));
        String wanted = setup.bars().sessions().size() == 1 ? setup.bars().sessions().iterator().next() + " only" : ALL;
        hours.setValue(hours.getItems().contains(wanted) ? wanted : ALL);
        heikinAshi.setSelected(setup.heikinAshi());
        for (StudyDefinition study : setup.studies()) {
            if (studies.stream().noneMatch(item -> item.getUserData().equals(study))) {
                offer(study);
            }
        }
        studies.forEach(item -> item.setSelected(setup.studies().contains((StudyDefinition) item.getUserData())));
        fields();
        quiet = false;
    }

    /** A size that makes sense for the kind. */
    private void suggest() {
        boolean before = quiet;
        quiet = true;
        size.setText(switch (kind.getValue()) {
            case "volume" -> "1000";
            case "range" -> "12";
            case "seconds" -> "150";
            case "renko" -> "3";
            default -> "400";
        });
        fields();
        quiet = before;
    }

    private void fields() {
        boolean sized = KINDS.indexOf(kind.getValue()) < KINDS.indexOf("day");
        boolean renko = kind.getValue().equals("renko");
        for (Region region : List.of(size, unit)) {
            region.setVisible(sized);
            region.setManaged(sized);
        }
        for (Region region : List.of(turn, turnWord)) {
            region.setVisible(renko);
            region.setManaged(renko);
        }
        restart.setDisable(!sized);
        unit.setText(switch (kind.getValue()) {
            case "volume" -> "contracts";
            case "range" -> "ticks";
            case "seconds" -> "s";
            case "renko" -> "step";
            default -> "trades";
        });
    }

    /** The sessions that a contract's calendar has, and where running bars begin: with the tape's first trading date. */
    void tape(Contract contract, Tape tape) {
        anchor = tape.count() == 0
                ? Optional.empty()
                : contract.calendar().tradingDate(tape.time(0));
        boolean before = quiet;
        quiet = true;
        String chosen = hours.getValue();
        hours.getItems().setAll(ALL);
        hours.getItems().addAll(contract.calendar().sessionNames().stream().map(name -> name + " only").toList());
        hours.setValue(chosen != null && hours.getItems().contains(chosen) ? chosen : ALL);
        quiet = before;
    }

    /** What is asked for now; empty when a field holds no possible value, which is then said beside the fields. */
    Optional<Wish> wish() {
        try {
            BarType type = type();
            BarSettings.Restart where = type instanceof BarType.Period
                    ? BarSettings.Restart.SESSION
                    : BarSettings.Restart.values()[restart.getItems().indexOf(restart.getValue())];
            Set<String> sessions = hours.getValue() == null || hours.getValue().equals(ALL)
                    ? Set.of()
                    : Set.of(hours.getValue().replaceAll(" only$", ""));
            BarSettings settings = new BarSettings(type, where,
                    where == BarSettings.Restart.NEVER
                            ? Optional.of(anchor.orElse(LocalDate.of(1970, 1, 1)))
                            : Optional.empty(),
                    sessions);
            problem.setText("");
            return Optional.of(new Wish(settings, heikinAshi.isSelected(),
                    studies.stream().filter(CheckMenuItem::isSelected).map(i -> (StudyDefinition) i.getUserData())
                            .toList(),
                    type.words() + (sessions.isEmpty() ? "" : ", " + hours.getValue())
                            + (heikinAshi.isSelected() ? ", Heikin-Ashi" : "")));
        } catch (IllegalArgumentException | ArithmeticException e) {
            problem.setText(e.getMessage());
            return Optional.empty();
        }
    }

    private BarType type() {
        return switch (kind.getValue()) {
            case "tick" -> new BarType.Ticks((int) Math.min(Integer.MAX_VALUE, whole(size, "trades")));
            case "volume" -> new BarType.Volume(whole(size, "contracts"));
            case "range" -> new BarType.Range(whole(size, "ticks"));
            case "seconds" -> new BarType.Time(size.number()
                    .orElseThrow(() -> new IllegalArgumentException("seconds: a number such as 150 or 0.5"))
                    .multiply(BigDecimal.valueOf(TapeTime.SECOND)).longValueExact());
            case "renko" -> new BarType.Renko(whole(size, "step"), whole(turn, "turn"));
            case "day" -> BarType.Period.DAY;
            case "week" -> BarType.Period.WEEK;
            default -> BarType.Period.MONTH;
        };
    }

    private static long whole(NumberField field, String what) {
        return field.number().filter(n -> n.stripTrailingZeros().scale() <= 0)
                .orElseThrow(() -> new IllegalArgumentException(what + ": a whole number")).longValueExact();
    }

    /** Forgets what was asked before, so that the same is asked for another tape. */
    void again() {
        last = Optional.empty();
        ask();
    }

    private void ask() {
        if (quiet) {
            return;
        }
        Optional<Wish> wish = wish();
        if (wish.isPresent() && !wish.equals(last)) {
            last = wish;
            wanted.accept(wish.get());
        }
    }
}
