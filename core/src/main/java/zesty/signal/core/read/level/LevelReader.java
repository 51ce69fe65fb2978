package zesty.signal.core.read.level;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Quality;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.Reading;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * Sums up all samples, keeps the newest for readings of less than all, and notes each crossing. Crossings grow by some
 * dozen bytes each.
 */
final class LevelReader implements Reader {
    private static final int MOST_KEPT = 1 << 20;
    /** Of a line that loses rows for a whole night the older gaps are kept two by two. */
    private static final int MOST_PAUSES = 1 << 12;

    private final double[] edges;
    private final double slack;
    private final double periodSeconds;
    private final LevelSums all = new LevelSums();
    private final double[] values;
    private final double[] seconds;
    private long end;
    /** Where a stretch without a gap begins among the samples; noise is not measured across. */
    private boolean broken = true;

    private double firstSeconds = Double.NaN;
    private double lastSeconds = Double.NaN;
    private int band = -1;
    private int firstBand;
    private final List<Crossing> crossings = new ArrayList<>();
    /** Until when each band was held since the first sample, gaps left out. */
    private final double[] held;

    /** Begin and end of where something is missing, and for how long, in order: no band was held there. */
    private final List<double[]> pauses = new ArrayList<>();

    private record Crossing(double seconds, int from, int to) {}

    LevelReader(double[] edges, double hysteresis, double rateHz) {
        this.edges = edges;
        slack = hysteresis / 2;
        periodSeconds = 1 / rateHz;
        held = new double[edges.length + 1];
        int kept = (int) Math.min(MOST_KEPT, Math.ceil(Level.WINDOW_SECONDS * rateHz * 1.05) + 16);
        values = new double[kept];
        seconds = new double[kept];
    }

    @Override
    public void accept(double[][] ports, int length, TimeBase time) {
        double[] data = ports[0];
        for (int i = 0; i < length; i++) {
            if (data[i] == data[i]) {
                accept(data[i], time.secondsAt(i));
            }
        }
    }

    private void accept(double value, double at) {
        if (broken) {
            all.gap();
            if (lastSeconds == lastSeconds && at - lastSeconds > periodSeconds) {
                paused(lastSeconds + periodSeconds, at);
            }
        } else {
            // The sample before stood until now, not for a period.
            held[band] += at - lastSeconds - periodSeconds;
        }
        broken = false;
        all.add(value);
        int cell = (int) (end++ % values.length);
        values[cell] = value;
        seconds[cell] = at;
        if (Double.isNaN(firstSeconds)) {
            firstSeconds = at;
            band = bandOf(value);
            firstBand = band;
        } else {
            cross(value, at);
        }
        // It stands for the time until the next one would come, for now.
        held[band] += periodSeconds;
        lastSeconds = at;
    }

    private void paused(double from, double to) {
        pauses.add(new double[] {from, to, to - from});
        if (pauses.size() < MOST_PAUSES) {
            return;
        }
        List<double[]> newest = new ArrayList<>(pauses.subList(MOST_PAUSES / 2, MOST_PAUSES));
        for (int pair = 0; pair < MOST_PAUSES / 4; pair++) {
            double[] first = pauses.get(2 * pair);
            double[] second = pauses.get(2 * pair + 1);
            pauses.set(pair, new double[] {first[0], second[1], first[2] + second[2]});
        }
        pauses.subList(MOST_PAUSES / 4, pauses.size()).clear();
        pauses.addAll(newest);
    }

    /** The first sample's band is the one it lies in, whatever the slack. */
    private int bandOf(double value) {
        int found = 0;
        while (found < edges.length && value >= edges[found]) {
            found++;
        }
        return found;
    }

    private void cross(double value, double at) {
        int to = band;
        while (to < edges.length && value >= edges[to] + slack) {
            to++;
        }
        while (to > 0 && value < edges[to - 1] - slack) {
            to--;
        }
        if (to != band) {
            crossings.add(new Crossing(at, band, to));
            band = to;
        }
    }

    @Override
    public void gap() {
        broken = true;
    }

    @Override
    public void finish() {
        // Nothing is under way: each sample is answered as it comes.
    }

