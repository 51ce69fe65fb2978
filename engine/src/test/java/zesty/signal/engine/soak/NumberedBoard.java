package zesty.signal.engine.soak;

import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.Random;
import java.util.concurrent.TimeUnit;

/** A board on the network that numbers its rows, also those that it cannot send: nobody can lose one unseen. */
final class NumberedBoard implements AutoCloseable {
    private final ServerSocket door = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
    private final double rateHz;
    private final Random random;
    private final Thread work;
    private volatile boolean over;
    private volatile long unpluggedUntil;
    private volatile long silentUntil;
    private volatile long floodedUntil;
    private volatile int rubbish;
    private volatile long next;
    private volatile long first = -1;

    NumberedBoard(double rateHz, int seed) throws IOException {
        this.rateHz = rateHz;
        random = new Random(seed);
        door.setSoTimeout(100);
        work = new Thread(this::run, "board " + seed);
        work.setDaemon(true);
        work.start();
    }

    String address() {
        return "tcp:127.0.0.1:" + door.getLocalPort();
    }

    /** @return how many rows were due since somebody called first, sent or not */
    long due() {
        return next - first;
    }

    /** The plug is out for so long; what the board measures meanwhile is gone. */
    void unplug(double seconds) {
        unpluggedUntil = System.nanoTime() + Math.round(seconds * 1e9);
    }

    /** Nothing is sent for so long, and then all of it at once. */
    void stall(double seconds) {
        silentUntil = System.nanoTime() + Math.round(seconds * 1e9);
    }

    /** Rows come ten times as fast for so long. */
    void flood(double seconds) {
        floodedUntil = System.nanoTime() + Math.round(seconds * 1e9);
    }

    /** So many strange bytes come between two rows. */
    void rubbish(int bytes) {
        rubbish = bytes;
    }

    /** From now on nothing is measured: what was sent can arrive. */
    void rest() {
        silentUntil = Long.MAX_VALUE;
    }

    private void run() {
        long row = 0;
        double due = System.nanoTime();
        double boardMs = 0;
        while (!over) {
            try (Socket call = door.accept()) {
                call.setTcpNoDelay(true);
                OutputStream out = call.getOutputStream();
                out.write("seq,t_ms,level,swing\n".getBytes(StandardCharsets.UTF_8));
                first = first < 0 ? row : first;
                while (!over && System.nanoTime() >= unpluggedUntil) {
                    StringBuilder lines = new StringBuilder();
                    boolean silent = System.nanoTime() < silentUntil;
                    double rate = System.nanoTime() < floodedUntil ? 10 * rateHz : rateHz;
                    for (int i = 0; !silent && i < 2000 && due <= System.nanoTime(); i++) {
                        lines.append(row)
                                .append(',')
                                .append(Math.round(boardMs))
                                .append(',')
                                .append(500 + random.nextInt(20))
                                .append(',')
                                .append(Math.round(400 * Math.sin(row / 50.0)))
                                .append('\n');
                        row++;
                        boardMs += 1000 / rateHz;
                        due += 1e9 / rate;
                    }
                    byte[] noise = new byte[rubbish];
                    rubbish = 0;
                    random.nextBytes(noise);
                    out.write(lines.toString().getBytes(StandardCharsets.UTF_8));
                    out.write(noise);
                    next = row;
                    TimeUnit.MILLISECONDS.sleep(5);
                }
            } catch (IOException e) {
                // Nobody called, or whoever did went away.
            } catch (InterruptedException e) {
                return;
            }
            while (!over && System.nanoTime() < unpluggedUntil) {
                pause();
            }
            // It went on measuring while the plug was out.
            long missed = Math.max(0, Math.round((System.nanoTime() - due) * 1e-9 * rateHz));
            row += missed;
            boardMs += missed * 1000 / rateHz;
            due += missed * 1e9 / rateHz;
        }
    }

    private static void pause() {
        try {
            TimeUnit.MILLISECONDS.sleep(5);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @Override
    public void close() {
        over = true;
        try {
            door.close();
            work.join(2000);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
