package zesty.signal.engine;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntFunction;
import zesty.signal.core.read.level.Level;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.sample.Segments;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.SeriesRing;
import zesty.signal.core.text.Messages;

/** One channel of a live stream: keeps what arrived and what its chain makes of it. Trail's thread only. */
final class ChannelRunner implements SegmentRun.Lane {
    static final String WAITS = Messages.of("engine.recorded-not-read-read-the-caution");
    private static final int PIECE = 4096;

    private SeriesRing raw;
    private Channel channel;
    private ChannelChain chain;
    private SeriesRing clean;
    private ReaderRunner level;
    private boolean warming;
    private boolean waiting;
    private final LimitWatch watch = new LimitWatch();
    /** Samples from here to there in the raw series are kept but not read. */
    private final List<long[]> unread = new ArrayList<>();

    /** What came out for the rows that arrived last, as exact as it was worked out; lanes keep less of it. */
    private double[] came = {};

    private int cameAt;
    private double latestRaw = Double.NaN;
    private double latestClean = Double.NaN;
    private LevelNow levelNow = LevelNow.of(null);

    ChannelRunner(int capacity, ChannelChain chain) {
        raw = new SeriesRing(capacity, true);
        begin(chain);
    }

    /** Takes another chain into force; the cleaned series begins anew at what is still at hand of the raw one. */
    void begin(ChannelChain other) {
        chain = other;
        channel = other.channel();
        clean = new SeriesRing(raw.capacity());
        level = new ReaderRunner(
                ReaderSetup.on(channel.column(), Level.NAME, java.util.Map.of()), List.of(), List.of(chain));
        latestClean = Double.NaN;
        appendNothing(raw.start());
    }

    /** Takes a channel into force that has the same chain but another name or the like. */
    void rename(Channel other) {
        channel = other;
    }

    /** @param waits whether nothing is to be read yet, because a caution comes first */
    void waiting(boolean waits) {
        waiting = waits;
    }

    boolean waiting() {
        return waiting;
    }

    Series raw() {
        return raw;
    }

    Channel channel() {
        return channel;
    }

    @Override
    public ChannelChain chain() {
        return chain;
    }

    @Override
    public boolean passes(Segments.Segment segment) {
        return segment.cold() || waiting;
    }

    @Override
    public void passed(Segments.Segment segment) {
        long first = clean.end();
        unread.add(new long[] {first, first + segment.length()});
        unread.removeIf(range -> range[1] <= raw.start());
        appendNothing(segment.length());
        cameAt += segment.length();
        warming = segment.cold();
        gap();
    }

    /** Takes other samples into the place of those that came, the newest of row {@code end} less one; before them there are none. */
    void history(long end, double[] values) {
        raw = new SeriesRing(raw.capacity(), true);
        double[] nothing = new double[PIECE];
        Arrays.fill(nothing, Double.NaN);
        long none = end - values.length;
        for (long i = 0; i < none; i += nothing.length) {
            raw.append(nothing, 0, (int) Math.min(nothing.length, none - i));
        }
        raw.append(values, 0, values.length);
        latestRaw = values.length == 0 ? Double.NaN : values[values.length - 1];
        unread.clear();
    }

    /** Keeps a block's samples as they came; what becomes of them is told next. */
    void arrived(double[] values, int rows) {
        raw.append(values, 0, rows);
        came = new double[rows];
        cameAt = 0;
        Arrays.fill(came, Double.NaN);
        for (int i = rows - 1; i >= 0; i--) {
            if (!Double.isNaN(values[i])) {
                latestRaw = values[i];
                break;
            }
        }
    }

    /** @return what came out for the rows that arrived last, NaN where nothing did; not to be changed */
    double[] cameOut() {
        return came;
    }

    /** @return whether the sample was kept without being read */
    private boolean wasPassed(long sample) {
        return unread.stream().anyMatch(range -> range[0] <= sample && sample < range[1]);
    }

    /** @return the first sample from there on at which being read begins or ends; {@code end} when there is none */
    long nextEdge(long sample, long end) {
        long next = end;
        for (long[] range : unread) {
            for (long edge : range) {
                next = edge > sample ? Math.min(next, edge) : next;
            }
        }
        return next;
    }

    private void appendNothing(long count) {
        double[] nothing = new double[(int) Math.min(PIECE, Math.max(1, count))];
        Arrays.fill(nothing, Double.NaN);
        for (long i = 0; i < count; i += nothing.length) {
            clean.append(nothing, 0, (int) Math.min(nothing.length, count - i));
        }
    }

    @Override
    public ChannelChain.Part part(IntFunction<double[]> columns, Segments.Segment segment, double[] seconds) {
        warming = false;
        ChannelChain.Part part = chain.part(columns, segment.from(), segment.to(), seconds, segment.stepSeconds());
        clean.append(part.rows, 0, segment.length());
        for (int i = 0; i < segment.length() && cameAt < came.length; i++) {
            came[cameAt++] = part.rows[i];
        }
        level.part(List.of(part));
        int n = part.values.length;
        if (n > 0) {
            latestClean = part.values[n - 1];
            watch.accept(channel.limits(), part);
        }
        return part;
    }

    /** @return a lane that works again what is at hand, and passes what was passed the first time, too */
    SegmentRun.Lane again() {
        ChannelRunner runner = this;
        return new SegmentRun.Lane() {
            @Override
            public ChannelChain chain() {
                return chain;
            }

            @Override
            public boolean passes(Segments.Segment segment) {
                return wasPassed(clean.end());
            }

            @Override
            public void passed(Segments.Segment segment) {
                appendNothing(segment.length());
                gap();
            }

            @Override
            public ChannelChain.Part part(IntFunction<double[]> columns, Segments.Segment segment, double[] seconds) {
                return runner.part(columns, segment, seconds);
            }
        };
    }

    private void gap() {
        chain.gap();
        level.gap();
    }

    /** Works the readings out anew; a few times a second is enough. */
    void settleReadings() {
        levelNow = LevelNow.of(level.recent().reading());
    }

    ChannelSnapshot snapshot(StreamSnapshot stream, List<ReaderSnapshot> readers) {
        return new ChannelSnapshot(
                channel,
                stream,
                stream.rateHz() * chain.rateHz() / chain.streamRateHz(),
                raw,
                clean,
                chain.lateSamples(),
                chain.delaySeconds(),
                chain.longestHoleSeconds(),
                latestRaw,
                latestClean,
                levelNow,
                readers,
                warming,
                watch.worst(),
                channel.scaling().at(chain.latestOthers()),
                waiting ? WAITS : chain.trouble());
    }
}
