package zesty.signal.core.sample;

import java.util.Objects;
import zesty.signal.core.text.Messages;

/** When the rows of a block were taken, in seconds from the recording's first sample. */
public sealed interface TimeBase {

    /** @return the time of the given row, in seconds */
    double secondsAt(int row);

    /** Rows at a steady rate: row i is at firstSeconds + i · periodSeconds. */
    record Steady(double firstSeconds, double periodSeconds) implements TimeBase {
        public Steady {
            if (!(periodSeconds > 0) || !Double.isFinite(firstSeconds)) {
                throw new IllegalArgumentException(
                        Messages.of("sample.periodseconds-must-be-0-and", periodSeconds, firstSeconds));
            }
        }

        @Override
        public double secondsAt(int row) {
            return firstSeconds + row * periodSeconds;
        }
    }

    /** Rows with a time each, never falling. The array is owned by the time base from here on. */
    record Explicit(double[] seconds) implements TimeBase {
        public Explicit {
            Objects.requireNonNull(seconds, "seconds");
        }

        @Override
        public double secondsAt(int row) {
            return seconds[row];
        }
    }
}
