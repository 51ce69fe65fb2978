package zesty.signal.engine;

import java.io.BufferedReader;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStreamWriter;
import java.net.URISyntaxException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import zesty.signal.boards.link.Watchdog;
import zesty.signal.core.text.Messages;

/** The program's end of its watchdog: a process that outlives it for a moment. Any thread. */
final class WatchdogProcess implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(WatchdogProcess.class);
    /** Set by an installed program, which has no Java command of its own beside it. */
    private static final String INSTALLED = "jpackage.app-path";

    private static final long END_MS = 500;

    private final Process process;
    private final BufferedWriter to;
    private final Set<String> held = ConcurrentHashMap.newKeySet();
    private final Map<String, String> refused = new ConcurrentHashMap<>();
    private final Consumer<String> madeSafe;
    private volatile boolean broken;
    private long beatNanos;

    /** @param madeSafe hears, on a thread of its own, of an output that the watchdog made safe because this program stood still */
    private WatchdogProcess(Process process, Consumer<String> madeSafe) {
        this.process = process;
        this.madeSafe = madeSafe;
        to = new BufferedWriter(new OutputStreamWriter(process.getOutputStream(), StandardCharsets.UTF_8));
        Thread listener = new Thread(this::listen, "watchdog");
        listener.setDaemon(true);
        listener.start();
    }

    /** @throws IOException when it does not start */
    static WatchdogProcess start(Consumer<String> madeSafe) throws IOException {
        ProcessBuilder builder = new ProcessBuilder(command());
        builder.redirectError(ProcessBuilder.Redirect.DISCARD);
        return new WatchdogProcess(builder.start(), madeSafe);
    }

    private static List<String> command() throws IOException {
        Path java = Path.of(System.getProperty("java.home"), "bin", "java");
        if (!Files.isExecutable(java)) {
            String installed = System.getProperty(INSTALLED);
            if (installed == null) {
                throw new IOException("no Java command is at " + java);
            }
            return List.of(installed, "watchdog");
        }
        try {
            String classes = Path.of(Watchdog.class
                            .getProtectionDomain()
                            .getCodeSource()
                            .getLocation()
                            .toURI())
                    .toString();
            // It needs no more than that, and it starts the sooner.
            List<String> words = new ArrayList<>(List.of(java.toString(), "-Xmx16m", "-XX:+UseSerialGC"));
            words.addAll(List.of("-XX:TieredStopAtLevel=1", "-Xshare:auto", "-cp", classes, Watchdog.class.getName()));
            return words;
        } catch (URISyntaxException e) {
            throw new IOException(e);
        }
    }

    private void listen() {
        try (BufferedReader from =
                new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8))) {
            for (String line = from.readLine(); line != null; line = from.readLine()) {
                String[] words = Watchdog.words(line);
                String name = words.length > 1 ? words[1] : "";
                if (words[0].equals("held")) {
                    refused.remove(name);
                    held.add(name);
                } else if (words[0].equals("not")) {
                    held.remove(name);
                    refused.put(name, words.length > 2 ? words[2] : "");
                } else if (words[0].equals("safe")) {
                    madeSafe.accept(name);
                }
            }
        } catch (IOException e) {
            LOG.warn("the watchdog cannot be heard", e);
        }
        broken = true;
    }

    private synchronized void say(String... words) {
        try {
            to.write(Watchdog.line(words) + "\n");
            to.flush();
        } catch (IOException e) {
            broken = true;
        }
    }

    /** It is to hold a port, and know the line that makes an output on it safe. */
    void hold(String output, String port, String safe) {
        say("hold", output, port, safe);
    }

    void on(String output) {
        say("on", output);
    }

    void off(String output) {
        say("off", output);
    }

    /** Tells that this program is alive and decides. */
    void beat(long nanos) {
        if (nanos - beatNanos >= TimeUnit.MILLISECONDS.toNanos(Watchdog.BEAT_MS)) {
            beatNanos = nanos;
            say("beat");
        }
    }

    /** @return whether it stands by for an output */
    boolean holds(String output) {
        return !broken && held.contains(output);
    }

    /** @return why it does not hold an output's port; empty where it does, or has not said yet */
    String refusal(String output) {
        return broken ? Messages.of("engine.the-watchdog-has-ended") : refused.getOrDefault(output, "");
    }

    boolean isBroken() {
        return broken || !process.isAlive();
    }

    /** It makes safe what is still on, and goes. Waits a moment. */
    @Override
    public void close() {
        try {
            to.close();
        } catch (IOException e) {
            LOG.warn("the watchdog cannot be told to end", e);
        }
        try {
            if (!process.waitFor(END_MS, TimeUnit.MILLISECONDS)) {
                process.destroy();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
