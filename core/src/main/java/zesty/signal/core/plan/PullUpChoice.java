package zesty.signal.core.plan;

import zesty.signal.core.text.Messages;

/**
 * The resistor that pulls an open-drain bus line up: low enough that the line rises in time against its capacitance, high enough that a
 * chip can pull it down.
 *
 * @param least Ω that a chip's current allows. @param most Ω that the rise time allows
 */
public record PullUpChoice(double ohms, double least, double most) {
    /** From 0.3 to 0.7 of the supply a line takes ln(0.7/0.3) time constants. */
    private static final double RISE = Math.log(0.7 / 0.3);

    private static final double LOW_VOLTS = 0.4;
    private static final double SINK_AMPS = 0.003;

    /**
     * @param volts of the supply. @param farads of the whole line. @param riseSeconds allowed
     * @throws IllegalArgumentException when no resistor does both, saying what would have to change
     */
    public static PullUpChoice of(double volts, double farads, double riseSeconds) {
        Plan.above(Messages.of("plan.the-supply"), volts - LOW_VOLTS);
        Plan.above(Messages.of("plan.the-line-s-capacitance"), farads);
        Plan.above(Messages.of("plan.the-rise-time"), riseSeconds);
        double least = (volts - LOW_VOLTS) / SINK_AMPS;
        double most = riseSeconds / (RISE * farads);
        if (most < least) {
            throw new IllegalArgumentException(Messages.of(
                    "plan.no-resistor-pulls-this-line-up-in", Math.round(riseSeconds / (RISE * least) * 1e12)));
        }
        double ohms = StandardSeries.E24.nearest(Math.sqrt(least * most));
        return new PullUpChoice(Math.max(StandardSeries.E24.atLeast(least), Math.min(ohms, most)), least, most);
    }
}
