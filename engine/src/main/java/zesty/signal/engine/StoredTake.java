package zesty.signal.engine;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import zesty.signal.core.act.Band;
import zesty.signal.core.clean.RecipeException;
import zesty.signal.core.read.LevelReader;
import zesty.signal.core.read.PulseReader;
import zesty.signal.core.read.PulseReading;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.PulseSetup;
import zesty.signal.core.rig.Rig;
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
    private record Facts(
            String title,
            String mended,
            double[][] columns,
            double[] seconds,
            TimeRing times,
            double rateHz,
            List<Gap> gaps,
            List<Mark> marks) {}

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
        Rig rig = take.rig();
        double[][] columns = new double[take.columns().size()][];
        for (int c = 0; c < columns.length; c++) {
            columns[c] = take.column(c);
        }
        double[] seconds = take.times();
        TimeRing times = new TimeRing(new Series(seconds.length).capacity());
        times.append(new TimeBase.Explicit(seconds), seconds.length);
        Facts facts = new Facts(
                take.title(),
                take.mended(),
                columns,
                seconds,
                times,
                SampleRate.of(seconds),
                take.gaps(),
                take.marks());
        return work(facts, rig.fittedTo(rig.format()), null);
    }

    /** @return the same take worked out with a changed rig; channels that did not change are not worked out again */
    public StoredTake with(Rig changed) {
        return work(facts, changed, this);
    }

    private static StoredTake work(Facts facts, Rig rig, StoredTake before) {
        List<ChannelSight> channels = new ArrayList<>();
        for (Channel channel : rig.channels()) {
            PulseSetup pulse = rig.pulseOn(channel.column()).orElse(null);
            ChannelSight kept = before == null ? null : before.unchanged(channel, pulse);
            channels.add(kept != null ? kept : channel(facts, rig, channel, pulse));
        }
        LinkHealth health = LinkHealth.IDLE.withState(LinkState.STORED, "");
        double last = facts.seconds()[facts.seconds().length - 1];
        Sight sight = new Sight(
                health, rig, facts.rateHz(), facts.times(), last, 0, channels, facts.gaps(), RecordingSight.NONE);
        return new StoredTake(facts, sight);
    }

    private ChannelSight unchanged(Channel channel, PulseSetup pulse) {
        boolean sameReader =
                Objects.equals(pulse, sight.rig().pulseOn(channel.column()).orElse(null));
        return sight.channels().stream()
                .filter(c -> sameReader && c.channel().equals(channel))
                .findFirst()
                .orElse(null);
    }

    private static ChannelSight channel(Facts facts, Rig rig, Channel channel, PulseSetup setup) {
        double[] raw = facts.columns()[rig.format().indexOf(channel.column())];
        int n = raw.length;
        Series rawSeries = new Series(n);
        rawSeries.append(raw, 0, n);
        double[] clean = new double[n];
        channel.scaling().apply(raw, clean, n);
        String trouble = "";
        try {
            bothWays(channel, clean, facts);
        } catch (RecipeException e) {
            trouble = e.getMessage();
        }
        Series cleanSeries = new Series(n);
        cleanSeries.append(clean, 0, n);
        PulseReading reading = null;
        Band.Side side = null;
        if (setup != null) {
            try {
                PulseReader reader = new PulseReader(setup.kind(), facts.rateHz());
                reader.accept(clean, n, new TimeBase.Explicit(facts.seconds()), facts.gaps());
                reader.finish();
                reading = reader.reading();
                side = setup.band().next(Band.Side.UNKNOWN, reading.meanBpm());
            } catch (IllegalArgumentException e) {
                trouble = e.getMessage();
            }
        }
        LevelReader level = new LevelReader(Math.max(1, facts.seconds()[n - 1]), facts.rateHz());
        level.accept(clean, n, new TimeBase.Explicit(facts.seconds()));
        return new ChannelSight(
                channel, rawSeries, cleanSeries, 0, 0, raw[n - 1], clean[n - 1], level.level(), reading, side, trouble);
    }

    private static void bothWays(Channel channel, double[] data, Facts facts) {
        int from = 0;
        for (Gap gap : facts.gaps()) {
            int to = Arrays.binarySearch(facts.seconds(), gap.endSeconds());
            to = to < 0 ? -to - 1 : to;
            stretch(channel, data, from, to, facts.rateHz());
            from = to;
        }
        stretch(channel, data, from, data.length, facts.rateHz());
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
