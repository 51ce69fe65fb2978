package zesty.signal.engine;

import java.util.concurrent.TimeUnit;
import java.util.function.Predicate;

/** Waits for what a running trail must come to show. */
final class Await {
    private static final int TRIES = 2500;

    private Await() {}

    static Sight until(Trail trail, Predicate<Sight> condition) throws InterruptedException {
        for (int i = 0; i < TRIES; i++) {
            Sight sight = trail.sight(System.nanoTime());
            if (condition.test(sight)) {
                return sight;
            }
            TimeUnit.MILLISECONDS.sleep(10);
        }
        Sight last = trail.sight(System.nanoTime());
        throw new AssertionError("never came about: " + last.links() + "\n" + last.rig() + "\n" + last.strands());
    }
}
