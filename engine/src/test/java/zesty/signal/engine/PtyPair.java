package zesty.signal.engine;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;

/** Two pseudo-terminals joined back to back, made by socat: the board's end and the computer's end of a cable. */
final class PtyPair implements AutoCloseable {
    private final Process socat;
    final Path board;
    final Path computer;

    PtyPair(Path folder) throws IOException, InterruptedException {
        board = folder.resolve("board");
        computer = folder.resolve("computer");
        socat = new ProcessBuilder("socat", "pty,raw,echo=0,link=" + board, "pty,raw,echo=0,b115200,link=" + computer)
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start();
        for (int i = 0; i < 100 && !(Files.exists(board) && Files.exists(computer)); i++) {
            TimeUnit.MILLISECONDS.sleep(20);
        }
    }

    /** The cable carries nothing, as a slow line or a machine that has no time, until it is let go on. */
    void hold(boolean still) throws IOException, InterruptedException {
        new ProcessBuilder("kill", still ? "-STOP" : "-CONT", Long.toString(socat.pid()))
                .start()
                .waitFor();
    }

    OutputStream boardEnd() throws IOException {
        return Files.newOutputStream(board);
    }

    /** Pulls the plug: both ends go. */
    @Override
    public void close() {
        socat.destroy();
        try {
            socat.waitFor(2, TimeUnit.SECONDS);
            Files.deleteIfExists(board);
            Files.deleteIfExists(computer);
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