    @Override
    public Reading reading(double fromSeconds, double toSeconds) {
        boolean whole = !(fromSeconds > firstSeconds) && !(toSeconds < lastSeconds);
        LevelSums sums = whole ? all : window(fromSeconds, toSeconds);
        List<Item> items = new ArrayList<>();
        double noise = sums.noise();
        items.add(
                new Item.Scalar("mean", sums.mean(), sums.count() > 0 ? noise / Math.sqrt(sums.count()) : Double.NaN));
        items.add(new Item.Scalar("noise", noise));
        items.add(new Item.Scalar("min", sums.lowest()));
        items.add(new Item.Scalar("max", sums.highest()));
        items.add(new Item.Events("crossings", List.of("t_s", "from", "to"), events(fromSeconds, toSeconds)));
        items.add(
                new Item.Numbers("time_in_band", "s", whole ? held.clone() : heldWithin(sums, fromSeconds, toSeconds)));
        items.add(new Item.Scalar("samples", sums.count()));
        return new Reading(quality(sums), items, working(sums, noise));
    }

    private LevelSums window(double from, double to) {
        LevelSums sums = new LevelSums();
        long first = Math.max(0, end - values.length);
        double before = Double.NaN;
        for (long i = first; i < end; i++) {
            int cell = (int) (i % values.length);
            if (seconds[cell] >= from && seconds[cell] <= to) {
                if (seconds[cell] - before > 1.6 * periodSeconds) {
                    sums.gap();
                }
                sums.add(values[cell]);
                before = seconds[cell];
            }
        }
        return sums;
    }

    private List<Event> events(double from, double to) {
        List<Event> events = new ArrayList<>();
        for (Crossing one : crossings) {
            if (one.seconds() >= from && one.seconds() <= to) {
                String kind = one.to() > one.from() ? "up" : "down";
                events.add(new Event(kind, one.seconds(), one.seconds(), Double.NaN, true, "", one.from(), one.to()));
            }
        }
        return events;
    }

    /** Of a part of the record: from crossing to crossing. */
    private double[] heldWithin(LevelSums sums, double from, double to) {
        double[] within = new double[edges.length + 1];
        if (sums.count() == 0) {
            return within;
        }
        double since = Math.max(from, firstSeconds);
        double until = Math.min(to, lastSeconds + periodSeconds);
        int now = firstBand;
        for (Crossing one : crossings) {
            if (one.seconds() > since) {
                within[now] += there(since, Math.min(one.seconds(), until));
                since = Math.max(since, Math.min(one.seconds(), until));
            }
            now = one.to();
        }
        within[now] += there(since, until);
        return within;
    }

    /** @return how much of the time between there were samples, in s */
    private double there(double from, double to) {
        double sum = Math.max(0, to - from);
        for (double[] pause : pauses) {
            double share = Math.max(0, Math.min(to, pause[1]) - Math.max(from, pause[0])) / (pause[1] - pause[0]);
            sum -= share * pause[2];
        }
        return Math.max(0, sum);
    }

    private static Quality quality(LevelSums sums) {
        if (sums.count() == 0) {
            return new Quality(0, List.of(Messages.of("read.level.no-samples-yet")));
        }
        Farthest word = sums.word();
        if (word != null) {
            return new Quality(
                    0.5,
                    List.of(Messages.of(
                            "read.level.samples-are-exactly", word.times(), sums.count(), Digits.of(word.value()))));
        }
        return sums.count() < 3
                ? new Quality(0.4, List.of(Messages.of("read.level.only-samples-so-far", sums.count())))
                : new Quality(1, List.of());
    }

    private List<String> working(LevelSums sums, double noise) {
        if (sums.count() == 0) {
            return List.of();
        }
        List<String> lines = new ArrayList<>();
        lines.add(Messages.of("read.level.mean-of-cleaned-samples", sums.count()));
        lines.add(Messages.of("read.level.noise-from-second-differences-the", Digits.about(noise, 3)));
        if (edges.length > 0) {
            lines.add(Messages.of(
                    "read.level.band-edges-at-a-band-is-left",
                    String.join(", ", Arrays.stream(edges).mapToObj(Digits::of).toList()),
                    Digits.of(slack)));
        }
        return lines;
    }
}
