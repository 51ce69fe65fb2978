package zesty.signal.boards.link;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;

/**
 * A process of its own that makes outputs safe when the program that drives them is killed or stands still. It holds the ports
 * itself, hears a beat ten times a second on its standard input, and writes the safe lines of all outputs that are on when the
 * beat stays away or the input ends. What it did it says on its standard output.
 *
 * <p>Words of a line are parted by tabs and written as in addresses of the web: {@code hold NAME PORT LINE}, {@code on NAME},
 * {@code off NAME}, {@code beat}; said are {@code held NAME}, {@code not NAME WHY}, {@code safe NAME}.
 */
public final class Watchdog {
    /** The program beats so often. */
    public static final long BEAT_MS = 100;
    /** Without a beat for so long it stands still; with the writing this stays within a second. */
    public static final long FROZEN_MS = 600;

    private static final long AGAIN_MS = 200;
    private static final int TIMES = 3;

    private final BlockingQueue<String> heard = new LinkedBlockingQueue<>();
    private final Map<String, Held> outputs = new LinkedHashMap<>();

    private static final class Held {
        final String port;
        final byte[] line;
        OutputStream open;
        boolean on;

        Held(String port, byte[] line) {
            this.port = port;
            this.line = line;
        }

        /** A port that went away must not come to be as a plain file in its place. */
        static OutputStream opened(String port) throws IOException {
            return Files.newOutputStream(Path.of(port), StandardOpenOption.WRITE);
        }

        /** A port that went away is opened anew. */
        void write() throws IOException {
            try {
                if (open == null) {
                    open = opened(port);
                }
                open.write(line);
                open.flush();
            } catch (IOException e) {
                if (open != null) {
                    open.close();
                }
                open = null;
                throw e;
            }
        }
    }

    private Watchdog() {}

    public static void main(String[] arguments) throws InterruptedException {
        new Watchdog().run();
    }

    /** @return the words as a line of its language */
    public static String line(String... words) {
        StringBuilder line = new StringBuilder();
        for (String word : words) {
            line.append(line.length() == 0 ? "" : "\t").append(URLEncoder.encode(word, StandardCharsets.UTF_8));
        }
        return line.toString();
    }

    /** @return the words of such a line */
    public static String[] words(String line) {
        String[] words = line.split("\t", -1);
        for (int i = 0; i < words.length; i++) {
            words[i] = URLDecoder.decode(words[i], StandardCharsets.UTF_8);
        }
        return words;
    }

    private void listen() {
        try (BufferedReader in = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8))) {
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                heard.add(line);
            }
        } catch (IOException e) {
            // As good as its end.
        }
        heard.add("gone");
    }

    private void run() throws InterruptedException {
        Thread listener = new Thread(this::listen, "listener");
        listener.setDaemon(true);
        listener.start();
        while (true) {
            String line = heard.poll(FROZEN_MS, TimeUnit.MILLISECONDS);
            String[] words = words(line == null ? "" : line);
            if (line == null) {
                safe();
            } else if (words[0].equals("gone")) {
                safe();
                return;
            } else if (words[0].equals("hold") && words.length == 4) {
                hold(words[1], words[2], words[3]);
            } else if (words[0].equals("on") && words.length == 2 && outputs.containsKey(words[1])) {
                outputs.get(words[1]).on = true;
            } else if (words[0].equals("off") && words.length == 2 && outputs.containsKey(words[1])) {
                outputs.get(words[1]).on = false;
            }
        }
    }

    private void hold(String name, String port, String line) {
        Held held = new Held(port, line.getBytes(StandardCharsets.UTF_8));
        Held before = outputs.put(name, held);
        held.on = before != null && before.on;
        try {
            held.open = before != null && before.port.equals(port) ? before.open : null;
            if (held.open == null) {
                held.open = Held.opened(port);
            }
            say("held", name);
        } catch (IOException e) {
            say("not", name, Reasons.of(e));
        }
    }

    /** What could not be written is tried again a few times. */
    private void safe() throws InterruptedException {
        for (int time = 0; time < TIMES && outputs.values().stream().anyMatch(one -> one.on); time++) {
            if (time > 0) {
                Thread.sleep(AGAIN_MS);
            }
            outputs.forEach((name, held) -> {
                if (held.on) {
                    try {
                        held.write();
                        held.on = false;
                        say("safe", name);
                    } catch (IOException e) {
                        say("not", name, Reasons.of(e));
                    }
                }
            });
        }
    }

    private static void say(String... words) {
        System.out.println(line(words));
        System.out.flush();
    }
}
