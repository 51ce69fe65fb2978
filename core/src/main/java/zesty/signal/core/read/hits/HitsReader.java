package zesty.signal.core.read.hits;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Quality;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Recorded;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * Finds hits. With a threshold that is given: where the signal passes it, comes back past the release, and the dead time
 * is over. By itself: where it rises out of what came in the moment before and out of the reach of a quiet stretch, so
 * that ringing, which only falls, is none.
 */
final class HitsReader extends Recorded {
    /** Longer than half a period of the slowest ringing that is told from a strike, 15 Hz, in s. */
    private static final double BEFORE_SECONDS = 0.035;

    /** The first crest comes within this, in s. */
    private static final double ATTACK_SECONDS = 0.025;
    /** A strike stands so far out of the moment before it. */
    private static final double RISES = 1.5;
    /** Two modes of ringing come and go against each other; within this after a hit, in s … */
    private static final double RINGS_SECONDS = 0.3;
    /** … another one is at least so high as a share of it, and less the later it comes. */
    private static final double AFTER_ONE = 0.5;

    /** Noise exceeds the reach of the quiet windows by at most an eighth; a hit must exceed it by more. */
    private static final double THRESHOLD_MARGIN = 1.12;
    /** Within half a second of a strike the last of its ringing may add to the noise. Chosen on practice records. */
    private static final double AFTER_MARGIN = 1.8;
    /** What stands so far out of the moment before it is no ringing. */
    private static final double OUT_OF_RINGING = 6;

    /**
     * What rises so far may be a strike: a second one in the ringing or two modes that come and go against each other, or a soft one
     * that builds up over several swings.
     */
    private static final double MAYBE_RISES = 1.15;
    /**
     * A hit is so much higher than the ringing that was learned. Chosen on strikes of 1:20 beside ringing of one mode and
     * of two, of which {@code benchmarks/run truth hits} has others.
     */
    private static final double OVER_RINGING = 1.6;

    private static final double LEAST_AGAIN = 0.1;
    private static final double DIES_SECONDS = 0.12;

    private static final double PEAK_SECONDS = 0.25;
    private static final double CLEAR = 1.4;
    /** Hits further apart are no run. */
    private static final double PAUSE_SECONDS = 2;

    private final double threshold;
    private final double release;
    private final double deadSeconds;
    private final int sign;
    private final double[] zones;
    private final double rateHz;

    /** @param zones heights over rest from which a hit is worth one point more, rising */
    HitsReader(double threshold, double release, double deadSeconds, int sign, double[] zones, double rateHz) {
        super(1);
        this.threshold = threshold;
        this.release = release;
        this.deadSeconds = deadSeconds;
        this.sign = sign;
        this.zones = zones;
        this.rateHz = rateHz;
    }

    /** @param size how far from rest it went, as a multiple of what it had to pass */
    private record Hit(double seconds, double peak, double size) {}

    /** @param maybe how many rises within ringing or noise were not taken for hits and may be ones */
    private record Found(List<Hit> hits, double threshold, double release, double deadSeconds, int maybe) {}

    @Override
    protected Reading read(Segment stretch) {
        Found found = Double.isNaN(threshold) ? byItself(stretch) : given(stretch);
        double rest = Rest.level(stretch.ports()[0]);
        List<Event> events = events(stretch, found.hits(), rest);
        List<Item> items = new ArrayList<>();
        items.add(new Item.Events("hits", List.of("t_s", "peak", "rise_s", "ring_s"), events));
        items.add(new Item.Scalar("count", events.size()));
        items.add(new Item.Scalar("threshold", found.threshold()));
        items.add(new Item.Scalar("release", found.release()));
        items.add(new Item.Scalar("rate_per_min", rate(events)));
        items.add(new Item.Scalar("in_a_row", inARow(events)));
        items.add(new Item.Scalar("points", zones.length == 0 ? Double.NaN : points(events, rest)));
        items.add(new Item.Scalar("dead_s", found.deadSeconds()));
        return new Reading(quality(stretch, found), items, working(found));
    }

