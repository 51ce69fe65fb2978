package zesty.signal.engine;

import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import zesty.signal.core.sample.Block;

/** How much may wait between two threads, in values of 8 bytes: a share of the memory there is, however it comes. */
final class QueueBudget {
    private static final int VALUES =
            (int) Math.max(100_000, Math.min(8_000_000, Runtime.getRuntime().maxMemory() / 8 / 12));
    private static final long WAIT_MS = 100;

    private final Semaphore free = new Semaphore(VALUES);

    /** @return what a block takes; never more than half of all, or one alone could wait for ever */
    static int of(Block block) {
        long pixels = block.frames() == null || block.rows() == 0 ? 0 : block.frames()[0].length;
        return (int) Math.min(VALUES / 2, block.rows() * (block.columns().length + 1 + pixels));
    }

    /** @return so much that what was gathered should be handed on */
    static int much() {
        return VALUES / 2;
    }

    /**
     * @param mayWait whether to wait until there is room
     * @param goOn asked while waiting; false gives up
     * @return whether there was room; it is taken until {@link #release}
     */
    boolean take(int values, boolean mayWait, BooleanSupplier goOn) throws InterruptedException {
        boolean fits = free.tryAcquire(values);
        while (!fits && mayWait && goOn.getAsBoolean()) {
            fits = free.tryAcquire(values, WAIT_MS, TimeUnit.MILLISECONDS);
        }
        return fits;
    }

    void release(int values) {
        free.release(values);
    }
}
