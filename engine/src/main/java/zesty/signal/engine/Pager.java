package zesty.signal.engine;

import java.util.ArrayDeque;
import java.util.Deque;
import zesty.signal.core.text.Messages;

/**
 * Works out the pages of a long take that are looked at, the newest wish first, on a thread of its own. A wish that is
 * older than a screen's worth is forgotten: who still looks there wishes again.
 */
final class Pager implements AutoCloseable {
    private static final int MOST_WISHES = 256;
    private static final int REST_MILLIS = 1000;

    private record Wish(PagedSeries series, int page) {}

    private final Deque<Wish> wishes = new ArrayDeque<>();
    private Thread thread;
    private boolean over;
    private volatile String trouble = "";

    synchronized void want(PagedSeries series, int page) {
        if (over) {
            return;
        }
        Wish wish = new Wish(series, page);
        wishes.remove(wish);
        wishes.addLast(wish);
        if (wishes.size() > MOST_WISHES) {
            wishes.removeFirst();
        }
        if (thread == null) {
            thread = new Thread(this::work, "pages of a take");
            thread.setDaemon(true);
            thread.start();
        }
        notifyAll();
    }

    private void work() {
        while (true) {
            Wish wish;
            synchronized (this) {
                while (wishes.isEmpty() && !over) {
                    try {
                        wait();
                    } catch (InterruptedException e) {
                        return;
                    }
                }
                if (over) {
                    return;
                }
                wish = wishes.removeLast();
            }
            try {
                if (!wish.series().holds(wish.page())) {
                    wish.series().make(wish.page());
                }
            } catch (RuntimeException | OutOfMemoryError e) {
                trouble = e instanceof OutOfMemoryError
                        ? Messages.of("engine.a-part-of-it-is-not-drawn-memory")
                        : Messages.of("engine.a-part-of-it-is-not-drawn", e);
                rest();
            }
        }
    }

    /** Whoever looks there wishes again at once. */
    private static void rest() {
        try {
            Thread.sleep(REST_MILLIS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** @return what could not be worked out last, in words; empty when all could */
    String trouble() {
        return trouble;
    }

    @Override
    public void close() {
        Thread running;
        synchronized (this) {
            over = true;
            wishes.clear();
            notifyAll();
            running = thread;
        }
        if (running != null && running != Thread.currentThread()) {
            try {
                // What it is at reads from the take, which is closed next.
                running.join();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }
    }
}