    private List<Event> events(Segment stretch, List<Hit> hits, double rest) {
        List<Event> events = new ArrayList<>();
        double[] seconds = stretch.seconds();
        int at = 0;
        for (int h = 0; h < hits.size(); h++) {
            Hit hit = hits.get(h);
            while (seconds[at] < hit.seconds()) {
                at++;
            }
            int next = at;
            double until = h + 1 < hits.size() ? hits.get(h + 1).seconds() : Double.POSITIVE_INFINITY;
            while (next < seconds.length && seconds[next] < until) {
                next++;
            }
            Shape shape = Shape.of(stretch.ports()[0], at, next, rest, rateHz, ATTACK_SECONDS);
            boolean clear = hit.size() >= CLEAR;
            events.add(new Event(
                    clear ? "hit" : Messages.of("read.hits.weak-hit"),
                    hit.seconds(),
                    hit.seconds(),
                    hit.peak(),
                    true,
                    clear ? "" : Messages.of("read.hits.hardly-above-the-threshold"),
                    hit.peak(),
                    shape.riseSeconds(),
                    shape.ringSeconds()));
        }
        return events;
    }

    /** Hits a minute from the first to the last; NaN with fewer than two. */
    private static double rate(List<Event> events) {
        int n = events.size();
        return n < 2
                ? Double.NaN
                : 60
                        * (n - 1)
                        / (events.get(n - 1).startSeconds() - events.get(0).startSeconds());
    }

    private static int inARow(List<Event> events) {
        int most = 0;
        int now = 0;
        double last = Double.NEGATIVE_INFINITY;
        for (Event event : events) {
            now = event.startSeconds() - last < PAUSE_SECONDS ? now + 1 : 1;
            most = Math.max(most, now);
            last = event.startSeconds();
        }
        return most;
    }

    private int points(List<Event> events, double rest) {
        int points = 0;
        for (Event event : events) {
            for (double zone : zones) {
                points += Math.abs(event.size() - rest) >= zone ? 1 : 0;
            }
        }
        return points;
    }

    private Found byItself(Segment stretch) {
        double[] x = stretch.ports()[0];
        List<int[]> runs = stretch.runs();
        int window = (int) Math.max(8, Math.round(ATTACK_SECONDS * rateHz));
        List<double[]> parts = new ArrayList<>();
        List<double[]> befores = new ArrayList<>();
        List<Double> highest = new ArrayList<>();
        for (int[] run : runs) {
            double[] off = Rest.deviations(Arrays.copyOfRange(x, run[0], run[1]), rateHz);
            parts.add(off);
            befores.add(SlidingMax.before(off, (int) Math.max(4, Math.round(BEFORE_SECONDS * rateHz))));
            for (int at = 0; at + window <= off.length; at += window) {
                double most = 0;
                for (int i = at; i < at + window; i++) {
                    most = Math.max(most, Math.abs(off[i]));
                }
                highest.add(most);
            }
        }
        double rest = Rest.level(stretch.ports()[0]);
        if (highest.isEmpty()) {
            return new Found(List.of(), Double.NaN, Double.NaN, 0, 0);
        }
        double reach = Rest.outOfReach(
                highest.stream().mapToDouble(Double::doubleValue).toArray(), window, step(x));
        reach = Math.max(reach, 2.5 * step(x));
        List<Ringing.Rise> rises = new ArrayList<>();
        for (int r = 0; r < parts.size(); r++) {
            rises(r, parts.get(r), befores.get(r), reach, rises);
        }
        Ringing ringing = Ringing.learned(parts, rises, reach, rateHz);
        List<Hit> hits = new ArrayList<>();
        int maybe = ringing == null ? 0 : ringing.swelling();
        for (int r = 0; r < parts.size(); r++) {
            maybe += find(stretch, runs.get(r)[0], parts.get(r), befores.get(r), reach, ringing, hits);
        }
        double level = rest + sign * reach;
        return new Found(
                hits, level, rest + sign * reach / 2, Double.isNaN(deadSeconds) ? ATTACK_SECONDS : deadSeconds, maybe);
    }

