package zesty.signal.boards.link;

/** A stream of bytes to and from a board. */
public interface Link extends AutoCloseable {
    /** Nothing came within the time-out. */
    int NOTHING = 0;
    /** The stream is over and no more will come. */
    int OVER = -1;

    /** Opens it. @throws LinkException when that fails */
    void open() throws LinkException;

    /**
     * Waits for bytes, at most about 100 ms.
     *
     * @return how many were put into the buffer from its start; {@link #NOTHING} or {@link #OVER}
     * @throws LinkException when the link broke
     */
    int read(byte[] buffer) throws LinkException;

    /** Sends bytes to the board. @throws LinkException when the link cannot send or broke */
    void write(byte[] bytes) throws LinkException;

    /** Ends it and frees what it holds. Any thread; more than once does no harm. */
    @Override
    void close();

    /** @return whether a board may be in the middle of a line when this link opens */
    boolean joinsMidStream();

    /** @return whether whoever sends waits while nobody reads, so that a slow reader loses nothing */
    default boolean holdsUp() {
        return false;
    }

    /** Another process of this program may hold it too, from the next opening on. Any thread. @return whether that is a change */
    default boolean share() {
        return false;
    }

    /** @return whether it waits to be called, so that a caller who goes is no reason to give up */
    default boolean listens() {
        return false;
    }

    /** Any thread. @return how many callers were turned away because another board is connected */
    default int turnedAway() {
        return 0;
    }

    /** @return whether bytes come as fast as they are read, so that their arrival says nothing about time */
    default boolean unpaced() {
        return false;
    }

    /** Any thread. @return what a station of the stream is called; empty for its number */
    default String stationName(double station) {
        return "";
    }

    /** Any thread. @return messages that were kept from before it opened, and are old */
    default int old() {
        return 0;
    }
}
