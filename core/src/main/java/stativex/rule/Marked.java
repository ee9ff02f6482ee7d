package stativex.rule;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import stativex.market.Drawing;
import stativex.study.Frame;
import stativex.study.MarkColumn;

/** Conditions about marks: one stands on this bar or on one of the last N, as far as it has been drawn by then. */
final class Marked {
    private Marked() {}

    /** Marks that studies draw; absent as long as one that may stand there cannot be known. */
    static final class ByStudies extends Condition {
        private final List<MarkColumn> marks;
        private final int bars;

        ByStudies(String text, List<MarkColumn> marks, int bars) {
            super(text);
            this.marks = marks;
            this.bars = bars;
        }

        @Override
        void evaluate(byte[] truth, int from, int to) {
            for (int bar = from; bar < to; bar++) {
                // one that stands in these bars was drawn with one of them
                int found = bar + 1 < bars ? Truth.ABSENT : Truth.FALSE;
                for (int i = 0; i < marks.size(); i++) {
                    double[] ago = marks.get(i).ago().values();
                    for (int at = Math.max(0, bar - bars + 1); at <= bar; at++) {
                        found = Truth.or(found, stands(ago[at], at, bar));
                    }
                }
                truth[bar] = (byte) found;
            }
        }

        private int stands(double ago, int drawnWith, int bar) {
            return Double.isNaN(ago)
                    ? Truth.ABSENT
                    : Truth.of(ago != MarkColumn.NONE && drawnWith - (int) ago > bar - bars);
        }

        @Override
        public Explanation explain(int bar) {
            for (MarkColumn mark : marks) {
                for (int at = bar; at > Math.max(-1, bar - bars); at--) {
                    if (stands(mark.ago().at(at), at, bar) == Truth.TRUE) {
                        int ago = bar - at + (int) mark.ago().at(at);
                        return Explanation.of(text(), at(bar), List.of())
                                .noting(ago == 0 ? "on this bar" : ago + (ago == 1 ? " bar" : " bars") + " before");
                    }
                }
            }
            return Explanation.of(text(), at(bar), List.of()).noting(at(bar) == Truth.ABSENT
                    ? "its study is warming up"
                    : "none stands there so far");
        }
    }

    /** A mark drawn by hand: it stands on the bar in whose time it lies. */
    static final class ByHand extends Condition {
        private final Drawing.Marker marker;
        private final int bars;
        private final Frame frame;

        ByHand(String text, Drawing.Marker marker, int bars, Frame frame) {
            super(text);
            this.marker = marker;
            this.bars = bars;
            this.frame = frame;
        }

        @Override
        void evaluate(byte[] truth, int from, int to) {
            for (int bar = from; bar < to; bar++) {
                truth[bar] = (byte) Truth.of(ago(bar) < bars);
            }
        }

        /** Bars between it and the one it stands on; {@link Integer#MAX_VALUE} when that is further back, or yet to come. */
        private int ago(int bar) {
            if (marker.time() > frame.moment(bar)) {
                return Integer.MAX_VALUE;
            }
            for (int at = bar; at > bar - bars && at >= 0; at--) {
                if (at == 0 || frame.moment(at - 1) < marker.time()) {
                    return bar - at;
                }
            }
            return Integer.MAX_VALUE;
        }

        @Override
        public Explanation explain(int bar) {
            int ago = ago(bar);
            return Explanation.of(text(), at(bar), List.of())
                    .noting(ago >= bars
                            ? "it does not stand there"
                            : ago == 0 ? "on this bar" : ago + (ago == 1 ? " bar" : " bars") + " before");
        }
    }

    /** Marks under a name, of the form {@code turn.top} or, for all of a study, {@code turn}. */
    record Named(String text, Scope.Built study, List<MarkColumn> marks) {}

    /** What a name stands for among the marks of a series; empty when there are none of it. */
    static Optional<Named> named(Scope scope, String text) {
        int dot = text.indexOf('.');
        String study = dot < 0 ? text : text.substring(0, dot);
        return scope.definitions().stream().filter(d -> d.name().equals(study)).findFirst().map(scope::study)
                .map(built -> new Named(text, built, built.marks().stream()
                        .filter(mark -> dot < 0 || mark.name().equals(text.substring(dot + 1))).toList()))
                .filter(named -> !named.marks().isEmpty());
    }

    /** Names of all marks of a series' studies. */
    static List<String> names(Scope scope) {
        List<String> names = new ArrayList<>();
        for (Program.MarkOutput mark : scope.marks()) {
            names.add(mark.name());
        }
        return names;
    }
}