    /** @return the smallest change from sample to sample: the converter's step */
    private static double step(double[] x) {
        double least = Double.POSITIVE_INFINITY;
        for (int i = 1; i < x.length; i++) {
            double change = Math.abs(x[i] - x[i - 1]);
            least = change > 0 ? Math.min(least, change) : least;
        }
        return least == Double.POSITIVE_INFINITY ? 0 : least;
    }

    /** Finds what rises out of the moment before it and out of the reach of a quiet stretch, whether it is a hit or not. */
    private void rises(int run, double[] off, double[] before, double reach, List<Ringing.Rise> rises) {
        int attack = (int) Math.max(4, Math.round(ATTACK_SECONDS * rateHz));
        int free = 0;
        for (int i = 0; i < off.length; i++) {
            double own = Math.abs(off[i]);
            if (own > reach && i >= free && own > RISES * before[i]) {
                rises.add(new Ringing.Rise(run, i, highest(off, i, attack)));
                free = i + attack;
            }
        }
    }

    /** @param before what was highest in the moment before each. @param ringing null where nothing was learned. @return how many rises within ringing or noise may be hits, too */
    private int find(
            Segment stretch, int first, double[] off, double[] before, double reach, Ringing ringing, List<Hit> hits) {
        int attack = (int) Math.max(4, Math.round(ATTACK_SECONDS * rateHz));
        int dead = Double.isNaN(deadSeconds) ? attack : (int) Math.ceil(deadSeconds * rateHz);
        int free = 0;
        int last = -1;
        List<Ringing.Rise> own = new ArrayList<>();
        int maybe = 0;
        int told = 0;
        for (int i = 0; i < off.length; i++) {
            double size = Math.abs(off[i]);
            boolean rises = size > reach && size > MAYBE_RISES * before[i];
            if (i >= free && rises) {
                double height = highest(off, i, attack);
                double rings = rings(own, i, ringing);
                boolean outOfRinging = size > OUT_OF_RINGING * before[i]
                        && height
                                > LEAST_AGAIN
                                        * (own.isEmpty()
                                                ? 0
                                                : own.get(own.size() - 1).height());
                // The last of the ringing lies where quiet and ringing meet.
                boolean after = ringing != null && last >= 0 && ringing.within(i - last);
                boolean clearly = height > (after ? AFTER_MARGIN : THRESHOLD_MARGIN) * reach;
                if (clearly && size > RISES * before[i] && (height > rings || outOfRinging)) {
                    hits.add(new Hit(stretch.seconds()[first + i], Double.NaN, height / reach));
                    close(stretch, first, last, i, off.length, hits, hits.size() - 2);
                    last = i;
                    own.add(new Ringing.Rise(0, i, height));
                    free = i + dead;
                    // What began less steeply a moment ago was this one.
                    maybe -= i < told ? 1 : 0;
                    told = 0;
                } else if (clearly
                        && i >= told
                        && size > THRESHOLD_MARGIN * reach
                        && height > (ringing == null ? rings : rings / OVER_RINGING * MAYBE_RISES)) {
                    maybe++;
                    told = i + attack;
                }
            }
        }
        close(stretch, first, last, off.length, off.length, hits, hits.size() - 1);
        return maybe;
    }

    /** @return what a hit must exceed beside the ringing of those before it */
    private double rings(List<Ringing.Rise> before, int at, Ringing ringing) {
        double most = 0;
        for (int k = before.size() - 1; k >= 0; k--) {
            Ringing.Rise one = before.get(k);
            int since = at - one.at();
            if (ringing == null) {
                double late = Math.max(0, since / rateHz - RINGS_SECONDS);
                return AFTER_ONE * Math.exp(-late / DIES_SECONDS) * one.height();
            }
            if (!ringing.within(since)) {
                break;
            }
            most = Math.max(most, OVER_RINGING * ringing.share(since) * one.height());
        }
        return most;
    }

    private static double highest(double[] off, int from, int length) {
        double most = 0;
        for (int i = from; i < Math.min(off.length, from + length); i++) {
            most = Math.max(most, Math.abs(off[i]));
        }
        return most;
    }

