package zesty.signal.engine;

import java.util.concurrent.TimeUnit;
import java.util.function.Predicate;

/** Waits for what a running trail must come to show. */
final class Await {
    private static final int TRIES = 6000;

    private Await() {}

    static Snapshot until(Trail trail, Predicate<Snapshot> condition) throws InterruptedException {
        for (int i = 0; i < TRIES; i++) {
            Snapshot snapshot = trail.snapshot(System.nanoTime());
            if (condition.test(snapshot)) {
                return snapshot;
            }
            TimeUnit.MILLISECONDS.sleep(10);
        }
        Snapshot last = trail.snapshot(System.nanoTime());
        throw new AssertionError("never came about: " + last.links() + "\n" + last.rig() + "\n" + last.streams());
    }
}
