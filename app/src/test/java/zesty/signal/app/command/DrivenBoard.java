package zesty.signal.app.command;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import zesty.signal.boards.link.LinkException;
import zesty.signal.boards.link.SimulatedLink;
import zesty.signal.boards.sim.SimulatedBoards;

/** The simulated cupboard at the far end of a cable: two pseudo-terminals, and a board that notes what it was told and when. */
final class DrivenBoard implements AutoCloseable {
    /** A line that came. */
    record Heard(String line, long nanos) {}

    private final Path folder;
    private final SimulatedLink board = new SimulatedLink(SimulatedBoards.create("cupboard", 1), 1);
    final List<Heard> heard = new CopyOnWriteArrayList<>();
    private volatile boolean silent;
    private volatile long silentNanos;
    private Process cable;

    DrivenBoard(Path folder) throws IOException, InterruptedException, LinkException {
        this.folder = folder;
        board.open();
        plug();
    }

    /** @return its address for the program */
    String address() {
        return "serial:" + folder.resolve("computer") + "@115200";
    }

    void plug() throws IOException, InterruptedException {
        Path here = folder.resolve("board");
        Path there = folder.resolve("computer");
        cable = new ProcessBuilder("socat", "pty,raw,echo=0,link=" + here, "pty,raw,echo=0,b115200,link=" + there)
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start();
        while (!(Files.exists(here) && Files.exists(there))) {
            TimeUnit.MILLISECONDS.sleep(10);
        }
        InputStream in = Files.newInputStream(here);
        OutputStream out = Files.newOutputStream(here, StandardOpenOption.WRITE);
        start(() -> say(out));
        start(() -> hear(in));
    }

    private static void start(Runnable what) {
        Thread thread = new Thread(what, "board");
        thread.setDaemon(true);
        thread.start();
    }

    /** Pulls the cable out; both ends go. */
    void unplug() throws IOException {
        cable.destroy();
        cable.onExit().join();
        Files.deleteIfExists(folder.resolve("board"));
        Files.deleteIfExists(folder.resolve("computer"));
    }

    /** From here on it sends nothing, though it still hears. */
    void fallSilent() {
        silent = true;
        silentNanos = System.nanoTime();
    }

    long silentNanos() {
        return silentNanos;
    }

    private void say(OutputStream out) {
        byte[] buffer = new byte[4096];
        try (out) {
            while (cable.isAlive()) {
                int count = board.read(buffer);
                if (count > 0 && !silent) {
                    out.write(buffer, 0, count);
                    out.flush();
                }
            }
        } catch (IOException e) {
            // The cable is out.
        }
    }

    private void hear(InputStream in) {
        StringBuilder line = new StringBuilder();
        try (in) {
            for (int c = in.read(); c >= 0; c = in.read()) {
                if (c == '\n') {
                    heard.add(new Heard(line.toString(), System.nanoTime()));
                    board.write((line + "\n").getBytes(StandardCharsets.UTF_8));
                    line.setLength(0);
                } else {
                    line.append((char) c);
                }
            }
        } catch (IOException e) {
            // The cable is out.
        }
    }

    /** Waits until it has been told so from there on. @return when that line came, by the steady clock */
    long until(String wanted, int from) throws InterruptedException {
        for (int i = 0; i < 6000; i++) {
            for (int at = from; at < heard.size(); at++) {
                if (heard.get(at).line().equals(wanted)) {
                    return heard.get(at).nanos();
                }
            }
            TimeUnit.MILLISECONDS.sleep(5);
        }
        throw new AssertionError("'" + wanted + "' never came; heard " + heard);
    }

    @Override
    public void close() throws IOException {
        board.close();
        unplug();
    }
}
