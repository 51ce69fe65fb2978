package zesty.signal.engine;

import java.util.concurrent.CancellationException;
import java.util.function.DoublePredicate;

/** Tells how far some work is; giving it up ends it by a {@link CancellationException}. One thread. */
final class Progress {
    private final DoublePredicate goOn;
    private double farthest;

    /** @param goOn hears how far the work is, 0 … 1, and says whether to go on */
    Progress(DoublePredicate goOn) {
        this.goOn = goOn;
    }

    /** @return of work that nobody waits for */
    static Progress untold() {
        return new Progress(share -> true);
    }

    /** @param share of one source or line where there are several: what was told is never taken back */
    void at(double share) {
        farthest = Math.max(farthest, share);
        if (!goOn.test(farthest)) {
            throw new CancellationException();
        }
    }
}
