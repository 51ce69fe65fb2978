package zesty.signal.engine;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntFunction;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Segments;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/** Channels of a take scaled and cleaned as the live trail did: each value stands in the row with which it came out. */
public final class TakeChannels {
    private final double[] seconds;
    private final Map<String, double[]> values;

    private TakeChannels(double[] seconds, Map<String, double[]> values) {
        this.seconds = seconds;
        this.values = values;
    }

    /**
     * @param names columns, or the names that the maker gave their channels; of one source
     * @throws TakeException when there is no such channel, or they come with different rows
     */
    public static TakeChannels of(Take take, List<String> names) throws TakeException {
        Rig rig = take.rigOrPlain();
        for (int s = 0; s < rig.sources().size(); s++) {
            rig = take.rows(s) > 1 ? rig.fittedTo(s, rig.sources().get(s).format()) : rig;
        }
        int source = 0;
        Map<String, Channel> channels = new HashMap<>();
        for (String name : names) {
            Channel found = channel(take, rig, name);
            if (!channels.isEmpty() && rig.sourceOf(found.column()) != source) {
                throw new TakeException(Messages.of(
                        "engine.come-from-several-boards", take.file(), String.join(Messages.of("engine.and"), names)));
            }
            source = rig.sourceOf(found.column());
            channels.put(name, found);
        }
        TakeLines lines = TakeLines.of(take, source, rig, TakeLines.Pages.upTo(TakeLines.MOST_HELD), Progress.untold());
        for (StoredLine line : lines.lines()) {
            if (channels.values().stream().allMatch(one -> line.has(lines.rig(), one))) {
                return of(lines.rig(), line, channels);
            }
        }
        throw new TakeException(Messages.of(
                "engine.do-not-come-with-the-same-rows", take.file(), String.join(Messages.of("engine.and"), names)));
    }

    private static Channel channel(Take take, Rig rig, String name) throws TakeException {
        for (Channel one : rig.channels()) {
            if (one.column().equals(name) || one.name().equals(name)) {
                return one;
            }
        }
        throw new TakeException(Messages.of(
                "engine.has-no-column-it-has",
                take.file(),
                name,
                String.join(", ", rig.channels().stream().map(Channel::column).toList())));
    }

    private static TakeChannels of(Rig rig, StoredLine line, Map<String, Channel> channels) {
        int rows = (int) line.rows().count();
        double[] seconds = line.rows().seconds(0, rows);
        Map<String, double[]> values = new HashMap<>();
        for (Map.Entry<String, Channel> one : channels.entrySet()) {
            double[] own = new double[rows];
            Arrays.fill(own, Double.NaN);
            SegmentRun.run(
                    line.segments(),
                    List.of(new Kept(line.chain(rig, one.getValue()), own)),
                    List.of(),
                    line.columns(0, rows),
                    seconds);
            values.put(one.getKey(), own);
        }
        return new TakeChannels(seconds.clone(), values);
    }

    /** Keeps what comes out of a chain, row by row. */
    private record Kept(ChannelChain chain, double[] values) implements SegmentRun.Lane {
        @Override
        public boolean passes(Segments.Segment segment) {
            return segment.cold();
        }

        @Override
        public void passed(Segments.Segment segment) {
            chain.gap();
        }

        @Override
        public ChannelChain.Part part(IntFunction<double[]> columns, Segments.Segment segment, double[] seconds) {
            ChannelChain.Part part = chain.part(columns, segment.from(), segment.to(), seconds, segment.stepSeconds());
            int n = Math.min(part.rows.length, segment.to() - segment.from());
            System.arraycopy(part.rows, 0, values, segment.from(), n);
            return part;
        }
    }

    /** @return one value a row, NaN where there is none; not to be changed */
    public double[] values(String name) {
        return values.get(name);
    }

    /** @return the time of each row, in s */
    public double[] seconds() {
        return seconds;
    }
}
