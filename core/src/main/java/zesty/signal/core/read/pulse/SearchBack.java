package zesty.signal.core.read.pulse;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedList;
import java.util.List;

/**
 * Looks among the bumps that were passed over between two beats for those that are beats after all (search-back, as in J. Pan and
 * W. J. Tompkins 1985, "A real-time QRS detection algorithm"). One thread.
 */
final class SearchBack {
    /** What came before a run is a beat if it is so much like it. */
    private static final double LOOK_BACK = 0.8;

    private static final double HOLE = 1.4;
    /** An electrical bump of this share of the usual height is a beat … */
    private static final double STANDS_OUT = 0.38;
    /** … and stands this much above nearly all bumps that were passed over lately, which are noise and T waves … */
    private static final double OVER_BYSTANDERS = 1.5;

    private static final double NEARLY_ALL = 0.9;
    private static final int BYSTANDERS = 64;
    /** … unless it comes so soon, in s, and has less than this share of the slope before it: then it is a T wave. */
    private static final double T_SECONDS = 0.38;

    private static final double T_SHARE = 0.65;
    /** An optical bump of this share of the usual height and as alike is a beat that came early … */
    private static final double EARLY_HEIGHT = 0.7;

    private static final double EARLY_LIKENESS = 0.75;
    /** … this share of the usual interval after one and before the next, so that no second hump is taken for one … */
    private static final double EARLY_ROOM = 0.45;
    /** … where few beats of late have such a bump beside them: humps come with each beat. */
    private static final int EARLY_MEMORY = 10;

    private static final int MOST_EARLY = 5;
    /** A step of the contact stands as far above the level around it as below, within this share. */
    private static final double NO_STEP = 0.1;

    private final PulseSource source;
    private final BeatLooks looks;
    private final FreeRhythm rhythm;
    private final BeatJudge judge;
    /** Whether a beat had a bump beside it that might be an early one. */
    private final Flags besides = new Flags(EARLY_MEMORY);

    private final double[] bystanders = new double[BYSTANDERS];
    private int passedOver;

    /** @param judge told of beats found, and of what disturbs */
    SearchBack(PulseSource source, BeatLooks looks, FreeRhythm rhythm, BeatJudge judge) {
        this.source = source;
        this.looks = looks;
        this.rhythm = rhythm;
        this.judge = judge;
    }

    /**
     * What came before a run is looked at again with what the run has taught, from its first beat back.
     *
     * @param waiting candidates that were not decided on, those of the run among them
     */
    List<Candidate> before(List<Candidate> run, Iterable<Candidate> waiting) {
        LinkedList<Candidate> found = new LinkedList<>();
        double interval = (run.get(run.size() - 1).seconds() - run.get(0).seconds()) / (run.size() - 1);
        Candidate next = run.get(0);
        while (true) {
            Candidate best = null;
            double most = 0;
            for (Candidate one : waiting) {
                double apart = next.seconds() - one.seconds();
                boolean fits = apart > Math.max(BeatPath.SHORTEST_SECONDS, 0.6 * interval) && apart < 2.4 * interval;
                boolean missed = apart > 1.5 * interval;
                double off = Math.log(apart / (missed ? 2 * interval : interval));
                double fit = looks.merit(one) - off * off - (missed ? 0.4 : 0);
                if (fits
                        && looks.plausible(one)
                        && one.height() < 1.7 * looks.usual()
                        && looks.likeness(one) > LOOK_BACK
                        && fit > most) {
                    most = fit;
                    best = one;
                }
            }
            if (best == null) {
                return found;
            }
            double apart = next.seconds() - best.seconds();
            interval += apart < 1.5 * interval ? 0.3 * (apart - interval) : 0;
            found.addFirst(best);
            next = best;
        }
    }

    /** A hole in the rhythm: the best of those passed over in it is a beat after all, if it looks like one. */
    void fill(Candidate next, List<Candidate> passed) {
        if (source == PulseSource.ELECTRICAL) {
            takeAllThatStandOut(next, passed);
        } else {
            takeEarlyOnes(next, passed);
        }
        double interval = judge.intervalSeconds();
        List<Candidate> rest = new ArrayList<>(passed);
        rest.removeIf(one -> one.seconds() <= judge.lastBeat());
        double from = judge.lastBeat();
        while (next.seconds() - from > HOLE * interval) {
            Candidate best = null;
            for (Candidate one : rest) {
                boolean room = one.seconds() - from > Math.max(BeatPath.SHORTEST_SECONDS, 0.45 * interval)
                        && next.seconds() - one.seconds() > Math.max(BeatPath.SHORTEST_SECONDS, 0.35 * interval);
                if (room && looks.plausible(one) && (best == null || looks.merit(one) > looks.merit(best))) {
                    best = one;
                }
            }
            if (best == null) {
                break;
            }
            judge.judge(best);
            from = best.seconds();
            double since = from;
            rest.removeIf(one -> one.seconds() <= since);
        }
        for (Candidate one : rest) {
            if (one.height() > 1.1 * looks.usual() && one.seconds() > judge.lastBeat()) {
                judge.disturbedBy(one);
            }
        }
    }

    /** An optical beat may come early, too: one that is as high and as alike as beats are, where humps are not. */
    private void takeEarlyOnes(Candidate next, List<Candidate> passed) {
        int besidesBefore = besides.count();
        double room = Math.max(BeatPath.SHORTEST_SECONDS, EARLY_ROOM * judge.intervalSeconds());
        Candidate early = null;
        for (Candidate one : passed) {
            double h = one.height() / looks.usual();
            boolean like = h > EARLY_HEIGHT && h < 1.5 && looks.likeness(one) > EARLY_LIKENESS;
            if (like && one.seconds() - judge.lastBeat() > room && next.seconds() - one.seconds() > room) {
                early = early == null || looks.merit(one) > looks.merit(early) ? one : early;
            }
        }
        besides.add(early != null);
        if (early != null && besidesBefore < MOST_EARLY && rhythm.is(looks.usualLikeness())) {
            judge.judge(early);
        }
    }

    /** @return what nearly all bumps that were passed over lately stay below, in usual heights */
    private double bystanding() {
        int n = Math.min(passedOver, BYSTANDERS);
        double[] sorted = Arrays.copyOf(bystanders, n);
        Arrays.sort(sorted);
        return n == 0 ? 0 : sorted[(int) (NEARLY_ALL * (n - 1))];
    }

    /** An electrical beat stands out by itself, whatever the rhythm: early ones are beats. */
    private void takeAllThatStandOut(Candidate next, List<Candidate> passed) {
        double least = passed.isEmpty() ? 0 : Math.max(STANDS_OUT, OVER_BYSTANDERS * bystanding());
        for (Candidate one : passed) {
            double apart = one.seconds() - judge.lastBeat();
            double h = one.height() / looks.usual();
            boolean wave = apart < T_SECONDS && h < T_SHARE * judge.lastHeight();
            if (apart > BeatPath.SHORTEST_SECONDS
                    && next.seconds() - one.seconds() > BeatPath.SHORTEST_SECONDS
                    && h > least
                    && (h < 1.1 || h < 1.7 && looks.likeness(one) > 0.85)
                    && one.floor() < 0.45
                    && Math.abs(one.upright()) > NO_STEP
                    && !wave) {
                judge.judge(one);
            } else {
                bystanders[passedOver++ % BYSTANDERS] = h;
            }
        }
    }
}
