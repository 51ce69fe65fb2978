package zesty.signal.engine;

import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.rig.Rig;

/** What waits for the trail's thread, of bounded size: filled by the sources' threads and others, emptied by that one. */
final class TrailQueue {
    private static final int LONGEST = 4096;
    private static final long PUT_MS = 100;
    private static final long POLL_MS = 50;

    sealed interface Order {
        record Format(Feed feed, StreamFormat format) implements Order {}

        record Data(Feed feed, Feed.Data data) implements Order {}

        record Change(Rig rig) implements Order {}

        record Over(Feed feed) implements Order {}

        /** Something to be done with what is decided and driven. */
        record Act(Runnable what) implements Order {}
    }

    private final BlockingQueue<Order> queue = new ArrayBlockingQueue<>(LONGEST);
    private final QueueBudget room = new QueueBudget();
    private final BooleanSupplier goOn;

    /** @param goOn whether anybody still empties it: asked while waiting for room */
    TrailQueue(BooleanSupplier goOn) {
        this.goOn = goOn;
    }

    /** Waits for room. */
    void put(Order order) {
        try {
            while (goOn.getAsBoolean() && !queue.offer(order, PUT_MS, TimeUnit.MILLISECONDS)) {
                Thread.onSpinWait();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** Hands rows on; of a source that may not be held up, those without room are counted as overrun. */
    void hand(Feed feed, Feed.Data data) {
        Order order = new Order.Data(feed, data);
        int size = QueueBudget.of(data.block());
        boolean mayWait = feed.reader().holdsUp();
        try {
            if (room.take(size, mayWait, goOn)) {
                if (queue.offer(order)) {
                    return;
                }
                if (mayWait) {
                    put(order);
                    return;
                }
                room.release(size);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        feed.reader().overran(data.block().rows());
    }

    /** The trail's thread. @return what waited longest; null when nothing came for a moment */
    Order next() throws InterruptedException {
        Order order = queue.poll(POLL_MS, TimeUnit.MILLISECONDS);
        if (order instanceof Order.Data data) {
            room.release(QueueBudget.of(data.data().block()));
        }
        return order;
    }

    boolean isEmpty() {
        return queue.isEmpty();
    }

    void clear() {
        queue.clear();
    }
}