    /** How high a hit went is known once the next one begins. */
    private void close(Segment stretch, int first, int from, int next, int end, List<Hit> hits, int index) {
        if (from < 0) {
            return;
        }
        int to = Math.min(Math.min(next, end), from + (int) Math.ceil(PEAK_SECONDS * rateHz));
        double peak = -Double.MAX_VALUE;
        for (int i = from; i < to; i++) {
            peak = Math.max(peak, sign * stretch.ports()[0][first + i]);
        }
        Hit hit = hits.get(index);
        hits.set(index, new Hit(hit.seconds(), sign * peak, hit.size()));
    }

    private Found given(Segment stretch) {
        double[] x = stretch.ports()[0];
        double rest = Rest.level(stretch.ports()[0]);
        double back = Double.isNaN(release) ? (threshold + rest) / 2 : release;
        if (sign * back >= sign * threshold) {
            back = threshold;
        }
        double dead = Double.isNaN(deadSeconds) ? 0 : deadSeconds;
        List<Hit> hits = new ArrayList<>();
        for (int[] run : stretch.runs()) {
            boolean over = false;
            double free = Double.NEGATIVE_INFINITY;
            for (int i = run[0]; i < run[1]; i++) {
                double own = sign * x[i];
                if (!over && own >= sign * threshold && stretch.seconds()[i] >= free) {
                    over = true;
                    free = stretch.seconds()[i] + dead;
                    hits.add(new Hit(stretch.seconds()[i], x[i], 1));
                } else if (over) {
                    Hit now = hits.get(hits.size() - 1);
                    if (own > sign * now.peak()) {
                        hits.set(hits.size() - 1, new Hit(now.seconds(), x[i], 1));
                    }
                    over = own >= sign * back;
                }
            }
        }
        double far = Math.abs(threshold - rest);
        hits.replaceAll(hit -> new Hit(hit.seconds(), hit.peak(), far > 0 ? Math.abs(hit.peak() - rest) / far : CLEAR));
        return new Found(hits, threshold, back, dead, 0);
    }

    private Quality quality(Segment stretch, Found found) {
        if (stretch.present(0).length < 3) {
            return new Quality(0, List.of(Messages.of("read.hits.no-samples-yet")));
        }
        if (stretch.span() < 1 && Double.isNaN(threshold)) {
            return new Quality(0.4, List.of(Messages.of("read.hits.too-short-to-know-what-a-quiet")));
        }
        long weak = found.hits().stream().filter(hit -> hit.size() < CLEAR).count();
        if (weak > 0) {
            double share = (double) weak / found.hits().size();
            return new Quality(
                    Math.max(0.3, 1 - share),
                    List.of(Messages.of(
                            "read.hits.hardly-above-the-threshold-set-it",
                            weak + (weak == 1 ? Messages.of("read.hits.hit-is") : Messages.of("read.hits.hits-are")))));
        }
        if (found.maybe() > 0) {
            double share = (double) found.maybe() / (found.hits().size() + found.maybe());
            return new Quality(
                    Math.max(0.3, 1 - share),
                    List.of(
                            found.maybe() == 1
                                    ? Messages.of("read.hits.one-rise-may-be-a-hit")
                                    : Messages.of("read.hits.rises-may-be-hits", found.maybe())));
        }
        return new Quality(1, List.of());
    }

    private List<String> working(Found found) {
        if (Double.isNaN(found.threshold())) {
            return List.of();
        }
        return List.of(
                Double.isNaN(threshold)
                        ? Messages.of(
                                "read.hits.threshold-what-the-quietest-fifth",
                                Digits.about(found.threshold(), 4),
                                Digits.of(1000 * ATTACK_SECONDS))
                        : "Threshold " + Digits.of(threshold) + ", release " + Digits.about(found.release(), 4) + ".",
                Messages.of(
                        "read.hits.a-hit-rises-times-above-the-ms",
                        Digits.of(RISES),
                        Digits.of(1000 * BEFORE_SECONDS)));
    }
}
