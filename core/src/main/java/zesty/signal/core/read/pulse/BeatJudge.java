package zesty.signal.core.read.pulse;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.List;
import java.util.function.DoubleConsumer;

/**
 * Decides which of the chosen candidates are beats. At first, and again after it lost them, it waits for a run that is
 * as even as noise never is: a short one must be nearly perfect, a longer one may be worse ({@link Run}). From then on
 * a candidate is a beat if it stands out as much as beats do; its shape speaks to how sure it is. Where the rhythm leaves
 * a hole, a lower one that was passed over is taken after all (search-back, as in J. Pan and W. J. Tompkins 1985). What
 * beats look like is remembered over a loss.
 */
final class BeatJudge {
    private static final double SCALE_SECONDS = 5;
    /** The height of a beat before any is known is that of the fourth highest candidate in {@link #SCALE_SECONDS}. */
    private static final int SCALE_RANK = 4;

    /** After such a change of it, as a share, all that waits is weighed anew. */
    private static final double SCALE_CHANGE = 0.1;

    /** Where no beat is known, candidates so high are told as turned away, as a share of what a beat would be. */
    private static final double WORTH_TELLING = 0.8;

    /** So long a candidate waits for a run that it may belong to, in s. */
    private static final double WAITING_SECONDS = 30;

    private static final double HOLE = 1.4;

    /** Bumps of middling height, neither noise nor beats, are below this share of the usual one and above the next. */
    private static final double MIDDLING_HEIGHT = 0.65;

    private static final double NOISE_HEIGHT = 0.12;

    /** From beat to beat in a row it takes so many intervals at most. */
    private static final double LONGEST_NORMAL = 1.75;

    /** A pause of so many intervals says nothing of the rhythm. */
    private static final double LONGEST_PAUSE = 3;
    /** What follows a beat within this is its own second hump or T wave, in s. */
    private static final double OWN_SECONDS = 0.45;

    /** A step of the contact stands as far above the level around it as below, within this share. */
    private static final double NO_STEP = 0.1;

    /** Without a beat for so long, or so many intervals, it is lost: taps spoil an optical one, pauses are no loss. */
    private static final double LOST_SECONDS = 2.2;

    private static final double LOST_INTERVALS = 2.6;
    private static final double ELECTRICAL_LOST_SECONDS = 3.2;
    /** How often a pulse is looked for while none is followed; the search costs more than all else. */
    private static final double LOOK_SECONDS = 0.1;

    /** After so many beats in a row that have their like behind them, not before them, they are second humps. */
    private static final int SECOND_HUMPS = 3;

    private static final int MEMORY = 8;
    /** After so many shaky beats among the newest {@link #MEMORY} it is taken for lost. */
    private static final int MOST_SHAKY = 5;

    private final PulseSource source;
    private final DoubleConsumer usualHeight;
    private final BeatLooks looks;
    private final FreeRhythm rhythm = new FreeRhythm();
    private final SearchBack search;
    private final BeatPath path;
    private final BeatLog log = new BeatLog();
    private final Between between = new Between();
    private final ArrayDeque<Candidate> seen = new ArrayDeque<>();
    private final ArrayDeque<Candidate> waiting = new ArrayDeque<>();
    private double firstSeen = Double.NaN;
    private Candidate tested;
    private double nextLook = Double.NEGATIVE_INFINITY;
    private double weighedBy;

    private boolean locked;
    private double lastBeat = Double.NaN;
    private double lastHeight;
    private int secondHumps;
    private final HalfPace halfPace = new HalfPace();

    private boolean lastSure;
    private boolean disturbed;
    private final Flags shaky = new Flags(MEMORY);

    /** @param usualHeight told how high a beat usually is whenever that changes, 0 when it is not known */
    BeatJudge(PulseSource source, DoubleConsumer usualHeight) {
        this.source = source;
        this.usualHeight = usualHeight;
        looks = new BeatLooks(source, usualHeight);
        search = new SearchBack(source, looks, rhythm, this);
        path = new BeatPath(candidate -> looks.worth(candidate, locked, weighedBy), this::chosen);
    }

    BeatLog log() {
        return log;
    }

    /** @return whether a pulse is followed now */
    boolean locked() {
        return locked;
    }

    /** @return the usual interval between beats now, in s; NaN before there is one */
    double intervalSeconds() {
        return path.intervalSeconds();
    }

    /** @param nowSeconds up to when all candidates have been told */
    void accept(Candidate candidate, double nowSeconds) {
        if (Double.isNaN(firstSeen)) {
            firstSeen = candidate.seconds();
        }
        seen.addLast(candidate);
        between.add(candidate);
        while (candidate.seconds() - seen.getFirst().seconds() > SCALE_SECONDS) {
            seen.removeFirst();
        }
        waiting.addLast(candidate);
        while (candidate.seconds() - waiting.getFirst().seconds() > WAITING_SECONDS) {
            turnAway(waiting.removeFirst());
        }
        double scale = scale();
        if (!locked && Math.abs(scale - weighedBy) > SCALE_CHANGE * weighedBy) {
            weighedBy = scale;
            path.weighAnew();
        }
        path.add(candidate);
        advance(nowSeconds);
    }

