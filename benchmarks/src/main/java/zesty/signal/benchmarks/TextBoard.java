package zesty.signal.benchmarks;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.locks.LockSupport;
import java.util.function.LongFunction;

/** Serves text lines at a steady rate to one client on this machine. */
final class TextBoard implements AutoCloseable {
    private final ServerSocket server;
    private final Thread thread;
    private volatile boolean stopping;

    /**
     * @param linesPerSecond how fast
     * @param most lines in all
     * @param line the text of a line, its ending included
     */
    TextBoard(double linesPerSecond, long most, LongFunction<String> line) throws IOException {
        server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
        thread = new Thread(() -> serve(linesPerSecond, most, line), "text board");
        thread.setDaemon(true);
        thread.start();
    }

    int port() {
        return server.getLocalPort();
    }

    void join() throws InterruptedException {
        thread.join();
    }

    private void serve(double linesPerSecond, long most, LongFunction<String> line) {
        try (Socket client = server.accept();
                OutputStream out = new BufferedOutputStream(client.getOutputStream(), 1 << 16)) {
            client.setTcpNoDelay(true);
            long start = System.nanoTime();
            long sent = 0;
            while (!stopping && sent < most) {
                long due = Math.min(most, (long) ((System.nanoTime() - start) * 1e-9 * linesPerSecond));
                if (due <= sent) {
                    LockSupport.parkNanos(1_000_000);
                    continue;
                }
                for (; sent < due; sent++) {
                    out.write(line.apply(sent).getBytes(StandardCharsets.US_ASCII));
                }
                out.flush();
            }
        } catch (IOException e) {
            System.err.println("text board: " + e.getMessage());
        }
    }

    @Override
    public void close() throws IOException {
        stopping = true;
        server.close();
    }
}
