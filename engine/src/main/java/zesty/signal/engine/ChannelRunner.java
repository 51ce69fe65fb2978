package zesty.signal.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.function.IntFunction;
import zesty.signal.core.act.Band;
import zesty.signal.core.clean.RecipeException;
import zesty.signal.core.clean.Stage;
import zesty.signal.core.clean.Start;
import zesty.signal.core.read.LevelReader;
import zesty.signal.core.read.PulseReader;
import zesty.signal.core.read.PulseReading;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Companions;
import zesty.signal.core.rig.PulseSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.sample.TimeRing;

/** Scales, cleans and reads one channel of a live stream. Trail's thread only. */
final class ChannelRunner {
    static final double LEVEL_SECONDS = 10;
    private static final String WAITS = "kept, not read: the caution above comes first";
    private static final double PULSE_SECONDS = 20;
    private static final double BEATS_SECONDS = 180;
    private static final int PIECE = 4096;

    private final int column;
    private final double rateHz;
    private final Series raw;
    private Channel channel;
    private PulseSetup setup;
    private Series clean;
    private Stage stage;
    private PulseReader pulse;
    private LevelReader level;
    private int late;
    private double delaySeconds;
    private String trouble = "";
    private boolean warming;
    private boolean waiting;
    private final LimitWatch watch = new LimitWatch();
    private Companions companions = Companions.NONE;
    private String alone = "";
    private double[] latestOthers = {};
    /** Samples from here to there in the raw series are kept but not read. */
    private final List<long[]> unread = new ArrayList<>();

    private double latestRaw = Double.NaN;
    private double latestClean = Double.NaN;
    private Band.Side side = Band.Side.UNKNOWN;
    private PulseReading reading;
    private LevelReader.Level levelNow;

    ChannelRunner(int column, double rateHz, int capacity, Channel channel, PulseSetup setup) {
        this.column = column;
        this.rateHz = rateHz;
        raw = new Series(capacity);
        begin(channel, setup);
    }

    private void begin(Channel other, PulseSetup reader) {
        channel = other;
        setup = reader;
        clean = new Series(raw.capacity());
        level = new LevelReader(LEVEL_SECONDS, rateHz);
        pulse = null;
        reading = null;
        side = Band.Side.UNKNOWN;
        trouble = "";
        late = 0;
        delaySeconds = 0;
        try {
            stage = channel.recipe().stage(rateHz, Start.SETTLED);
            late = stage.delaySamples();
            delaySeconds = channel.recipe().delaySeconds(rateHz);
        } catch (RecipeException e) {
            stage = null;
            trouble = e.getMessage();
        }
        if (setup != null) {
            try {
                pulse = new PulseReader(setup.kind(), rateHz);
            } catch (IllegalArgumentException e) {
                trouble = e.getMessage();
            }
        }
    }

    /** @param waits whether nothing is to be read yet, because a caution comes first */
    void waiting(boolean waits) {
        waiting = waits;
    }

    /** Looks up what the chain takes in besides its own column. @return whether that is other than before */
    boolean takeIn(Rig rig, Channel other) {
        Companions before = companions;
        try {
            companions = Companions.of(rig, other);
            alone = "";
        } catch (IllegalArgumentException e) {
            companions = Companions.NONE;
            alone = e.getMessage();
        }
        return !companions.equals(before);
    }

    /** @return index in the stream of its column */
    int column() {
        return column;
    }

    Series raw() {
        return raw;
    }

    Channel channel() {
        return channel;
    }

    PulseSetup setup() {
        return setup;
    }

    /** Takes a changed scaling, recipe or reader into force, and works the samples still at hand out again. */
    void change(Channel other, PulseSetup reader, TimeRing times, boolean otherCompanions, IntFunction<Series> rawOf) {
        boolean onlyName = !otherCompanions
                && other.scaling().equals(channel.scaling())
                && other.recipe().equals(channel.recipe())
                && java.util.Objects.equals(kind(reader), kind(setup));
        if (onlyName) {
            channel = other;
            setup = reader;
            return;
        }
        begin(other, reader);
        long start = raw.start();
        // The cleaned series must count its samples as the raw one does: what is gone is passed over.
        appendNothing(start);
        double before = Double.NaN;
        long i = start;
        while (i < raw.end()) {
            long read = readableFrom(i);
            if (read > i) {
                appendNothing(read - i);
                gap();
                before = Double.NaN;
                i = read;
                continue;
            }
            int n = (int) Math.min(PIECE, readableUpTo(i) - i);
            double[] values = new double[n];
            double[] seconds = new double[n];
            long first = i;
            double[][] others = companions.values(c -> copied(rawOf.apply(c), first, n), 0, n);
            for (int k = 0; k < n; k++) {
                values[k] = raw.value(i + k);
                seconds[k] = times.secondsAt(i + k);
            }
            int from = 0;
            for (int k = 0; k < n; k++) {
                double step = seconds[k] - (k == 0 ? before : seconds[k - 1]);
                if (step > 1.6 / rateHz) {
                    work(values, others, seconds, from, k);
                    gap();
                    from = k;
                }
            }
            work(values, others, seconds, from, n);
            before = seconds[n - 1];
            i += n;
        }
        settleReadings();
    }

