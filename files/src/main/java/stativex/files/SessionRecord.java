package stativex.files;

import stativex.engine.Command;

/** Where a session's commands are recorded, each before it acts. */
public interface SessionRecord extends AutoCloseable {
    /**
     * Records a command.
     *
     * @param place inputs worked before it
     * @throws BadInput when it cannot be recorded; then it must not act
     */
    void command(int place, Command command);

    /** Records how far the session has come: after a kill it goes on from there, or from its last command. */
    void reached(int place);

    /** Records where the session ended. */
    void end(int place);

    @Override
    void close();
}
