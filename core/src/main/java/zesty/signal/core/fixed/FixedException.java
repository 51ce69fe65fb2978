package zesty.signal.core.fixed;

/** Something that cannot be done in whole numbers. The message says what, and what would be right. */
public final class FixedException extends IllegalArgumentException {
    public FixedException(String message) {
        super(message);
    }
}
