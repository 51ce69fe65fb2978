package zesty.signal.benchmarks;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.IntStream;
import zesty.signal.boards.sim.SimulatedBoards;
import zesty.signal.core.decode.Recogniser;
import zesty.signal.core.decode.RejectedLines;
import zesty.signal.core.decode.StreamDecoder;
import zesty.signal.takes.CsvExport;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/**
 * What fate does to takes, many times over: recordings killed at random moments, takes damaged at random places, streams
 * of rubbish. Says how often something was missing, invented or thrown; ends with 1 when anything was.
 */
public final class SoakBench {
    private static final int ROWS_A_SECOND = 2000;

    private final Path folder;
    private int faults;

    private SoakBench(Path folder) {
        this.folder = folder;
    }

    /** @param arguments how many recordings are killed, takes damaged and bytes fuzzed, a decoder */
    public static void main(String[] arguments) throws Exception {
        int kills = Integer.parseInt(arguments[0]);
        int takes = Integer.parseInt(arguments[1]);
        int bytes = Integer.parseInt(arguments[2]);
        SoakBench soak = new SoakBench(Files.createTempDirectory("zesty-soak"));
        soak.fuzz(bytes);
        soak.damage(takes);
        soak.kill(kills);
        System.exit(soak.faults == 0 ? 0 : 1);
    }

    private static void say(String words, Object... values) {
        System.out.println(String.format(Locale.ROOT, words, values));
    }

    /** Streams of each simulated board, of which every byte may be hit, through the decoder of that board. */
    private void fuzz(int bytes) throws IOException {
        int decoders = 0;
        for (SimulatedBoards.Entry entry : SimulatedBoards.all()) {
            var board = SimulatedBoards.create(entry.name(), 3);
            var out = new java.io.ByteArrayOutputStream();
            out.writeBytes(board.greeting());
            while (out.size() < bytes) {
                board.next(out);
            }
            byte[] good = out.toByteArray();
            byte[] head = Arrays.copyOf(good, Math.min(good.length, Recogniser.LOOK));
            var proposals = Recogniser.recognise(head, head.length);
            if (proposals.isEmpty()) {
                continue;
            }
            decoders++;
            Random random = new Random(entry.name().hashCode());
            for (int share : new int[] {2, 50, 1000}) {
                byte[] hit = good.clone();
                for (int i = 0; i < hit.length; i++) {
                    hit[i] = random.nextInt(share) == 0 ? (byte) random.nextInt(256) : hit[i];
                }
                StreamDecoder decoder = proposals.get(0).format().decoder(new RejectedLines(RejectedLines.KEPT));
                try {
                    for (int at = 0; at < hit.length; ) {
                        int n = Math.min(hit.length - at, 1 + random.nextInt(4096));
                        decoder.feed(hit, at, n);
                        decoder.takeRows();
                        at += n;
                    }
                } catch (RuntimeException e) {
                    faults++;
                    say("fuzz %s: %s", entry.name(), e);
                }
            }
        }
        say("fuzz: %d decoders, 3 × %d bytes each, %d faults so far", decoders, bytes, faults);
    }

    private static Map<String, String> rows(Path csv) throws IOException {
        Map<String, String> rows = new HashMap<>();
        for (String line : Files.readAllLines(csv)) {
            rows.put(line.substring(0, line.indexOf(',')), line);
        }
        return rows;
    }

    private void damage(int runs) throws Exception {
        Path good = folder.resolve("good.zest");
        Process recording = record(good.getFileName().toString());
        try (OutputStream pipe = recording.getOutputStream()) {
            send(pipe, 0, 20_000);
        }
        recording.waitFor();
        Path whole = folder.resolve("good.csv");
        try (Take take = Take.open(good)) {
            CsvExport.write(take, whole, false, share -> true);
        }
        Map<String, String> recorded = rows(whole);
        byte[] bytes = Files.readAllBytes(good);
        Random random = new Random(2026);
        int refused = 0;
        int less = 0;
        int unnoticed = 0;
        for (int run = 0; run < runs; run++) {
            byte[] hit = bytes.clone();
            for (int h = 1 + random.nextInt(run % 5 == 0 ? 300 : 5); h > 0; h--) {
                hit[random.nextInt(hit.length)] ^= (byte) (1 << random.nextInt(8));
            }
            Path hurt = folder.resolve("hurt.zest");
            Files.write(hurt, hit);
            Path csv = folder.resolve("hurt.csv");
            Files.deleteIfExists(csv);
            try (Take take = Take.open(hurt)) {
                CsvExport.write(take, csv, false, share -> true);
                boolean same = Files.mismatch(csv, whole) < 0;
                less += same ? 0 : 1;
                unnoticed += !same && (take.damage().isEmpty() || invented(recorded, rows(csv))) ? 1 : 0;
            } catch (TakeException e) {
                refused++;
            } catch (RuntimeException | Error e) {
                faults++;
                say("damage, run %d: %s", run, e);
            }
        }
        faults += unnoticed;
        say(
                "damage: %d takes, %d exported with less and said so, %d refused in words, %d wrong or unnoticed",
                runs, less - unnoticed, refused, unnoticed);
    }

