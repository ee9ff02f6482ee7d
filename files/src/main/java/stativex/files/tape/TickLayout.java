package stativex.files.tape;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import stativex.files.BadInput;

/**
 * How a tick file is to be read.
 *
 * @param header whether the first line names the columns
 * @param names of the columns as the file has them, or numbers
 * @param columns what each column holds
 * @param zone of times that carry no offset; empty refuses them
 * @param decimalMark point or comma
 * @param loose allows blanks around values, dates and times apart by a blank, and other words for buyer and seller; our
 *        own files are read strictly
 */
public record TickLayout(char delimiter, boolean header, List<String> names, List<Column> columns, TimeForm times,
        Optional<ZoneId> zone, char decimalMark, boolean loose) {

    public TickLayout {
        names = List.copyOf(names);
        columns = List.copyOf(columns);
        if (names.size() != columns.size()) {
            throw new IllegalArgumentException("expected as many names as columns");
        }
    }

    /** Our own files: {@code time,price,size[,bid,ask[,bid_size,ask_size]][,aggressor]} in any order. */
    static TickLayout own(String file, List<String> names) {
        List<Column> columns = new ArrayList<>();
        Set<String> known = new TreeSet<>();
        for (Column column : Column.values()) {
            Column.own(column.word()).ifPresent(c -> known.add(c.word()));
        }
        for (int i = 0; i < names.size(); i++) {
            String name = names.get(i);
            String place = "line 1, column " + (i + 1);
            Column column = Column.own(name).orElseThrow(() -> BadInput.at(file, place,
                    "expected one of " + String.join(",", known) + ", found \"" + name + "\""));
            if (columns.contains(column)) {
                throw BadInput.at(file, place, "column \"" + name + "\" is there twice");
            }
            columns.add(column);
        }
        TickLayout layout = new TickLayout(',', true, names, columns, TimeForm.YEAR_FIRST, Optional.empty(), '.',
                false);
        layout.lacking().ifPresent(lacking -> {
            throw BadInput.at(file, "line 1",
                    "expected a column \"" + lacking + "\", found " + String.join(",", names));
        });
        return layout;
    }

    /** The first column that is needed and not there, or why the mapping cannot be used; empty when it can. */
    public Optional<String> lacking() {
        boolean apart = columns.contains(Column.DATE) && columns.contains(Column.CLOCK);
        if (!columns.contains(Column.TIME) && !apart) {
            return Optional.of("time");
        }
        for (Column column : List.of(Column.PRICE, Column.SIZE)) {
            if (!columns.contains(column)) {
                return Optional.of(column.word());
            }
        }
        return Optional.empty();
    }

    /** The column that is mapped twice; empty when none is. */
    public Optional<Column> twice() {
        return columns.stream().filter(c -> c != Column.LEFT_OUT && columns.indexOf(c) != columns.lastIndexOf(c))
                .findFirst();
    }

    /** The same with another mapping. */
    public TickLayout with(List<Column> mapping) {
        return new TickLayout(delimiter, header, names, mapping, times, zone, decimalMark, loose);
    }

    public TickLayout with(TimeForm form) {
        return new TickLayout(delimiter, header, names, columns, form, zone, decimalMark, loose);
    }

    public TickLayout in(ZoneId assumed) {
        return new TickLayout(delimiter, header, names, columns, times, Optional.of(assumed), decimalMark, loose);
    }

    /** In words, for people: columns, delimiter, times. */
    public String words() {
        String split = switch (delimiter) {
            case '\t' -> "tab";
            case ';' -> "semicolon";
            default -> "comma";
        };
        return "split by " + split + (header ? ", header" : ", no header") + ", times as " + times.example()
                + zone.map(z -> ", without offset in " + z).orElse("")
                + (decimalMark == ',' ? ", decimal comma" : "");
    }
}
