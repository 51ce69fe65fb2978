package zesty.signal.app.show;

import com.sun.net.httpserver.HttpExchange;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.Condition;
import java.util.concurrent.locks.Lock;
import java.util.concurrent.locks.ReentrantLock;

/** One page that looks on. It has a thread of its own and the newest frame only: a slow one misses frames and holds up nobody. */
final class Viewer {
    /** The line is kept open through whatever lies between with an empty remark. */
    private static final long REMARK_SECONDS = 5;

    private final HttpExchange exchange;
    private final String address;
    private final String what;
    private final Instant since = Instant.now();
    private final Lock lock = new ReentrantLock();
    private final Condition changed = lock.newCondition();
    private String newest;
    private boolean over;
    private volatile long writingSince;

    Viewer(HttpExchange exchange, String what) {
        this.exchange = exchange;
        this.address = exchange.getRemoteAddress().getAddress().getHostAddress();
        this.what = what;
    }

    String address() {
        return address;
    }

    String what() {
        return what;
    }

    Instant since() {
        return since;
    }

    /** Takes the newest frame; one that was not sent yet is left out. Never waits for the viewer. */
    void show(String frame) {
        lock.lock();
        try {
            newest = frame;
            changed.signal();
        } finally {
            lock.unlock();
        }
    }

    /** @return for how long it has not taken what is being sent, in s */
    double stuckSeconds(long nanoTime) {
        long begun = writingSince;
        return begun == 0 ? 0 : (nanoTime - begun) * 1e-9;
    }

    /** Ends it. Any thread. */
    void end() {
        lock.lock();
        try {
            over = true;
            changed.signal();
        } finally {
            lock.unlock();
        }
        exchange.close();
    }

    /** Sends frames until it ends or the page goes. */
    void run() {
        try (OutputStream out = exchange.getResponseBody()) {
            out.write("retry: 1000\n\n".getBytes(StandardCharsets.UTF_8));
            for (String next = next(); next != null; next = next()) {
                writingSince = System.nanoTime();
                out.write(next.getBytes(StandardCharsets.UTF_8));
                out.flush();
                writingSince = 0;
            }
        } catch (IOException e) {
            // The page went.
        } finally {
            exchange.close();
        }
    }

    private String next() {
        lock.lock();
        try {
            if (newest == null && !over) {
                changed.await(REMARK_SECONDS, TimeUnit.SECONDS);
            }
            if (over) {
                return null;
            }
            String frame = newest == null ? ": still there\n\n" : "data: " + newest + "\n\n";
            newest = null;
            return frame;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return null;
        } finally {
            lock.unlock();
        }
    }
}
