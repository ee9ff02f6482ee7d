package stativex.study;

/** A study as its strategy defines it, once, under a name that rules and chart share. */
public sealed interface StudyDefinition {
    /** The name that rules use. */
    String name();

    /** As said on screen: {@code EMA 21 of close}. */
    String words();

    /** @param of a bar figure or an output of a study defined above */
    record EmaOf(String name, String of, int length) implements StudyDefinition {
        @Override
        public String words() {
            return "EMA " + length + " of " + of;
        }
    }

    record AtrOf(String name, int length) implements StudyDefinition {
        @Override
        public String words() {
            return "ATR " + length;
        }
    }

    record VwapOf(String name, double deviations) implements StudyDefinition {
        @Override
        public String words() {
            return "VWAP session, bands "
                    + java.math.BigDecimal.valueOf(deviations).stripTrailingZeros().toPlainString();
        }
    }
}