    /** Time goes on without a candidate. */
    void advance(double nowSeconds) {
        if (locked) {
            path.settle(nowSeconds);
            if (locked && nowSeconds - lastBeat > lostAfter()) {
                lose();
            }
        } else if (!waiting.isEmpty()) {
            gather(nowSeconds);
        }
    }

    /**
     * @param nowSeconds up to when all candidates have been told
     * @return how long nothing like a beat has been seen, in usual intervals; 0 while no pulse is followed
     */
    double quietIntervals(double nowSeconds) {
        if (!locked) {
            return 0;
        }
        double last = lastBeat;
        for (Candidate one : waiting) {
            last = one.height() > 0.5 * looks.usual() ? Math.max(last, one.seconds()) : last;
        }
        return (nowSeconds - last) / path.intervalSeconds();
    }

    private double lostAfter() {
        double interval = path.intervalSeconds();
        return source == PulseSource.ELECTRICAL
                ? Math.max(ELECTRICAL_LOST_SECONDS, Double.isNaN(interval) ? 0 : ELECTRICAL_LOST_SECONDS * interval)
                : Math.max(LOST_SECONDS, Double.isNaN(interval) ? 0 : LOST_INTERVALS * interval);
    }

    /** The record is over: what waits is decided. */
    void finish() {
        advance(Double.POSITIVE_INFINITY);
        waiting.forEach(this::turnAway);
        waiting.clear();
    }

    /** The signal stops here and goes on later. */
    void gap() {
        finish();
        lose();
        path.clear();
        seen.clear();
        firstSeen = Double.NaN;
        weighedBy = 0;
    }

    private void lose() {
        locked = false;
        rhythm.lose();
        halfPace.lose();
        path.free();
        weighedBy = 0;
        usualHeight.accept(0);
        tested = null;
        lastBeat = Double.NaN;
        shaky.clear();
    }

    private void turnAway(Candidate candidate) {
        if (candidate.height() >= WORTH_TELLING * (locked ? looks.usual() : scale())) {
            log.reject(candidate.seconds());
        }
    }

    private double scale() {
        if (seen.isEmpty()) {
            return 0;
        }
        double[] sorted = seen.stream().mapToDouble(Candidate::height).sorted().toArray();
        // A beat comes about every 1.2 s: at the beginning fewer than four have come.
        double since = seen.getLast().seconds() - firstSeen;
        int rank = (int) Math.max(1, Math.min(SCALE_RANK, Math.ceil(since / 1.2)));
        return sorted[Math.max(0, sorted.length - rank)];
    }

    private void chosen(Candidate candidate, List<Candidate> passed) {
        Candidate first = source == PulseSource.OPTICAL ? firstHump(candidate, passed) : null;
        if (first != null) {
            judge(first);
            path.restart(first, path.intervalSeconds());
        } else {
            boolean missed = halfPace.is(lastBeat, candidate, passed, looks);
            search.fill(candidate, passed);
            rhythm.beat(passed.stream()
                    .anyMatch(one -> one.seconds() > lastBeat + OWN_SECONDS
                            && one.height() > NOISE_HEIGHT * looks.usual()
                            && one.height() < MIDDLING_HEIGHT * looks.usual()));
            judge(candidate);
            if (missed && locked) {
                path.restart(candidate, path.intervalSeconds() / 2);
            }
        }
        while (!waiting.isEmpty() && waiting.getFirst().seconds() <= candidate.seconds()) {
            waiting.removeFirst();
        }
    }

    /** @return the first hump passed over, once it is clear that the second ones are being taken; else null */
    private Candidate firstHump(Candidate candidate, List<Candidate> passed) {
        Candidate hump = null;
        for (Candidate one : passed) {
            boolean like = one.height() > 0.65 * looks.usual()
                    && looks.likeness(one) > 0.75
                    && one.seconds() - lastBeat > 0.53 * (candidate.seconds() - lastBeat);
            hump = like ? one : hump;
        }
        boolean even = candidate.seconds() - lastBeat < HOLE * path.intervalSeconds();
        secondHumps = hump != null && even ? secondHumps + 1 : 0;
        if (secondHumps < SECOND_HUMPS) {
            return null;
        }
        secondHumps = 0;
        disturbed = true;
        return hump;
    }

