package zesty.signal.takes;

import java.io.IOException;

/** A take, rig or table that cannot be written or read. The message says where, what, and what would be right. */
public final class TakeException extends IOException {
    public TakeException(String message) {
        super(message);
    }

    public TakeException(String message, Throwable cause) {
        super(message, cause);
    }
}
