package zesty.signal.core.read;

/** A reader cannot work like this: the message is a whole sentence that says what is wrong and what would do. */
public final class ReaderException extends IllegalArgumentException {
    private static final long serialVersionUID = 1;

    public ReaderException(String message) {
        super(message);
    }
}