    private void gather(double nowSeconds) {
        if (nowSeconds < nextLook) {
            return;
        }
        nextLook = nowSeconds + LOOK_SECONDS;
        List<Candidate> run = path.newest(nowSeconds, Run.LONGEST);
        if (run.isEmpty() || run.get(run.size() - 1) == tested) {
            return;
        }
        tested = run.get(run.size() - 1);
        List<Candidate> believed = Run.believable(source, run, path::between, looks.template(), looks.usual());
        if (believed.isEmpty() && source == PulseSource.ELECTRICAL) {
            believed = EarlyInTurn.believable(waiting, scale());
        }
        if (believed.isEmpty()) {
            return;
        }
        if (source == PulseSource.OPTICAL) {
            believed = Run.firstHumps(believed, path::between);
        }
        looks.learnAnew(believed);
        locked = true;
        lastBeat = Double.NaN;
        disturbed = false;
        lastSure = false;
        log.newStretch();
        List<Candidate> early = new ArrayList<>(search.before(believed, waiting));
        if (source == PulseSource.OPTICAL && Run.beginsWithSecondHump(early, believed, path::between)) {
            // The beat it belongs to came before the record began.
            if (early.isEmpty()) {
                believed = believed.subList(1, believed.size());
            } else {
                early.remove(0);
            }
        }
        double last = believed.get(believed.size() - 1).seconds();
        for (Candidate one : waiting) {
            boolean taken =
                    early.contains(one) || one.seconds() >= believed.get(0).seconds();
            if (!taken && !early.isEmpty() && one.seconds() < early.get(0).seconds()) {
                turnAway(one);
            }
        }
        List<Candidate> kept = List.copyOf(waiting);
        waiting.removeIf(one -> one.seconds() <= last);
        path.fix(believed.get(believed.size() - 1), (last - believed.get(0).seconds()) / (believed.size() - 1));
        Candidate before = null;
        for (Candidate one : early) {
            if (before != null) {
                search.fill(one, between(kept, before, one));
            }
            judge(one);
            before = one;
        }
        if (before != null) {
            search.fill(believed.get(0), between(kept, before, believed.get(0)));
        }
        believed.forEach(this::judge);
        path.settle(last);
    }

    private static List<Candidate> between(List<Candidate> all, Candidate from, Candidate to) {
        return all.stream()
                .filter(c -> c.seconds() > from.seconds() && c.seconds() < to.seconds())
                .toList();
    }

    /** @return when the last beat was, in s; NaN before the first */
    double lastBeat() {
        return lastBeat;
    }

    /** @return its height, in usual ones */
    double lastHeight() {
        return lastHeight;
    }

    /** Something stands in the way that is no beat: the intervals about it are in doubt. */
    void disturbedBy(Candidate candidate) {
        log.reject(candidate.seconds());
        disturbed = true;
    }

    /** Decides on a candidate that the rhythm wants. */
    void judge(Candidate candidate) {
        double alike = looks.likeness(candidate);
        double h = candidate.height() / looks.usual();
        boolean beat;
        boolean sure;
        // A beat that is far less like the others than they are is not sure, and its intervals do not count.
        boolean usualShape = alike > looks.usualLikeness() - 0.3;
        if (source == PulseSource.OPTICAL) {
            beat = alike > 0.5 && h > 0.33 && h < 2.2;
            sure = beat && alike > 0.65 && usualShape && h > 0.5 && h < 1.6;
        } else {
            beat = h > 0.27 && candidate.floor() < 0.65 && (alike > 0.75 && h < 2 || h < 1.25);
            // One of another shape is as sure where it stands clear of all around it and is no step of the contact.
            boolean clear = h < 1.3 && candidate.floor() < 0.3 && Math.abs(candidate.upright()) > NO_STEP;
            sure = beat && h < 1.6 && (usualShape && candidate.floor() < 0.5 || clear);
        }
        shaky.add(!sure);
        if (!beat) {
            disturbedBy(candidate);
        } else {
            double apart = candidate.seconds() - lastBeat;
            boolean one = apart < LONGEST_NORMAL * path.intervalSeconds();
            Between.Bump bump =
                    one ? between.highest(lastBeat, candidate.seconds(), looks.usual()) : Between.Bump.UNKNOWN;
            log.add(candidate, Math.max(0, alike), !disturbed && sure && lastSure && one, bump);
            if (apart < LONGEST_PAUSE * path.intervalSeconds()) {
                rhythm.interval(apart);
            }
            lastBeat = candidate.seconds();
            lastHeight = h;
            looks.alike(alike);
            // After a disturbance the first beat ends it; intervals count from the next one on.
            lastSure = sure && !disturbed;
            disturbed = false;
            if (sure && alike > 0.6) {
                looks.remember(candidate);
            }
        }
        if (shaky.count() >= MOST_SHAKY) {
            giveUp();
        }
    }

    /** What was taken for beats lately is none: the newest ones that were not sure are withdrawn. */
    private void giveUp() {
        log.withdraw(Math.min(shaky.run(), log.count()));
        lose();
    }
}
