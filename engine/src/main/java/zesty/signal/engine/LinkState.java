package zesty.signal.engine;

/** How a source is doing. */
public enum LinkState {
    /** Not asked to run. */
    IDLE,
    /** Being opened. */
    CONNECTING,
    /** Bytes are awaited or come, and their format is not known yet. */
    WARMING_UP,
    /** Samples come. */
    LIVE,
    /** Nothing came for a moment: the last number is held. */
    HELD,
    /** The link broke or has been silent for long; it is tried again. */
    LOST,
    /** It cannot be opened until the maker changes something. */
    REFUSED,
    /** The stream came to its end, as a file does. */
    OVER,
    /** A stored take, not a link. */
    STORED
}
