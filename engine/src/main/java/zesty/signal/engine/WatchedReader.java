package zesty.signal.engine;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.act.Watch;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Reading;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.sample.Segments;

/** A reader that rules watch, at work on a column as it comes: its number once a second, of the last seconds, from what had come by then. */
final class WatchedReader {
    /** A reader's number is taken so often. */
    static final double NUMBER_SECONDS = 1;
    /** Two events that are closer are one, whose time was found anew: far below what a hand or a heart does. */
    private static final double SAME_EVENT_SECONDS = 0.05;
    /** How far back events may still be found. */
    private static final double LATE_SECONDS = 4;

    private static final String COLUMN = "column";

    private final Watch.Number watch;
    private final ReaderRunner reader;
    private final List<SegmentRun.Lane> lanes;
    private final Segments segments;
    private double lastSeconds = Double.NaN;
    private final List<Double> told = new ArrayList<>();

    WatchedReader(Watch.Number watch, double rateHz) {
        this.watch = watch;
        ChannelChain chain = ChannelChain.plain(COLUMN, 0, rateHz);
        reader = new ReaderRunner(
                new ReaderSetup(watch.kind(), List.of(COLUMN), watch.settings()), List.of(), List.of(chain));
        lanes = List.of(SegmentRun.Lane.of(chain));
        segments = new Segments(rateHz, 0);
    }

    /** @param seconds of rows that follow those before, with a value each, NaN where none came; from one index to before another */
    void rows(double[] seconds, double[] values, int from, int to) {
        if (to > from) {
            double[] part = Arrays.copyOfRange(values, from, to);
            SegmentRun.run(segments, lanes, List.of(reader), c -> part, Arrays.copyOfRange(seconds, from, to));
            lastSeconds = seconds[to - 1];
        }
    }

    /** @return its number of the last seconds before that moment; NaN where there is none */
    double number(double atSeconds) {
        return reader.scalar(watch.number(), atSeconds - watch.windowSeconds(), atSeconds);
    }

    /** @return times of events that are believed by now and were not told yet, in order */
    List<Double> freshEvents() {
        Reading reading = reader.recent().reading();
        List<Double> fresh = new ArrayList<>();
        if (reading == null) {
            return fresh;
        }
        told.removeIf(one -> one < lastSeconds - 2 * LATE_SECONDS);
        for (Event event : believed(reading, watch.number())) {
            double at = event.startSeconds();
            boolean known = told.stream().anyMatch(one -> Math.abs(one - at) < SAME_EVENT_SECONDS);
            if (!known && at >= lastSeconds - LATE_SECONDS) {
                fresh.add(at);
                told.add(at);
            }
        }
        fresh.sort(null);
        return fresh;
    }

    /** @return the events of a reading's first kind, or of the one that is named, that are believed */
    static List<Event> believed(Reading reading, String key) {
        for (Item item : reading.items()) {
            if (item instanceof Item.Events events && (key.isEmpty() || key.equals(events.key()))) {
                return events.events().stream().filter(Event::believed).toList();
            }
        }
        return reading.events().stream().filter(Event::believed).toList();
    }
}
