package zesty.signal.engine;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import zesty.signal.core.act.Band;
import zesty.signal.core.clean.RecipeException;
import zesty.signal.core.decode.Role;
import zesty.signal.core.decode.Stations;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.read.LevelReader;
import zesty.signal.core.read.PulseReader;
import zesty.signal.core.read.PulseReading;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Companions;
import zesty.signal.core.rig.Limits;
import zesty.signal.core.rig.PulseSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Source;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.SampleRate;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.sample.TimeRing;
import zesty.signal.takes.Mark;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/**
 * A stored take worked out again with a rig: recipes run both ways between the gaps, readers over all of it. Immutable
 * but for {@link #with}, which gives another. Making one takes time in proportion to the take: not for the window's
 * thread.
 */
public final class StoredTake {
    private final Facts facts;
    private final Sight sight;

    /** What does not change with the rig. */
    private record Facts(String title, String mended, List<Line> lines, List<Mark> marks) {}

    /** A line of samples in time: all rows, or those of one station. */
    private record Line(Source source, double[][] columns, double[] seconds, StrandSight strand) {}

    private StoredTake(Facts facts, Sight sight) {
        this.facts = facts;
        this.sight = sight;
    }

    /** Reads a take into memory (8 bytes a value and column) and works it out with its own rig. */
    public static StoredTake load(Take take) throws TakeException {
        if (take.rows() < 2) {
            throw new TakeException(take.file() + " holds " + take.rows() + " rows; there is nothing to draw");
        }
        if (take.rows() > 1 << 28) {
            throw new TakeException(
                    take.file() + " holds " + take.rows() + " rows; up to " + (1 << 28) + " can be shown at once");
        }
        Rig fitted = take.rig();
        List<Line> lines = new ArrayList<>();
        for (int s = 0; s < fitted.sources().size(); s++) {
            if (take.rows(s) > 1) {
                fitted = fitted.fittedTo(s, fitted.sources().get(s).format());
                fitted = lines(take, s, fitted, lines);
            }
        }
        return work(new Facts(take.title(), take.mended(), lines, take.marks()), fitted, null);
    }

    /** Adds the lines of samples of a source. @return the rig with the stations that turned up */
    private static Rig lines(Take take, int index, Rig rig, List<Line> lines) throws TakeException {
        Source source = rig.sources().get(index);
        double[][] columns = new double[source.format().columns().size()][];
        int first = take.firstColumn(index);
        for (int c = 0; c < columns.length; c++) {
            columns[c] = take.column(first + c);
        }
        double[] seconds = take.times(index);
        int stationColumn = source.format().indexOf(Role.STATION);
        if (stationColumn < 0) {
            lines.add(line(source, index, Double.NaN, columns, seconds, SampleRate.of(seconds), take.gaps(index)));
            return rig;
        }
        Rig fitted = rig;
        Block all = new Block(new TimeBase.Explicit(seconds), columns, seconds.length, List.of());
        for (Map.Entry<Double, Block> part : Stations.part(all, stationColumn).entrySet()) {
            Block block = part.getValue();
            double[] own = ((TimeBase.Explicit) block.time()).seconds();
            if (own.length > 1) {
                double rate = SampleRate.of(own);
                lines.add(line(source, index, part.getKey(), block.columns(), own, rate, ownGaps(own, rate)));
                fitted = fitted.withStation(index, part.getKey());
            }
        }
        return fitted;
    }

    private static Line line(
            Source source,
            int index,
            double station,
            double[][] columns,
            double[] seconds,
            double rateHz,
            List<Gap> gaps) {
        TimeRing times = new TimeRing(new Series(seconds.length).capacity());
        times.append(new TimeBase.Explicit(seconds), seconds.length);
        long lost = gaps.stream().mapToLong(Gap::missing).sum();
        double last = seconds[seconds.length - 1];
        StrandSight strand = new StrandSight(index, station, rateHz, times, last, 0, gaps, lost);
        return new Line(source, columns, seconds, strand);
    }

    private static List<Gap> ownGaps(double[] seconds, double rateHz) {
        List<Gap> gaps = new ArrayList<>();
        for (int i = 1; i < seconds.length; i++) {
            double step = seconds[i] - seconds[i - 1];
            if (step > Strand.GAP_PERIODS / rateHz) {
                gaps.add(new Gap(seconds[i - 1], seconds[i], Math.max(0, Math.round(step * rateHz) - 1)));
            }
        }
        return gaps;
    }

    /** @return the same take worked out with a changed rig; channels that did not change are not worked out again */
    public StoredTake with(Rig changed) {
        return work(facts, changed, this);
    }

