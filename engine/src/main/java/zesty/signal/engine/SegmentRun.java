package zesty.signal.engine;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntFunction;
import zesty.signal.core.sample.Segments;

/**
 * Runs rows through channels and readers: the live trail, its recalculation, stored takes and files alike. Rows missing in
 * between are a hole to whom it is short, which is filled, and a break to everybody else. One thread; rows come in order.
 */
final class SegmentRun {

    /** A channel that rows are run through. */
    interface Lane {
        ChannelChain chain();

        /** @return whether the segment is kept without being read */
        boolean passes(Segments.Segment segment);

        /** It was: what is under way ends here. */
        void passed(Segments.Segment segment);

        ChannelChain.Part part(IntFunction<double[]> columns, Segments.Segment segment, double[] seconds);

        /** @return a lane that keeps nothing of what comes out, and passes what is cold */
        static Lane of(ChannelChain chain) {
            return new Lane() {
                @Override
                public ChannelChain chain() {
                    return chain;
                }

                @Override
                public boolean passes(Segments.Segment segment) {
                    return segment.cold();
                }

                @Override
                public void passed(Segments.Segment segment) {
                    chain.gap();
                }

                @Override
                public ChannelChain.Part part(
                        IntFunction<double[]> columns, Segments.Segment segment, double[] seconds) {
                    return chain.part(columns, segment.from(), segment.to(), seconds, segment.stepSeconds());
                }
            };
        }
    }

    private SegmentRun() {}

    /**
     * @param columns the stream's columns by index
     * @param seconds of the rows to run, all of them
     */
    static void run(
            Segments segments,
            List<? extends Lane> lanes,
            List<ReaderRunner> readers,
            IntFunction<double[]> columns,
            double[] seconds) {
        for (Segments.Segment segment : segments.part(seconds, 0, seconds.length)) {
            Map<ChannelChain, ChannelChain.Part> parts = new IdentityHashMap<>();
            for (Lane lane : lanes) {
                if (lane.passes(segment)) {
                    lane.passed(segment);
                } else {
                    parts.put(lane.chain(), lane.part(columns, segment, seconds));
                }
            }
            for (ReaderRunner reader : readers) {
                read(reader, parts);
            }
        }
    }

    private static void read(ReaderRunner reader, Map<ChannelChain, ChannelChain.Part> parts) {
        List<ChannelChain.Part> ports = new ArrayList<>();
        for (ChannelChain chain : reader.chains()) {
            if (parts.containsKey(chain)) {
                ports.add(parts.get(chain));
            }
        }
        if (ports.size() == reader.chains().size()) {
            reader.part(ports);
        } else {
            reader.gap();
        }
    }
}
