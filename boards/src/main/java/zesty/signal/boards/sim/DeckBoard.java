package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Random;
import java.util.Set;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;

/**
 * The dinghy's deck board: comma text, 200 lines a second. Columns: a 32-bit microsecond clock that wraps, the helm's
 * optical pulse (10-bit counts), the sheet hand's forearm envelope (0…1023), heel and trim in tenths of a degree, and
 * the bilge's water level (10-bit counts).
 */
public final class DeckBoard implements SimulatedBoard {
    /** Lines a second. */
    public static final double RATE_HZ = 200;

    private static final long PERIOD_US = 5000;
    private static final long WRAP = 1L << 32;

    /**
     * @param pulse the pulse signal, at {@link #RATE_HZ}
     * @param clockStartUs what the clock reads at the first line, in µs; near its wrap by default, so that it is seen
     */
    public record Settings(long seed, PulseModel.Settings pulse, long clockStartUs) {
        public static Settings usual(long seed) {
            return new Settings(seed, PulseModel.Settings.usual(seed), WRAP - 90_000_000L);
        }
    }

    private final PulseModel pulse;
    private final FingerSignal hard;
    private final Random random;
    private final double[] row = new double[6];
    private final long highest;
    private final StringBuilder line = new StringBuilder(48);
    private long clock;
    private long sample;
    private double effort;
    private double pull;
    private double pullStart;
    private double pullEnd;
    private double heelSway;
    private double slosh;
    private int filled;

    public DeckBoard(Settings settings) {
        this(settings, false, Set.of());
    }

    /** @param modes what makes the pulse hard to read; none for the usual one, which slips now and then */
    DeckBoard(Settings settings, boolean clipped, Set<PulseMode> modes) {
        hard = modes.isEmpty() ? null : new FingerSignal(settings.seed(), RATE_HZ, modes);
        highest = clipped ? 560 : 1023;
        if (settings.pulse().rateHz() != RATE_HZ) {
            throw new IllegalArgumentException("the deck board runs at 200 lines/s, not "
                    + settings.pulse().rateHz());
        }
        pulse = new PulseModel(settings.pulse());
        random = new Random(settings.seed() * 31 + 7);
        clock = settings.clockStartUs();
        planPull(0);
    }

    private void planPull(double after) {
        pullStart = after + 2.5 + 4 * random.nextDouble();
        pullEnd = pullStart + 2 + 3.5 * random.nextDouble();
        pull = 280 + 420 * random.nextDouble();
    }

    @Override
    public byte[] greeting() {
        return """
                Wren deck board, text stream
                sensors waking ... ready
                t_us,pulse,forearm,heel,trim,bilge
                """
                .getBytes(StandardCharsets.US_ASCII);
    }

    @Override
    public double framesPerSecond() {
        return RATE_HZ;
    }

    @Override
    public List<Column> columns() {
        return List.of(
                new Column("t_us", "", Role.CLOCK, true),
                new Column("pulse", ""),
                new Column("forearm", ""),
                new Column("heel", ""),
                new Column("trim", ""),
                new Column("bilge", ""));
    }

    @Override
    public double[][] newest() {
        return new double[][] {row.clone()};
    }

    /** @return the pulse signal that is hard to read, with its truth; null for the usual one */
    public FingerSignal hardPulse() {
        return hard;
    }

    /** @return the pulse signal with its truth */
    public PulseModel pulse() {
        return pulse;
    }

    @Override
    public void next(ByteArrayOutputStream out) {
        double t = sample / RATE_HZ;
        long jitter = Math.round(8 * random.nextGaussian());
        line.setLength(0);
        row[0] = Math.floorMod(clock + sample * PERIOD_US + jitter, WRAP);
        line.append((long) row[0]);
        filled = 1;
        append(counts(hard == null ? pulse.next() : hard.next()));
        append(counts(forearm(t)));
        heelSway += (random.nextGaussian() * 9 - heelSway) / 60;
        append(Math.round(118
                + 62 * Math.sin(2 * Math.PI * t / 6.1)
                + 21 * Math.sin(2 * Math.PI * t / 17)
                + 8 * heelSway
                + 2 * random.nextGaussian()));
        append(Math.round(-14 + 17 * Math.sin(2 * Math.PI * t / 4.3 + 1) + 1.5 * random.nextGaussian()));
        slosh = 0.995 * slosh + 0.6 * random.nextGaussian();
        append(counts(206 + 0.02 * t + 3 * slosh + 14 * Math.sin(2 * Math.PI * t / 6.1)));
        line.append('\n');
        for (int i = 0; i < line.length(); i++) {
            out.write(line.charAt(i));
        }
        sample++;
    }

    private double forearm(double t) {
        if (t > pullEnd + 0.4) {
            planPull(t);
        }
        double target = t >= pullStart && t <= pullEnd ? pull * (1 + 0.12 * Math.sin(5 * (t - pullStart))) : 0;
        effort += (target - effort) / (RATE_HZ * 0.11);
        double tremor = effort * 0.16 * random.nextGaussian();
        return 34 + effort + tremor + 3.5 * random.nextGaussian();
    }

    private void append(long value) {
        row[filled++] = value;
        line.append(',').append(value);
    }

    private long counts(double value) {
        return Math.max(0, Math.min(highest, Math.round(value)));
    }
}
