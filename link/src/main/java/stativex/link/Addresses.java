package stativex.link;

import java.net.InetSocketAddress;
import stativex.files.BadInput;

/** Addresses as a person writes them. */
public final class Addresses {
    private Addresses() {}

    /** @param what it is of, for the sentence that says what is wrong; @throws BadInput unless it is a host and a port */
    public static InetSocketAddress read(String what, String text) {
        int colon = text.lastIndexOf(':');
        try {
            int port = Integer.parseInt(text.substring(colon + 1));
            if (colon > 0 && port > 0 && port < 65_536) {
                InetSocketAddress address = new InetSocketAddress(text.substring(0, colon), port);
                if (!address.isUnresolved()) {
                    return address;
                }
            }
        } catch (NumberFormatException e) {
            // said below
        }
        throw new BadInput(what + ": expected a host and a port such as 127.0.0.1:4404, found " + text);
    }
}
