package zesty.signal.core.plan;

import java.util.List;
import zesty.signal.core.text.Messages;

/**
 * A setup that is not wired yet. Each part may be null: nothing is then known or asked of it.
 *
 * @param recipe as text; empty for none
 */
public record Plan(
        Line line,
        Row row,
        Converter converter,
        Signal signal,
        String recipe,
        Memory memory,
        Battery battery,
        Divider divider,
        Shunt shunt,
        Bridge bridge) {

    /** A serial line. @param bitsAByte start, data and stop bits together */
    public record Line(double baud, double bitsAByte) {
        public Line {
            above("line.baud", baud);
            above("line.bits_a_byte", bitsAByte);
        }
    }

    /**
     * What is sent each time.
     *
     * @param text a sample line with its ending; null for packets
     * @param bytes of a row
     * @param numbered whether the number behind the clock is the row's own, which tells how many were dropped
     */
    public record Row(double rateHz, String text, double bytes, boolean numbered) {
        public Row {
            above("row.rate_hz", rateHz);
            above("row.bytes", bytes);
        }

        /** Rows without a number of their own. */
        public Row(double rateHz, String text, double bytes) {
            this(rateHz, text, bytes, false);
        }
    }

    /** @param noiseCounts RMS of one reading; {@code average} readings that are averaged into one */
    public record Converter(int bits, double ref, double noiseCounts, double average) {
        public Converter {
            if (bits < 1 || bits > 32) {
                throw new IllegalArgumentException(Messages.of("plan.converter-bits-must-be-1-to-32-was", bits));
            }
            above("converter.ref", ref);
            atLeast("converter.noise_counts", noiseCounts, 0);
            atLeast("converter.average", average, 1);
        }
    }

    /** @param highestHz of interest; NaN where it is not known. @param tones that are there and not wanted */
    public record Signal(double highestHz, List<Double> tones) {
        public Signal {
            tones = List.copyOf(tones);
            if (highestHz == highestHz) {
                above("signal.highest_hz", highestHz);
            }
            tones.forEach(tone -> above("signal.tones", tone));
        }
    }

    public record Memory(double bytes, double bytesARow) {
        public Memory {
            above("memory.bytes", bytes);
            above("memory.bytes_a_row", bytesARow);
        }
    }

    /** A current and for how long of each round. */
    public record State(double milliamps, double seconds) {
        public State {
            atLeast("battery.states.ma", milliamps, 0);
            above("battery.states.s", seconds);
        }
    }

    public record Battery(double milliampHours, List<State> states) {
        public Battery {
            above("battery.mah", milliampHours);
            states = List.copyOf(states);
            if (states.isEmpty()) {
                throw new IllegalArgumentException(Messages.of("plan.battery-states-needs-one-state-at"));
            }
        }
    }

    /** @param tolerance of both resistors, as a share */
    public record Divider(double top, double bottom, double tolerance, double sourceMax) {
        public Divider {
            above("divider.top", top);
            above("divider.bottom", bottom);
            atLeast("divider.tolerance", tolerance, 0);
            above("divider.source_max", sourceMax);
            if (tolerance >= 1) {
                throw new IllegalArgumentException(Messages.of("plan.divider-tolerance-is-a-share-below", tolerance));
            }
        }
    }

    public record Shunt(double ohms, double maxAmps, double gain) {
        public Shunt {
            above("shunt.ohms", ohms);
            above("shunt.max_a", maxAmps);
            above("shunt.gain", gain);
        }
    }

    /** @param fullScale of the quantity, in its own unit */
    public record Bridge(double millivoltsPerVolt, double excitation, double gain, double fullScale) {
        public Bridge {
            above("bridge.mv_per_v", millivoltsPerVolt);
            above("bridge.excitation", excitation);
            above("bridge.gain", gain);
            above("bridge.full_scale", fullScale);
        }
    }

    static void above(String what, double value) {
        if (!(value > 0) || Double.isInfinite(value)) {
            throw new IllegalArgumentException(Messages.of("plan.must-be-above-0-was", what, value));
        }
    }

    static void atLeast(String what, double value, double least) {
        if (!(value >= least) || Double.isInfinite(value)) {
            throw new IllegalArgumentException(Messages.of("plan.must-be-at-least-was", what, least, value));
        }
    }
}
