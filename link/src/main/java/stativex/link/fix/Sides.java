package stativex.link.fix;

import java.net.InetSocketAddress;
import quickfix.SessionID;
import quickfix.SessionSettings;

/** The two sessions of a link, one for market data and one for orders, and how both ends are set up. */
final class Sides {
    private static final String FIX = "FIX.4.4";
    private static final String VENUE = "EXCHANGE";
    private static final String DATA = "CLIENT-DATA";
    private static final String ORDERS = "CLIENT-ORDERS";

    private Sides() {}

    static SessionID data(boolean venue) {
        return venue ? new SessionID(FIX, VENUE, DATA) : new SessionID(FIX, DATA, VENUE);
    }

    static SessionID orders(boolean venue) {
        return venue ? new SessionID(FIX, VENUE, ORDERS) : new SessionID(FIX, ORDERS, VENUE);
    }

    static SessionSettings settings(boolean venue, InetSocketAddress at) {
        SessionSettings settings = new SessionSettings();
        set(settings, "ConnectionType", venue ? "acceptor" : "initiator");
        set(settings, "StartTime", "00:00:00");
        set(settings, "EndTime", "00:00:00");
        set(settings, "NonStopSession", "Y");
        set(settings, "HeartBtInt", "10");
        set(settings, "ReconnectInterval", "1");
        set(settings, "TimeStampPrecision", "NANOS");
        set(settings, "UseDataDictionary", "Y");
        set(settings, "DataDictionary", "FIX44.xml");
        // the stand-in's own fields lie in the range that the standard leaves to its users
        set(settings, "ValidateUserDefinedFields", "N");
        set(settings, "ResetOnLogon", "Y");
        set(settings, "SocketTcpNoDelay", "Y");
        set(settings, venue ? "SocketAcceptAddress" : "SocketConnectHost", at.getAddress().getHostAddress());
        set(settings, venue ? "SocketAcceptPort" : "SocketConnectPort", Integer.toString(at.getPort()));
        for (SessionID side : new SessionID[]{data(venue), orders(venue)}) {
            // what is not sent again need not be kept
            settings.setString(side, "PersistMessages", "N");
            settings.setString(side, "BeginString", side.getBeginString());
            settings.setString(side, "SenderCompID", side.getSenderCompID());
            settings.setString(side, "TargetCompID", side.getTargetCompID());
        }
        // prints come by the thousand: what they say is checked where it is read
        settings.setString(data(venue), "ValidateIncomingMessage", "N");
        return settings;
    }

    private static void set(SessionSettings settings, String name, String value) {
        settings.setString(name, value);
    }
}
