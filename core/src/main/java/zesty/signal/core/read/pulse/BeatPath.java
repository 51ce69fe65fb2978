package zesty.signal.core.read.pulse;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedList;
import java.util.List;
import java.util.function.BiConsumer;
import java.util.function.ToDoubleFunction;

/**
 * Chooses among the candidates those that together make the best run: each is worth how much it stands out, and each
 * change from one interval to the next costs something (dynamic programming over the candidates as in D. P. W. Ellis
 * 2007, "Beat Tracking by Dynamic Programming", with an interval that follows the run). While no pulse is believed
 * nothing is final and the best run may change altogether; from then on a choice is final once it is nearly half an
 * interval old.
 */
final class BeatPath {
    /** Shortest interval between beats: 220 a minute. */
    static final double SHORTEST_SECONDS = 60.0 / 220;

    /** Longest interval: 27 a minute. */
    static final double LONGEST_SECONDS = 2.2;

    /** What a change of the interval by a factor costs: this times the square of its logarithm … */
    private static final double STRICTNESS = 4;
    /** … up to this square. */
    private static final double MOST_CHANGE = 0.2;
    /** What a missed beat costs. */
    private static final double MISSED = 0.35;
    /** How much of a changed interval is followed at once. */
    private static final double FOLLOW = 0.4;
    /** What is left to be followed of a change costs this times its square in all, later: the sum of 0.6²ⁿ, n ≥ 1 … */
    private static final double TO_COME = (1 - FOLLOW) * (1 - FOLLOW) / (1 - (1 - FOLLOW) * (1 - FOLLOW));
    /** … up to this square. */
    private static final double MOST_TO_COME = 0.3;
    /** A choice is final after so much of the interval. */
    private static final double SETTLED = 0.42;
    /** While nothing is final, so much is kept in mind, in s. */
    private static final double MEMORY_SECONDS = 16;

    private static final double UNKNOWN_INTERVAL = 0.8;

    /** A way to a candidate: by which one before it, with what interval; the best of those ways. */
    private static final class Way {
        final Node node;
        /** Null where the run begins, or is not kept in mind further back. */
        Way before;

        final double score;
        final double interval;

        Way(Node node, Way before, double score, double interval) {
            this.node = node;
            this.before = before;
            this.score = score;
            this.interval = interval;
        }
    }

    private static final class Node {
        final Candidate candidate;
        final List<Way> ways = new ArrayList<>();

        Node(Candidate candidate) {
            this.candidate = candidate;
        }

        double seconds() {
            return candidate.seconds();
        }
    }

    private final ToDoubleFunction<Candidate> worth;
    private final BiConsumer<Candidate, List<Candidate>> chosen;
    private final List<Node> pending = new ArrayList<>();
    private Way root;

    /**
     * @param worth how much a candidate is worth; below 0 it is not worth taking
     * @param chosen told each final choice and the candidates passed over since the one before
     */
    BeatPath(ToDoubleFunction<Candidate> worth, BiConsumer<Candidate, List<Candidate>> chosen) {
        this.worth = worth;
        this.chosen = chosen;
    }

    /** @return the interval that the run has now, in s; NaN before there is one */
    double intervalSeconds() {
        return root == null ? Double.NaN : root.interval;
    }

    /** Nothing is final from here on. */
    void free() {
        root = null;
    }

    /**
     * What has been chosen up to this candidate is final; those after it are weighed anew.
     *
     * @param interval that the run has there, in s
     */
    void fix(Candidate last, double interval) {
        for (int i = 0; i < pending.size(); i++) {
            if (pending.get(i).candidate == last) {
                root = new Way(pending.get(i), null, 0, interval);
                pending.subList(0, i + 1).clear();
                weighAnew();
                return;
            }
        }
    }

    /** The run goes on from another candidate that was passed over, with that interval in s. */
    void restart(Candidate from, double interval) {
        root = new Way(new Node(from), null, 0, interval);
        weighAnew();
    }

    /** What candidates are worth has changed. */
    void weighAnew() {
        for (int k = 0; k < pending.size(); k++) {
            weigh(pending.get(k), k);
        }
    }

    void add(Candidate candidate) {
        Node node = new Node(candidate);
        pending.add(node);
        weigh(node, pending.size() - 1);
        if (root == null) {
            forget(candidate.seconds() - MEMORY_SECONDS);
        }
    }

    private void forget(double before) {
        int old = 0;
        while (pending.get(old).seconds() < before) {
            old++;
        }
        if (old == 0) {
            return;
        }
        double gone = pending.get(old - 1).seconds();
        pending.subList(0, old).clear();
        for (Node node : pending) {
            for (Way way : node.ways) {
                if (way.before != null && way.before.node.seconds() <= gone) {
                    way.before = null;
                }
            }
        }
    }

