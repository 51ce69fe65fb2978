package zesty.signal.core.decode;

/** What a column of the stream is for. */
public enum Role {
    /** A quantity, or the counts of one. */
    VALUE,
    /** The board's own clock. */
    CLOCK,
    /** A number that goes up by one with each line or packet, which tells what was lost. */
    SEQUENCE,
    /** Which of several stations the line is of. */
    STATION,
    /** The moment of an event, such as a turn of the wind cups: the row's time and its value at once. */
    EDGE,
    /** One pixel of a picture. It is kept in takes and has no lane. */
    PICTURE,
    /** A part of a picture: worked out of the pictures, also of a take, and not sent. */
    REGION
}