    private static StoredTake work(Facts facts, Rig rig, StoredTake before) {
        List<ChannelSight> channels = new ArrayList<>();
        for (Channel channel : rig.channels()) {
            PulseSetup pulse = rig.pulseOn(channel.column()).orElse(null);
            ChannelSight kept =
                    before == null || !channel.scaling().columns().isEmpty() ? null : before.unchanged(channel, pulse);
            int source = rig.sourceOf(channel.column());
            String own = rig.ownName(channel.column());
            for (Line line : facts.lines()) {
                StreamFormat format = line.source().format();
                boolean mine = line.strand().source() == source
                        && Double.compare(line.strand().station(), Stations.stationOf(format, own)) == 0;
                if (mine) {
                    double[] raw = line.columns()[Stations.indexOf(format, own)];
                    // What arrived does not change with the rig.
                    Series rawBefore = before == null
                            ? null
                            : before.sight()
                                    .channel(channel.column())
                                    .map(ChannelSight::raw)
                                    .orElse(null);
                    Companions companions;
                    String alone = "";
                    try {
                        companions = Companions.of(rig, channel);
                    } catch (IllegalArgumentException e) {
                        companions = Companions.NONE;
                        alone = e.getMessage();
                    }
                    double[][] others = companions.values(c -> line.columns()[c], 0, raw.length);
                    channels.add(kept != null ? kept : channel(line, raw, rawBefore, others, channel, pulse, alone));
                }
            }
        }
        LinkHealth health = LinkHealth.IDLE.withState(LinkState.STORED, "");
        List<StrandSight> strands = facts.lines().stream().map(Line::strand).toList();
        return new StoredTake(
                facts,
                new Sight(
                        Collections.nCopies(rig.sources().size(), health),
                        rig,
                        strands,
                        channels,
                        RecordingSight.NONE));
    }

    private ChannelSight unchanged(Channel channel, PulseSetup pulse) {
        boolean sameReader =
                Objects.equals(pulse, sight.rig().pulseOn(channel.column()).orElse(null));
        return sight.channels().stream()
                .filter(c -> sameReader && c.channel().equals(channel))
                .findFirst()
                .orElse(null);
    }

    private static ChannelSight channel(
            Line line,
            double[] raw,
            Series rawBefore,
            double[][] others,
            Channel channel,
            PulseSetup setup,
            String alone) {
        double rateHz = line.strand().rateHz();
        double[] seconds = line.seconds();
        int n = raw.length;
        Series rawSeries = rawBefore;
        if (rawSeries == null) {
            rawSeries = new Series(n);
            rawSeries.append(raw, 0, n);
        }
        double[] clean = new double[n];
        channel.scaling().apply(raw, others, clean, n);
        double[] lastOthers = new double[channel.scaling().columns().size()];
        for (int c = 0; c < others.length; c++) {
            lastOthers[c] = others[c][n - 1];
        }
        String trouble = alone;
        try {
            bothWays(channel, clean, line);
        } catch (RecipeException e) {
            trouble = e.getMessage();
        }
        Series cleanSeries = new Series(n);
        cleanSeries.append(clean, 0, n);
        PulseReading reading = null;
        Band.Side side = null;
        if (setup != null) {
            try {
                PulseReader reader = new PulseReader(setup.kind(), rateHz);
                reader.accept(
                        clean, n, new TimeBase.Explicit(seconds), line.strand().gaps());
                reader.finish();
                reading = reader.reading();
                side = setup.band().next(Band.Side.UNKNOWN, reading.meanBpm());
            } catch (IllegalArgumentException e) {
                trouble = e.getMessage();
            }
        }
        return new ChannelSight(
                channel,
                line.strand(),
                rawSeries,
                cleanSeries,
                0,
                0,
                raw[n - 1],
                clean[n - 1],
                LevelReader.of(clean, n),
                reading,
                side,
                false,
                worstBeyond(channel.limits(), clean),
                channel.scaling().at(lastOthers),
                trouble);
    }

    private static double worstBeyond(Limits limits, double[] values) {
        double low = Double.NaN;
        double high = Double.NaN;
        for (double value : values) {
            high = value > limits.high() && !(value <= high) ? value : high;
            low = value < limits.low() && !(value >= low) ? value : low;
        }
        return Double.isNaN(high) ? low : high;
    }

    private static void bothWays(Channel channel, double[] data, Line line) {
        int from = 0;
        for (Gap gap : line.strand().gaps()) {
            int to = Arrays.binarySearch(line.seconds(), gap.endSeconds());
            to = to < 0 ? -to - 1 : to;
            stretch(channel, data, from, to, line.strand().rateHz());
            from = to;
        }
        stretch(channel, data, from, data.length, line.strand().rateHz());
    }

    private static void stretch(Channel channel, double[] data, int from, int to, double rateHz) {
        if (to > from) {
            double[] part = Arrays.copyOfRange(data, from, to);
            channel.recipe().bothWays(part, rateHz);
            System.arraycopy(part, 0, data, from, part.length);
        }
    }

    public Sight sight() {
        return sight;
    }

    public String title() {
        return facts.title();
    }

    /** @return what was mended when it was opened, in words; empty when nothing was */
    public String mended() {
        return facts.mended();
    }

    public List<Mark> marks() {
        return facts.marks();
    }
}
