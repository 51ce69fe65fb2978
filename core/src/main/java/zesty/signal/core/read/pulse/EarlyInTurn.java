package zesty.signal.core.read.pulse;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;

/**
 * A heart of which every second or third beat comes early: its intervals differ too much for an even run, but come again in turn
 * as exactly as those of one. Only of electrical beats, which stand clear of all else: which of the bumps are beats needs no
 * rhythm there.
 */
final class EarlyInTurn {
    /** Bumps lower than this share of the height of a beat are none. */
    private static final double STANDS_OUT = 0.5;
    /** Of bumps of one shape at no fixed pace, half as far apart again or half as near, chance makes so many come in turn once in two million. */
    private static final int LENGTH = 12;

    private static final int LONGEST_TURN = 3;
    /** From one turn to the next an interval stays the same within this share of the mean one. */
    private static final double SAME = 0.08;

    private static final double LEAST_LIKENESS = 0.85;
    private static final double MOST_HEIGHTS = 1.6;

    private EarlyInTurn() {}

    /**
     * @param waiting all candidates of late, oldest first
     * @param scale height of a beat
     * @return the newest beats that make such a run; empty for none
     */
    static List<Candidate> believable(Collection<Candidate> waiting, double scale) {
        List<Candidate> run = new ArrayList<>();
        for (Candidate one : waiting) {
            if (one.height() > STANDS_OUT * scale) {
                run.add(one);
            }
        }
        if (run.size() < LENGTH) {
            return List.of();
        }
        run = run.subList(run.size() - LENGTH, run.size());
        return inTurn(run) && alike(run) ? List.copyOf(run) : List.of();
    }

    private static boolean inTurn(List<Candidate> run) {
        double[] gaps = new double[run.size() - 1];
        double mean = (run.get(run.size() - 1).seconds() - run.get(0).seconds()) / gaps.length;
        for (int i = 0; i < gaps.length; i++) {
            gaps[i] = run.get(i + 1).seconds() - run.get(i).seconds();
            if (gaps[i] < BeatPath.SHORTEST_SECONDS || gaps[i] > Run.SLOWEST_SECONDS) {
                return false;
            }
        }
        for (int turn = 2; turn <= LONGEST_TURN; turn++) {
            boolean same = true;
            for (int i = turn; i < gaps.length; i++) {
                same &= Math.abs(gaps[i] - gaps[i - turn]) < SAME * mean;
            }
            if (same) {
                return true;
            }
        }
        return false;
    }

    private static boolean alike(List<Candidate> run) {
        double[] mean = Run.mean(run);
        double lowest = run.stream().mapToDouble(Candidate::height).min().orElse(0);
        return run.stream()
                .allMatch(one -> one.height() < MOST_HEIGHTS * lowest
                        && one.floor() <= Run.HIGHEST_FLOOR
                        && one.likeness(mean) > LEAST_LIKENESS);
    }
}
