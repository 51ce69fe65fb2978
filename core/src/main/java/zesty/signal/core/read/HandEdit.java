package zesty.signal.core.read;

import zesty.signal.core.text.Messages;

/**
 * A change to a reader's events made by hand.
 *
 * @param in whether an event was put in; else one was taken out
 * @param seconds when it is; one is taken out by the time that the reader gave it
 */
public record HandEdit(boolean in, double seconds) {
    public HandEdit {
        if (!Double.isFinite(seconds)) {
            throw new IllegalArgumentException(Messages.of("read.seconds-must-be-a-number-was", seconds));
        }
    }
}
