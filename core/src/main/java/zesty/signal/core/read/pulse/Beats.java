package zesty.signal.core.read.pulse;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import zesty.signal.core.read.HandEdit;

/**
 * The beats of a stretch of time with their polarity decided: of runs that overlap the one whose slopes fit better, of an
 * electrical run R as the side that stands out more over the whole run.
 *
 * @param source what they were found in
 * @param seconds of each beat
 * @param likeness of each to the usual one
 * @param height of each, as the finder sees it
 * @param followsOn whether the time since the beat before is one undisturbed interval; false for the first
 * @param byHand whether each was put in by hand
 * @param rejected times of what was turned away
 * @param up whether the newest run points up in the signal
 * @param clear how clearly it points that way: the mean of {@link Candidate#upright}, below 0 where it looks upside down;
 *     NaN when there is none
 * @param bumps what stands between each and the beat before
 */
record Beats(
        PulseSource source,
        double[] seconds,
        double[] likeness,
        double[] height,
        boolean[] followsOn,
        boolean[] byHand,
        double[] rejected,
        boolean up,
        double clear,
        Between.Bump[] bumps) {

    /** Runs that point the other way with more than this share of the beats are no accident. */
    private static final double TURNED_SHARE = 0.1;

    /** @param clear how clearly one of its beats points the way this polarity has it, on average */
    private record Segment(BeatLog log, boolean up, int from, int to, double evidence, double clear) {
        double start() {
            return log.up(from);
        }

        double end() {
            return log.up(to - 1);
        }
    }

    static Beats of(PulseSource source, BeatJudge[] judges, double fromSeconds, double toSeconds) {
        List<Segment> all = new ArrayList<>();
        for (int side = 0; side < judges.length; side++) {
            stretches(judges[side].log(), side == 0, fromSeconds, toSeconds, all);
        }
        List<Segment> kept = source == PulseSource.OPTICAL ? undisputed(all) : all;
        kept.sort(Comparator.comparingDouble(Segment::start));
        int most = kept.stream().mapToInt(s -> s.to() - s.from()).sum();
        double[] seconds = new double[most];
        double[] likeness = new double[most];
        double[] height = new double[most];
        boolean[] followsOn = new boolean[most];
        int n = 0;
        boolean up = true;
        double clear = Double.NaN;
        Between.Bump[] bump = new Between.Bump[most];
        int[] pointing = new int[2];
        for (Segment stretch : kept) {
            pointing[stretch.up() ? 1 : 0] += stretch.to() - stretch.from();
            up = source == PulseSource.OPTICAL ? stretch.up() : stretch.evidence() >= 0;
            clear = source == PulseSource.OPTICAL ? stretch.clear() : Math.abs(stretch.clear());
            for (int i = stretch.from(); i < stretch.to(); i++) {
                double time = up || source == PulseSource.OPTICAL
                        ? stretch.log().up(i)
                        : stretch.log().down(i);
                if (time < fromSeconds || time > toSeconds || n > 0 && time <= seconds[n - 1]) {
                    continue;
                }
                seconds[n] = time;
                likeness[n] = stretch.log().likeness(i);
                height[n] = stretch.log().height(i);
                bump[n] = stretch.log().bump(i);
                followsOn[n] = n > 0 && i > stretch.from() && stretch.log().followsOn(i);
                n++;
            }
        }
        // A finger's pulse does not turn over: where both ways were taken, one of them is wrong.
        boolean both = Math.min(pointing[0], pointing[1]) > TURNED_SHARE * most;
        if (source == PulseSource.OPTICAL && both) {
            clear = Math.min(clear, 0);
        }
        BeatLog told = judges.length == 1 || up ? judges[0].log() : judges[1].log();
        double[] found = Arrays.copyOf(seconds, n);
        return new Beats(
                source,
                found,
                Arrays.copyOf(likeness, n),
                Arrays.copyOf(height, n),
                Arrays.copyOf(followsOn, n),
                new boolean[n],
                aside(told.rejected(fromSeconds, toSeconds), found),
                up,
                clear,
                Arrays.copyOf(bump, n));
    }

    /** What was turned away and is no part of a beat believed. */
    private static double[] aside(double[] rejected, double[] beats) {
        return Arrays.stream(rejected)
                .filter(t -> {
                    int i = Arrays.binarySearch(beats, t);
                    int next = i < 0 ? -i - 1 : i;
                    return (next >= beats.length || beats[next] - t > 0.12)
                            && (next == 0 || t - beats[next - 1] > 0.12);
                })
                .toArray();
    }

    private static void stretches(BeatLog log, boolean up, double from, double to, List<Segment> all) {
        int i = log.firstFrom(from - 1);
        while (i < log.count() && log.up(i) <= to + 1) {
            // The whole run tells which way its beats point, also where only a part of it is asked for.
            int whole = log.stretch(i);
            int last = i;
            while (last < log.count() && log.stretch(last) == whole && log.up(last) <= to + 1) {
                last++;
            }
            all.add(new Segment(log, up, i, last, log.evidence(whole), log.clear(whole)));
            i = last;
        }
    }

    /** Of runs of both polarities at the same time the better one; what is left of the other is dropped with it. */
    private static List<Segment> undisputed(List<Segment> all) {
        all.sort(Comparator.comparingDouble(Segment::evidence).reversed());
        List<Segment> kept = new ArrayList<>();
        for (Segment one : all) {
            int from = one.from();
            int to = one.to();
            for (Segment better : kept) {
                if (better.log() == one.log()
                        || better.end() < one.log().up(from)
                        || better.start() > one.log().up(to - 1)) {
                    continue;
                }
                // The longer end that sticks out stays.
                int before = from;
                while (before < to && one.log().up(before) < better.start() - 0.2) {
                    before++;
                }
                int after = to;
                while (after > from && one.log().up(after - 1) > better.end() + 0.2) {
                    after--;
                }
                if (before - from >= to - after) {
                    to = before;
                } else {
                    from = after;
                }
                if (to - from < 1) {
                    break;
                }
            }
            if (to - from >= 3) {
                kept.add(new Segment(one.log(), one.up(), from, to, one.evidence(), one.clear()));
            }
        }
        return kept;
    }

    int count() {
        return seconds.length;
    }

    /** @return the same with what was changed by hand */
    Beats edited(List<HandEdit> edits, double from, double to) {
        Beats now = this;
        for (HandEdit edit : edits) {
            if (edit.seconds() >= from && edit.seconds() <= to) {
                now = edit.in() ? now.with(edit.seconds()) : now.without(edit.seconds());
            }
        }
        return now;
    }

    /** Within so much of the time a beat is the one that is meant, in s. */
    private static final double SAME = 0.03;

    private Beats without(double time) {
        int gone = -1;
        for (int i = 0; i < seconds.length; i++) {
            if (Math.abs(seconds[i] - time) < SAME
                    && (gone < 0 || Math.abs(seconds[i] - time) < Math.abs(seconds[gone] - time))) {
                gone = i;
            }
        }
        if (gone < 0) {
            return this;
        }
        Beats fewer = copy(seconds.length - 1, gone + 1, gone);
        if (gone < fewer.followsOn.length) {
            fewer.followsOn[gone] = false;
            fewer.bumps[gone] = Between.Bump.UNKNOWN;
        }
        double[] aside = Arrays.copyOf(rejected, rejected.length + 1);
        aside[rejected.length] = seconds[gone];
        Arrays.sort(aside);
        return new Beats(
                source,
                fewer.seconds,
                fewer.likeness,
                fewer.height,
                fewer.followsOn,
                fewer.byHand,
                aside,
                up,
                clear,
                fewer.bumps);
    }

    /** All up to {@code to}, then from {@code from} on, in arrays of that length. */
    private Beats copy(int length, int from, int to) {
        Beats made = new Beats(
                source,
                Arrays.copyOf(seconds, length),
                Arrays.copyOf(likeness, length),
                Arrays.copyOf(height, length),
                Arrays.copyOf(followsOn, length),
                Arrays.copyOf(byHand, length),
                rejected,
                up,
                clear,
                Arrays.copyOf(bumps, length));
        int put = length - (seconds.length - from);
        for (int i = from; i < seconds.length; i++) {
            int at = put + i - from;
            made.seconds[at] = seconds[i];
            made.likeness[at] = likeness[i];
            made.height[at] = height[i];
            made.followsOn[at] = followsOn[i];
            made.bumps[at] = bumps[i];
            made.byHand[at] = byHand[i];
        }
        return made;
    }

    private Beats with(double time) {
        int found = Arrays.binarySearch(seconds, time);
        if (found >= 0) {
            return this;
        }
        int at = -found - 1;
        Beats more = copy(seconds.length + 1, at, at);
        more.seconds[at] = time;
        more.likeness[at] = 1;
        more.height[at] = Double.NaN;
        more.byHand[at] = true;
        more.bumps[at] = Between.Bump.UNKNOWN;
        // Whoever puts a beat in says that the intervals to its neighbours are right.
        more.followsOn[at] = at > 0 && time - more.seconds[at - 1] < BeatPath.LONGEST_SECONDS;
        if (at + 1 < more.seconds.length) {
            more.bumps[at + 1] = Between.Bump.UNKNOWN;
            more.followsOn[at + 1] = more.seconds[at + 1] - time < BeatPath.LONGEST_SECONDS;
        }
        double[] aside =
                Arrays.stream(rejected).filter(t -> Math.abs(t - time) > SAME).toArray();
        return new Beats(
                source,
                more.seconds,
                more.likeness,
                more.height,
                more.followsOn,
                more.byHand,
                aside,
                up,
                clear,
                more.bumps);
    }
}
