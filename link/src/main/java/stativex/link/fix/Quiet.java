package stativex.link.fix;

import quickfix.Log;
import quickfix.LogFactory;
import quickfix.SessionID;

/** The protocol layer's own notes: events to the system's logger, messages nowhere, as they hold what is nobody's business. */
final class Quiet implements LogFactory {
    @Override
    public Log create(SessionID session) {
        System.Logger logger = System.getLogger("stativex.fix");
        return new Log() {
            @Override
            public void clear() {
                // keeps nothing
            }

            @Override
            public void onIncoming(String message) {
                // kept by the journal as what it meant
            }

            @Override
            public void onOutgoing(String message) {
                // likewise
            }

            @Override
            public void onEvent(String text) {
                logger.log(System.Logger.Level.DEBUG, "{0}: {1}", session, text);
            }

            @Override
            public void onErrorEvent(String text) {
                logger.log(System.Logger.Level.DEBUG, "{0}: {1}", session, text);
            }
        };
    }
}