    private long readableFrom(long sample) {
        return unread.stream()
                .filter(u -> u[0] <= sample && sample < u[1])
                .mapToLong(u -> u[1])
                .max()
                .orElse(sample);
    }

    private long readableUpTo(long sample) {
        return unread.stream()
                .mapToLong(u -> u[0])
                .filter(from -> from > sample)
                .min()
                .orElse(raw.end());
    }

    private static Object kind(PulseSetup setup) {
        return setup == null ? null : setup.kind();
    }

    private static double[] copied(Series series, long first, int n) {
        double[] values = new double[n];
        for (int k = 0; k < n; k++) {
            boolean there = series != null && first + k >= series.start() && first + k < series.end();
            values[k] = there ? series.value(first + k) : Double.NaN;
        }
        return values;
    }

    private void work(double[] values, double[][] others, double[] seconds, int from, int to) {
        if (to > from) {
            double[][] beside = new double[others.length][];
            for (int c = 0; c < beside.length; c++) {
                beside[c] = java.util.Arrays.copyOfRange(others[c], from, to);
            }
            double[] part = java.util.Arrays.copyOfRange(values, from, to);
            double[] when = java.util.Arrays.copyOfRange(seconds, from, to);
            clean(part, beside, part.length, new TimeBase.Explicit(when));
        }
    }

    private void gap() {
        if (stage != null) {
            stage.reset();
        }
        if (pulse != null) {
            pulse.gap();
        }
    }

    /** Keeps a block's samples without reading them: the board is warming up. */
    void keep(Block block) {
        long first = raw.end();
        raw.append(block.columns()[column], 0, block.rows());
        unread.add(new long[] {first, raw.end()});
        appendNothing(block.rows());
        gap();
        warming = true;
    }

    private void appendNothing(long count) {
        double[] nothing = new double[(int) Math.min(PIECE, Math.max(1, count))];
        java.util.Arrays.fill(nothing, Double.NaN);
        for (long i = 0; i < count; i += nothing.length) {
            clean.append(nothing, 0, (int) Math.min(nothing.length, count - i));
        }
    }

    void accept(Block block) {
        if (waiting) {
            keep(block);
            return;
        }
        warming = false;
        double[] values = block.columns()[column];
        raw.append(values, 0, block.rows());
        int from = 0;
        for (Gap gap : block.gaps()) {
            int row = from;
            while (row < block.rows() && block.time().secondsAt(row) < gap.endSeconds()) {
                row++;
            }
            part(block, values, from, row);
            gap();
            from = row;
        }
        part(block, values, from, block.rows());
        if (block.rows() > 0) {
            latestRaw = values[block.rows() - 1];
        }
    }

    private void part(Block block, double[] values, int from, int to) {
        if (to <= from) {
            return;
        }
        int n = to - from;
        double[] part = java.util.Arrays.copyOfRange(values, from, to);
        double[][] others = companions.values(c -> block.columns()[c], from, n);
        if (from == 0) {
            clean(part, others, n, block.time());
        } else {
            double[] seconds = new double[n];
            for (int i = 0; i < n; i++) {
                seconds[i] = block.time().secondsAt(from + i);
            }
            clean(part, others, n, new TimeBase.Explicit(seconds));
        }
    }

    private void clean(double[] values, double[][] others, int n, TimeBase time) {
        channel.scaling().apply(values, others, values, n);
        latestOthers = new double[others.length];
        for (int c = 0; c < others.length; c++) {
            latestOthers[c] = others[c][n - 1];
        }
        if (stage != null) {
            stage.apply(values, 0, n);
        }
        clean.append(values, 0, n);
        level.accept(values, n, time);
        if (pulse != null) {
            pulse.accept(values, n, time);
        }
        latestClean = values[n - 1];
        watch.accept(channel.limits(), values, n, time);
    }

    /** Works the readings out anew; a few times a second is enough. */
    void settleReadings() {
        levelNow = level.level();
        if (pulse != null) {
            reading = pulse.recent(PULSE_SECONDS).withBeats(pulse.beatsFrom(pulse.lastSeconds() - BEATS_SECONDS));
            side = setup.band().next(side, reading.meanBpm());
        }
    }

    ChannelSight sight(StrandSight strand) {
        return new ChannelSight(
                channel,
                strand,
                raw,
                clean,
                late,
                delaySeconds,
                latestRaw,
                latestClean,
                levelNow,
                reading,
                setup == null ? null : side,
                warming,
                watch.worst(),
                channel.scaling()
                        .at(
                                latestOthers.length
                                                == channel.scaling().columns().size()
                                        ? latestOthers
                                        : new double[channel.scaling().columns().size()]),
                waiting ? WAITS : alone.isEmpty() ? trouble : alone);
    }
}
