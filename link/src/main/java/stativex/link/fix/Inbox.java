package stativex.link.fix;

import java.io.IOException;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.LinkedBlockingQueue;
import quickfix.Application;
import quickfix.Message;
import quickfix.Session;
import quickfix.SessionID;

/** Takes what the protocol layer calls back with, on whichever of its threads, and keeps it in order for one reader. */
final class Inbox implements Application {
    /** @param message empty: the session has logged on or off */
    record Item(SessionID session, java.util.Optional<Message> message, boolean on) {}

    private final LinkedBlockingQueue<Item> items = new LinkedBlockingQueue<>();
    /** By their names: the protocol layer's own register is one for the whole process. */
    private final Map<SessionID, Session> sessions = new ConcurrentHashMap<>();

    LinkedBlockingQueue<Item> items() {
        return items;
    }

    /** Sends on a session that has been on; what is sent while it is off is nobody's: whoever comes again asks for what he missed. */
    void send(Message message, SessionID session) {
        Session on = sessions.get(session);
        if (on != null) {
            on.send(message);
        }
    }

    /** Cuts a connection; whoever was at the other end may come again. */
    void cut(SessionID session) {
        Session on = sessions.get(session);
        if (on != null) {
            try {
                on.disconnect("as it was asked to", false);
            } catch (IOException e) {
                // it is gone already
            }
        }
    }

    @Override
    public void onCreate(SessionID session) {
        // nothing to do
    }

    @Override
    public void onLogon(SessionID session) {
        sessions.put(session, Session.lookupSession(session));
        items.add(new Item(session, java.util.Optional.empty(), true));
    }

    @Override
    public void onLogout(SessionID session) {
        items.add(new Item(session, java.util.Optional.empty(), false));
    }

    @Override
    public void toAdmin(Message message, SessionID session) {
        // as it is
    }

    @Override
    public void fromAdmin(Message message, SessionID session) {
        // the protocol layer's own; a sign of life says what time it is at the other end
        if (isHeartbeat(message)) {
            items.add(new Item(session, java.util.Optional.of(message), true));
        }
    }

    private static boolean isHeartbeat(Message message) {
        try {
            return Own.type(message).equals(quickfix.field.MsgType.HEARTBEAT);
        } catch (BadMessage e) {
            return false;
        }
    }

    /** New orders, changes and cancellations are never sent again: whoever lacks one gets a gap, and asks for its status. */
    @Override
    public void toApp(Message message, SessionID session) throws quickfix.DoNotSend {
        if (message.getHeader().isSetField(quickfix.field.PossDupFlag.FIELD)) {
            throw new quickfix.DoNotSend();
        }
    }

    @Override
    public void fromApp(Message message, SessionID session) {
        items.add(new Item(session, java.util.Optional.of(message), true));
    }
}