    private void weigh(Node node, int index) {
        double own = worth.applyAsDouble(node.candidate);
        node.ways.clear();
        if (!(own > 0)) {
            return;
        }
        // Once something is final a run is begun anew only where it has ended.
        if (root == null || node.seconds() - root.node.seconds() > LONGEST_SECONDS) {
            node.ways.add(new Way(node, null, own, Double.NaN));
        }
        if (root != null) {
            follow(node, List.of(root), own);
        }
        for (int i = index - 1; i >= 0 && node.seconds() - pending.get(i).seconds() <= LONGEST_SECONDS; i--) {
            follow(node, pending.get(i).ways, own);
        }
    }

    /**
     * Adds the best way by a candidate before. Best is what will have cost least once its interval has followed: else
     * the way that has begun to follow a changed rhythm loses for ever against one that has yet to begin.
     */
    private static void follow(Node node, List<Way> ways, double own) {
        Way best = null;
        double most = Double.NEGATIVE_INFINITY;
        for (Way way : ways) {
            double apart = node.seconds() - way.node.seconds();
            if (apart < SHORTEST_SECONDS || apart > LONGEST_SECONDS) {
                return;
            }
            double usual = Double.isNaN(way.interval) ? apart : way.interval;
            double change = Math.log(apart / usual);
            // An interval of about two is one beat missed, not a slower pulse.
            boolean missed = apart > 1.6 * usual && apart < 2.4 * usual;
            double cost = missed ? MISSED : STRICTNESS * Math.min(MOST_CHANGE, change * change);
            double score = way.score + own - cost;
            double outlook = score - (missed ? 0 : STRICTNESS * Math.min(MOST_TO_COME, TO_COME * change * change));
            if (outlook > most) {
                most = outlook;
                best = new Way(node, way, score, missed ? usual : usual * Math.exp(FOLLOW * change));
            }
        }
        if (best != null) {
            node.ways.add(best);
        }
    }

    private Way best() {
        Way best = null;
        double newest = pending.isEmpty() ? 0 : pending.get(pending.size() - 1).seconds();
        for (Node node : pending) {
            // While nothing is final, what has ended long ago is of no use however good it was.
            if (root == null && newest - node.seconds() > LONGEST_SECONDS) {
                continue;
            }
            for (Way way : node.ways) {
                if (best == null || way.score >= best.score) {
                    best = way;
                }
            }
        }
        return best;
    }

    /**
     * The best run by now, while nothing is final.
     *
     * @param nowSeconds up to when all candidates have been added
     * @param most of them, the newest
     */
    List<Candidate> newest(double nowSeconds, int most) {
        LinkedList<Candidate> run = new LinkedList<>();
        Way way = best();
        while (way != null && run.size() < most) {
            if (!run.isEmpty() || nowSeconds - way.node.seconds() >= SETTLED * usual(way)) {
                run.addFirst(way.node.candidate);
            }
            way = way.before;
        }
        return run;
    }

    /** @return the candidates from one moment to another, ends left out, that are kept in mind */
    List<Candidate> between(double from, double to) {
        List<Candidate> found = new ArrayList<>();
        for (int i = pending.size() - 1; i >= 0 && pending.get(i).seconds() > from; i--) {
            if (pending.get(i).seconds() < to) {
                found.add(pending.get(i).candidate);
            }
        }
        Collections.reverse(found);
        return found;
    }

    /** Makes final what is old enough. @param nowSeconds up to when all candidates have been added */
    void settle(double nowSeconds) {
        while (root != null) {
            Way last = best();
            if (last == null || !(last.score > 0)) {
                return;
            }
            Way first = last;
            while (first.before != null && first.before != root) {
                first = first.before;
            }
            boolean followed = first != last && nowSeconds - first.node.seconds() > 1.5 * usual(last);
            if (nowSeconds - last.node.seconds() < SETTLED * usual(last) && !followed) {
                return;
            }
            int index = pending.indexOf(first.node);
            List<Candidate> passed = new ArrayList<>();
            for (int i = 0; i < index; i++) {
                passed.add(pending.get(i).candidate);
            }
            double interval = Double.isNaN(first.interval) ? root.interval : first.interval;
            fix(first.node.candidate, interval);
            chosen.accept(first.node.candidate, passed);
        }
    }

    private static double usual(Way way) {
        return Double.isNaN(way.interval) ? UNKNOWN_INTERVAL : way.interval;
    }

    void clear() {
        pending.clear();
        root = null;
    }
}
