package stativex.desk.sound;

import java.util.EnumSet;
import java.util.Optional;
import java.util.Set;
import stativex.engine.Decision;
import stativex.engine.Snapshot;
import stativex.engine.Trade;
import stativex.order.Order;

/** Hears what has happened between two pictures of a run. */
final class SoundWatch {
    private int fills;
    private int decisions;
    private int stops;
    private boolean near;
    private int alarms;
    private boolean begun;

    /** Takes a picture without a sound: a jump, or another run. */
    void skip(Snapshot now) {
        heard(now, alarms);
    }

    /**
     * What is to be heard of a picture that follows the last one; the most urgent, for only one is played.
     *
     * @param standing alarms that stand: a new one is heard at once, also in the first picture
     */
    Optional<Sound> heard(Snapshot now, int standing) {
        Set<Sound> all = EnumSet.noneOf(Sound.class);
        boolean alarmed = standing > alarms;
        alarms = standing;
        if (alarmed) {
            all.add(Sound.ALARM);
        }
        for (int i = Math.min(fills, now.fills().size()); i < now.fills().size(); i++) {
            all.add(now.fills().get(i).role() == Order.Role.ENTRY ? Sound.ENTRY : Sound.EXIT);
        }
        for (int i = Math.min(decisions, now.decisions().size()); i < now.decisions().size(); i++) {
            Decision.Kind kind = now.decisions().get(i).kind();
            if (kind == Decision.Kind.LOCKED) {
                all.add(Sound.LOCKED);
            } else if (kind == Decision.Kind.DECLINED || kind == Decision.Kind.REJECTED) {
                all.add(Sound.DECLINED);
            }
        }
        int moved = now.strategies().stream().flatMap(s -> s.trade().stream()).map(Trade::stops).mapToInt(s -> s.size())
                .sum() + now.hand().trade().map(t -> t.stops().size()).orElse(0);
        if (moved > stops && stops > 0) {
            all.add(Sound.STOP);
        }
        boolean close = now.strategies().stream().flatMap(s -> s.headroom().stream())
                .anyMatch(h -> h.line().below() && h.near());
        if (close && !near) {
            all.add(Sound.NEAR);
        }
        boolean first = !begun;
        begun = true;
        fills = now.fills().size();
        decisions = now.decisions().size();
        stops = moved;
        near = close;
        return first && !alarmed ? Optional.empty() : all.stream().findFirst();
    }
}
