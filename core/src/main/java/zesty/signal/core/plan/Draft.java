package zesty.signal.core.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.read.Need;
import zesty.signal.core.text.Messages;

/**
 * A plan as a maker makes it: from what is to be known, with every part filled in. Immutable; each change is another one.
 *
 * @param kind of reader that answers the question. @param need what the chosen sort of sensor needs
 */
public record Draft(String kind, Need need, Stream stream, Plan.Converter converter, Signal signal, Board board) {
    /** What is sent, and over what. @param packets whether rows go as packets, not as text */
    public record Stream(double rateHz, int channels, double baud, boolean packets) {
        public Stream {
            Plan.above(Messages.of("plan.the-rate"), rateHz);
            Plan.above(Messages.of("plan.the-line-s-speed"), baud);
            if (channels < 1 || channels > MOST_CHANNELS) {
                throw new IllegalArgumentException(
                        Messages.of("plan.1-to-channels-can-be-planned-not", MOST_CHANNELS, channels));
            }
        }
    }

    /**
     * What is measured.
     *
     * @param swingVolts at the converter. @param tones that are there and not wanted, in Hz: lamps, motors
     */
    public record Signal(double swingVolts, String recipe, List<Double> tones) {
        public Signal {
            Plan.above(Messages.of("plan.the-signal-s-swing"), swingVolts);
            tones = List.copyOf(tones);
            tones.forEach(tone -> Plan.above(Messages.of("plan.a-tone"), tone));
            Recipe.parse(recipe);
        }
    }

    /**
     * The board itself.
     *
     * @param memoryBytes that it keeps rows in while the computer pauses
     * @param milliampHours of its battery. @param milliamps it draws. @param wantedHours it must last
     */
    public record Board(double memoryBytes, double milliampHours, double milliamps, double wantedHours) {
        public Board {
            Plan.above(Messages.of("plan.the-board-s-memory"), memoryBytes);
            Plan.above(Messages.of("plan.the-battery"), milliampHours);
            Plan.above(Messages.of("plan.what-it-draws"), milliamps);
            Plan.above(Messages.of("plan.how-long-it-must-last"), wantedHours);
        }
    }

    private static final int MOST_CHANNELS = 64;
    private static final double BITS_A_BYTE = 10;
    /** Two bytes to begin a packet, four of the clock, two of its number, one to check by. */
    private static final int PACKET_FRAME = 9;

    private static final double USUAL_BAUD = 115_200;
    /** Lamps on mains of 50 Hz flicker so often a second. */
    private static final double LAMP_HZ = 100;

    /** @return a plan for a question that holds, with the usual line, converter and battery */
    public static Draft of(String kind, Need need, String recipe) {
        double rate = nice(RateBudget.SAMPLES_A_PERIOD * 2 * need.highestHz());
        return new Draft(
                kind,
                need,
                new Stream(rate, need.channels(), USUAL_BAUD, false),
                new Plan.Converter(10, 5, 0.8, 1),
                new Signal(need.swingVolts(), recipe, List.of(LAMP_HZ)),
                new Board(2048, 2000, 60, 8));
    }

    /** @return the lowest of 1, 2 and 5 times a power of ten that is not below it */
    static double nice(double atLeast) {
        double decade = Math.pow(10, Math.floor(Math.log10(atLeast)));
        for (double one : new double[] {1, 2, 5, 10}) {
            if (one * decade >= atLeast * (1 - 1e-12)) {
                return one * decade;
            }
        }
        throw new IllegalStateException(Messages.of("plan.no-decade-holds", atLeast));
    }

    public double rateHz() {
        return stream.rateHz();
    }

    public int channels() {
        return stream.channels();
    }

    public double baud() {
        return stream.baud();
    }

    public boolean packets() {
        return stream.packets();
    }

    public double swingVolts() {
        return signal.swingVolts();
    }

    public String recipe() {
        return signal.recipe();
    }

    public List<Double> tones() {
        return signal.tones();
    }

    public double memoryBytes() {
        return board.memoryBytes();
    }

    public double milliampHours() {
        return board.milliampHours();
    }

    public double milliamps() {
        return board.milliamps();
    }

    public double wantedHours() {
        return board.wantedHours();
    }

    public Draft with(Stream other) {
        return new Draft(kind, need, other, converter, signal, board);
    }

    public Draft withRate(double other) {
        return with(new Stream(other, channels(), baud(), packets()));
    }

    public Draft withChannels(int other) {
        return with(new Stream(rateHz(), other, baud(), packets()));
    }

    public Draft withLine(double otherBaud, boolean asPackets) {
        return with(new Stream(rateHz(), channels(), otherBaud, asPackets));
    }

    public Draft withConverter(Plan.Converter other) {
        return new Draft(kind, need, stream, other, signal, board);
    }

    public Draft withSignal(double otherSwing, String otherRecipe, List<Double> otherTones) {
        return new Draft(kind, need, stream, converter, new Signal(otherSwing, otherRecipe, otherTones), board);
    }

    public Draft with(Board other) {
        return new Draft(kind, need, stream, converter, signal, other);
    }

    public Draft withMemory(double otherBytes) {
        return with(new Board(otherBytes, milliampHours(), milliamps(), wantedHours()));
    }

    public Draft withBattery(double capacity, double draws, double lasts) {
        return with(new Board(memoryBytes(), capacity, draws, lasts));
    }

    /** @return a row as it will be sent: the board's clock in µs, the row's number, then the counts; empty for packets() */
    public String rowText() {
        if (packets()) {
            return "";
        }
        long full = (1L << converter.bits()) - 1;
        int digits = String.valueOf(full).length();
        StringBuilder row = new StringBuilder("1204512345;120451");
        for (int c = 0; c < channels(); c++) {
            // As long as its counts can be, and none that the converter does not have.
            double low = Math.pow(10, digits - 1);
            long value = Math.round(low + (full - low) * ((c * 5 + 3) % 9) / 9);
            row.append(';').append(String.format(Locale.ROOT, "%d", value));
        }
        return row.append('\n').toString();
    }

    public double rowBytes() {
        return packets() ? PACKET_FRAME + 2 * channels() : rowText().length();
    }

    /** @return the same as the command line reads it */
    public Plan plan() {
        return new Plan(
                new Plan.Line(baud(), BITS_A_BYTE),
                new Plan.Row(rateHz(), packets() ? null : rowText(), rowBytes(), true),
                converter,
                new Plan.Signal(need.highestHz(), tones()),
                recipe(),
                new Plan.Memory(memoryBytes(), rowBytes()),
                new Plan.Battery(milliampHours(), List.of(new Plan.State(milliamps(), 1))),
                null,
                null,
                null);
    }

    /** @return the tones that fold into what is looked at, and where */
    List<RateBudget.Tone> disturbing() {
        List<RateBudget.Tone> all = new ArrayList<>();
        for (RateBudget.Tone tone : RateBudget.of(rateHz(), new Plan.Signal(need.highestHz(), tones()))
                .tones()) {
            boolean aliased = tone.hz() > rateHz() / 2 * (1 + 1e-12) || tone.seenHz() < tone.hz() - 1e-9;
            if (aliased && tone.seenHz() <= need.highestHz()) {
                all.add(tone);
            }
        }
        return all;
    }
}
