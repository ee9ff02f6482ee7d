package stativex.desk.rules;

import java.math.BigDecimal;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import stativex.desk.look.NumberField;
import stativex.market.BarType;
import stativex.market.TapeTime;

/** The bars of a signal series: a kind, a size, and for renko the turn. */
final class BarChoice extends HBox {
    private final ComboBox<String> kind = new ComboBox<>();
    private final NumberField size = new NumberField("400", 6, "Size of the bars", BigDecimal.ONE);
    private final NumberField turn = new NumberField("6", 3, "Ticks against the last brick that turn", BigDecimal.ONE);
    private final Label unit = new Label();
    private final Consumer<BarType> chosen;
    private boolean showing;

    /**
     * @param id of the choice; its fields are named after it
     * @param chosen told when the person has chosen other bars
     */
    BarChoice(String id, Consumer<BarType> chosen) {
        super(4);
        this.chosen = chosen;
        setAlignment(Pos.CENTER_LEFT);
        kind.getItems().setAll("tick", "volume", "range", "seconds", "renko", "day", "week", "month");
        kind.setAccessibleText("Kind of bars of the signal series");
        kind.setId(id + "-kind");
        size.setId(id + "-size");
        turn.setId(id + "-turn");
        unit.getStyleClass().add("muted");
        unit.setMinWidth(USE_PREF_SIZE);
        getChildren().addAll(kind, size, turn, unit);
        kind.setOnAction(e -> {
            if (!showing) {
                size.setText(switch (kind.getValue()) {
                    case "volume" -> "1000";
                    case "range" -> "12";
                    case "seconds" -> "150";
                    case "renko" -> "3";
                    default -> "400";
                });
                tell();
            }
        });
        size.onChanged(this::tell);
        turn.onChanged(this::tell);
    }

    private void tell() {
        if (!showing) {
            type().ifPresent(chosen);
        }
    }

    /** The bars that stand there; empty while the figures are none. */
    private Optional<BarType> type() {
        try {
            return Optional.of(switch (kind.getValue()) {
                case "tick" -> new BarType.Ticks(whole(size).intValueExact());
                case "volume" -> new BarType.Volume(whole(size).longValueExact());
                case "range" -> new BarType.Range(whole(size).longValueExact());
                case "seconds" -> new BarType.Time(
                        size.number().orElseThrow().multiply(BigDecimal.valueOf(TapeTime.SECOND)).longValueExact());
                case "renko" -> new BarType.Renko(whole(size).longValueExact(), whole(turn).longValueExact());
                case "day" -> BarType.Period.DAY;
                case "week" -> BarType.Period.WEEK;
                default -> BarType.Period.MONTH;
            });
        } catch (ArithmeticException | IllegalArgumentException | java.util.NoSuchElementException e) {
            unit.setText(e instanceof IllegalArgumentException ? e.getMessage() : "expected a whole number");
            return Optional.empty();
        }
    }

    private static BigDecimal whole(NumberField field) {
        return field.number().orElseThrow();
    }

    /** Shows what stands in a document. */
    void show(BarType type) {
        showing = true;
        String words = switch (type) {
            case BarType.Ticks t -> put("tick", Integer.toString(t.trades()), "trades");
            case BarType.Volume v -> put("volume", Long.toString(v.contracts()), "contracts");
            case BarType.Range r -> put("range", Long.toString(r.ticks()), "ticks");
            case BarType.Time t -> put("seconds", BigDecimal.valueOf(t.nanos()).movePointLeft(9).stripTrailingZeros()
                    .toPlainString(), "s");
            case BarType.Renko r -> {
                turn.setText(Long.toString(r.turn()));
                yield put("renko", Long.toString(r.step()), "step : turn");
            }
            case BarType.Period p -> put(p.name().toLowerCase(java.util.Locale.ROOT), "", "");
        };
        unit.setText(words);
        turn.setVisible(type instanceof BarType.Renko);
        turn.setManaged(turn.isVisible());
        size.setVisible(!(type instanceof BarType.Period));
        size.setManaged(size.isVisible());
        showing = false;
    }

    private String put(String word, String text, String of) {
        kind.setValue(word);
        size.setText(text);
        return of;
    }
}