    private static boolean invented(Map<String, String> recorded, Map<String, String> found) {
        boolean named = found.get("t").equals(recorded.get("t"));
        return found.entrySet().stream()
                .filter(row -> !row.getKey().equals("t"))
                .anyMatch(row -> {
                    String[] now = row.getValue().split(",", -1);
                    String was = recorded.get(row.getKey());
                    boolean empty = Arrays.stream(now).skip(1).allMatch(String::isEmpty);
                    String[] cells = was == null ? now : was.split(",", -1);
                    return !empty
                            && (was == null
                                    || named
                                            && IntStream.range(1, now.length)
                                                    .anyMatch(c -> !now[c].isEmpty() && !now[c].equals(cells[c])));
                });
    }

    private Process record(String name) throws IOException {
        return new ProcessBuilder(List.of(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Xmx128m",
                        "-XX:+UseSerialGC",
                        "-XX:TieredStopAtLevel=1",
                        "-cp",
                        System.getProperty("java.class.path"),
                        "zesty.signal.app.Zesty",
                        "record",
                        "stdin",
                        "--out",
                        name))
                .directory(folder.toFile())
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
    }

    private static void send(OutputStream pipe, long from, int count) throws IOException {
        StringBuilder text = new StringBuilder();
        for (long i = from; i < from + count; i++) {
            text.append(i).append(',').append(i % 1021).append('\n');
        }
        pipe.write(text.toString().getBytes(StandardCharsets.US_ASCII));
        pipe.flush();
    }

    private void kill(int runs) throws Exception {
        Random random = new Random(7);
        int withTake = 0;
        double longest = 0;
        for (int run = 0; run < runs; run++) {
            Path file = folder.resolve("kill" + run + ".zest");
            Process recording = record(file.getFileName().toString());
            AtomicLong sent = new AtomicLong();
            double[] at = new double[1 << 16];
            long start = System.nanoTime();
            double life = 0.3 + 3 * random.nextDouble();
            try (OutputStream pipe = recording.getOutputStream()) {
                while ((System.nanoTime() - start) * 1e-9 < life) {
                    long due = (long) ((System.nanoTime() - start) * 1e-9 * ROWS_A_SECOND);
                    if (due > sent.get()) {
                        send(pipe, sent.get(), (int) (due - sent.get()));
                        Arrays.fill(at, (int) sent.get(), (int) due, (System.nanoTime() - start) * 1e-9);
                        sent.set(due);
                    }
                    TimeUnit.MILLISECONDS.sleep(3);
                }
                recording.destroyForcibly().waitFor();
            } catch (IOException e) {
                // The pipe broke with the process.
            }
            double death = (System.nanoTime() - start) * 1e-9;
            if (!Files.exists(file)) {
                continue;
            }
            try (Take take = Take.open(file)) {
                withTake++;
                double[] number = take.column(0);
                for (int i = 0; i < number.length; i++) {
                    if (number[i] != i) {
                        faults++;
                        say("kill, run %d: row %d holds %s", run, i, number[i]);
                        break;
                    }
                }
                // The process needs some time to start; what it had before its death counts.
                double missing = number.length < sent.get() ? death - at[number.length] : 0;
                longest = Math.max(longest, number.length > 0 ? missing : 0);
            } catch (TakeException e) {
                if (!e.getMessage().contains("ended before the first row was kept")) {
                    faults++;
                    say("kill, run %d: %s", run, e.getMessage());
                }
            }
            Files.delete(file);
        }
        faults += longest > 1 ? 1 : 0;
        say(
                "kill: %d recordings killed, %d with a take, at most %.3f s missing, %d faults in all",
                runs, withTake, longest, faults);
    }
}
