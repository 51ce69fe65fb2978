package zesty.signal.exchange.portable;

/** Something cannot go onto a board; the message names it. */
public final class PortableException extends RuntimeException {
    PortableException(String message) {
        super(message);
    }
}
