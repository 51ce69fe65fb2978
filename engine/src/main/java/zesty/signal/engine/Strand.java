package zesty.signal.engine;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import zesty.signal.core.decode.Stations;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.PulseSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.TimeRing;

/** A line of samples with the channels made of it: all of a source, or one of its stations. Trail's thread only. */
final class Strand {
    private static final int KEPT_GAPS = 64;
    private static final double HISTORY_SECONDS = 900;
    private static final int MOST_HISTORY = 1 << 20;
    private static final int LEAST_HISTORY = 1 << 12;
    /** Of the memory there is, what the histories of all channels together may take, before rounding up. */
    private static final double HISTORY_SHARE = 0.12;
    /** Raw and cleaned, each with its pyramid, and the time. */
    private static final double BYTES_A_SAMPLE = 14;

    /** A step longer than this many periods is a gap. */
    static final double GAP_PERIODS = 1.6;
    /** Rows that tell a station's own rate. */
    private static final int RATE_ROWS = 5;

    private final String sourceName;
    private final double station;
    private final StreamFormat format;
    private final double warmUpSeconds;
    private final List<ChannelRunner> runners = new ArrayList<>();
    private final List<Block> early = new ArrayList<>();
    private final ArrayDeque<Gap> gaps = new ArrayDeque<>();
    private TimeRing times;
    private double rateHz = Double.NaN;
    private double measuredHz = Double.NaN;
    private double lastSeconds = Double.NaN;
    private long lastArrivalNanos;
    private long lostRows;
    private double coldUntil = Double.NEGATIVE_INFINITY;

    /**
     * @param sourceName of its source in the rig
     * @param station NaN for a source without stations
     */
    Strand(String sourceName, double station, StreamFormat format, double warmUpSeconds) {
        this.sourceName = sourceName;
        this.station = station;
        this.format = format;
        this.warmUpSeconds = warmUpSeconds;
    }

    List<ChannelRunner> runners() {
        return runners;
    }

    /** The rate as it is measured by now; the filters keep the one they began with. */
    void measured(double hz) {
        measuredHz = Double.isNaN(hz) ? measuredHz : hz;
    }

    boolean hasRate() {
        return !Double.isNaN(rateHz);
    }

    /** The rate is known: the channels of the rig that belong here begin. */
    void begin(double rate, Rig rig) {
        rateHz = rate;
        measuredHz = rate;
        double room = Runtime.getRuntime().maxMemory()
                * HISTORY_SHARE
                / BYTES_A_SAMPLE
                / Math.max(1, rig.channels().size());
        double history = Math.max(LEAST_HISTORY, Math.min(Math.min(MOST_HISTORY, room), HISTORY_SECONDS * rate));
        int capacity = new Series((long) history).capacity();
        times = new TimeRing(capacity);
        for (Channel channel : rig.channels()) {
            addChannel(channel, rig, capacity);
        }
    }

    private void addChannel(Channel channel, Rig rig, int capacity) {
        String column = channel.column();
        boolean mine = rig.sources().get(rig.sourceOf(column)).name().equals(sourceName);
        String own = rig.ownName(column);
        int index = Stations.indexOf(format, own);
        if (mine && index >= 0 && Double.compare(Stations.stationOf(format, own), station) == 0) {
            PulseSetup pulse = rig.pulseOn(column).orElse(null);
            ChannelRunner runner = new ChannelRunner(index, rateHz, capacity, channel, pulse);
            runner.waiting(rig.waits(channel));
            runner.takeIn(rig, channel);
            runners.add(runner);
        }
    }

    /** Takes rows of a station, whose rate and gaps are told by its own times. */
    void acceptOfStation(Block block, long arrivalNanos, Rig rig) {
        lastArrivalNanos = arrivalNanos;
        if (!hasRate()) {
            early.add(block);
            Block all = Block.join(early);
            if (all.rows() < RATE_ROWS) {
                return;
            }
            early.clear();
            begin(1 / medianStep(all), rig);
            accept(withGaps(all), arrivalNanos, false);
            return;
        }
        accept(withGaps(block), arrivalNanos, false);
    }

    private static double medianStep(Block block) {
        double[] steps = new double[block.rows() - 1];
        for (int i = 0; i < steps.length; i++) {
            steps[i] = block.time().secondsAt(i + 1) - block.time().secondsAt(i);
        }
        Arrays.sort(steps);
        return Math.max(1e-6, steps[steps.length / 2]);
    }

    private Block withGaps(Block block) {
        List<Gap> found = new ArrayList<>();
        double before = lastSeconds;
        for (int row = 0; row < block.rows(); row++) {
            double now = block.time().secondsAt(row);
            if (now - before > GAP_PERIODS / rateHz) {
                found.add(new Gap(before, now, Math.max(0, Math.round((now - before) * rateHz) - 1)));
            }
            before = now;
        }
        return new Block(block.time(), block.columns(), block.rows(), found);
    }

    /** @param reopened whether the link was opened anew before these rows */
    void accept(Block block, long arrivalNanos, boolean reopened) {
        if (block.rows() == 0) {
            return;
        }
        if (warmUpSeconds > 0 && (reopened || times.end() == 0)) {
            coldUntil = block.time().secondsAt(0) + warmUpSeconds;
        }
        int cold = 0;
        while (cold < block.rows() && block.time().secondsAt(cold) < coldUntil) {
            cold++;
        }
        for (ChannelRunner runner : runners) {
            if (cold > 0) {
                runner.keep(block.head(cold));
            }
            if (cold < block.rows()) {
                runner.accept(block.tail(cold));
            }
        }
        times.append(block.time(), block.rows());
        for (Gap gap : block.gaps()) {
            if (gaps.size() == KEPT_GAPS) {
                gaps.removeFirst();
            }
            gaps.addLast(gap);
            lostRows += gap.missing();
        }
        lastSeconds = block.lastSeconds();
        lastArrivalNanos = arrivalNanos;
    }

    /** Takes a changed rig into force. */
    void change(Rig changed) {
        for (ChannelRunner runner : runners) {
            String column = runner.channel().column();
            changed.channels().stream()
                    .filter(c -> c.column().equals(column))
                    .forEach(c -> runner.waiting(changed.waits(c)));
            PulseSetup pulse = changed.pulseOn(column).orElse(null);
            for (Channel channel : changed.channels()) {
                if (channel.column().equals(column)) {
                    boolean others = runner.takeIn(changed, channel);
                    if (others || !channel.equals(runner.channel()) || !Objects.equals(pulse, runner.setup())) {
                        runner.change(channel, pulse, times, others, this::rawOf);
                    }
                    break;
                }
            }
        }
    }

    private Series rawOf(int column) {
        return runners.stream()
                .filter(runner -> runner.column() == column)
                .map(ChannelRunner::raw)
                .findFirst()
                .orElse(null);
    }

    /** @param source where its source stands in the rig by now */
    StrandSight sight(int source) {
        return new StrandSight(
                source, station, measuredHz, times, lastSeconds, lastArrivalNanos, List.copyOf(gaps), lostRows);
    }
}
