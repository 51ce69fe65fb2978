package zesty.signal.engine;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import zesty.signal.core.act.Controller;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.RuleBook;
import zesty.signal.core.fixed.FixedChain;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.text.Messages;
import zesty.signal.exchange.portable.PortableRig;
import zesty.signal.exchange.portable.SourceFiles;
import zesty.signal.takes.TakeException;

/**
 * Writes what a rig decided on a channel as C, and proves it: compiles it with the compiler that is there, runs raw numbers through it
 * and holds cleaned values and decisions against the application's own.
 *
 * @param folder where the sources are. @param compiler that was used; empty where none is there, and nothing was proved
 * @param says by how much whole numbers may be off, as the same share as {@code largest}; NaN of floating point, which is exact to rounding
 * @param samples that went through. @param largest difference of a cleaned value, as a share of the largest scaled one
 * @param decisions turns of the rules. @param different rows in which a rule stood otherwise
 */
public record PortableProof(
        Path folder, String compiler, double says, int samples, double largest, int decisions, int different) {
    private static final List<String> COMPILERS = List.of("cc", "gcc", "clang");
    private static final long PATIENCE_SECONDS = 60;
    private static final int MOST_SAMPLES = 200_000;

    /**
     * Proves the code in floating point.
     *
     * @param rateHz at which the board will sample. @param raw numbers to try it with; missing ones are left out
     * @throws zesty.signal.exchange.portable.PortableException when something cannot go onto a board, naming it
     * @throws TakeException when files cannot be written, or the compiler or the program fails, saying how
     */
    public static PortableProof of(Rig rig, String column, double rateHz, double[] raw, Path folder)
            throws TakeException, InterruptedException {
        Rig stated = stated(rig, column, rateHz);
        Channel channel = channel(stated, column);
        return proved(
                stated, channel, rateHz, PortableRig.files(stated, List.of(channel)), some(raw), folder, Double.NaN);
    }

    /**
     * Proves the code in whole numbers, for a board without a float unit.
     *
     * @param raw of a column without a converter, twice the largest of them is what the code takes in at most
     * @throws zesty.signal.exchange.portable.PortableException when something cannot go onto a board so, naming it
     * @throws TakeException as {@link #of}
     */
    public static PortableProof ofFixed(Rig rig, String column, double rateHz, double[] raw, Path folder)
            throws TakeException, InterruptedException {
        Rig stated = stated(rig, column, rateHz);
        Channel channel = channel(stated, column);
        double[] some = some(raw);
        double largest = 2 * Arrays.stream(some).map(Math::abs).max().orElse(Double.NaN);
        Map<String, String> files = PortableRig.fixedFiles(stated, List.of(channel), Map.of(column, largest));
        FixedChain chain = PortableRig.chain(stated, channel, largest);
        // The proof reads the value as a float: of its 31 bits the upper 24.
        double error = chain.error() + Math.scalb(1.0, 7 - chain.outFraction());
        return proved(stated, channel, rateHz, files, some, folder, error);
    }

    private static Rig stated(Rig rig, String column, double rateHz) {
        return rig.withSource(
                rig.sourceOf(column), one -> one.withSetup(one.setup().withStatedRate(rateHz)));
    }

    private static Channel channel(Rig rig, String column) {
        return rig.channels().stream()
                .filter(one -> one.column().equals(column))
                .findFirst()
                .orElseThrow();
    }

    private static double[] some(double[] raw) {
        return Arrays.stream(raw).filter(v -> v == v).limit(MOST_SAMPLES).toArray();
    }

    private static PortableProof proved(
            Rig rig, Channel channel, double rateHz, Map<String, String> files, double[] raw, Path folder, double error)
            throws TakeException, InterruptedException {
        SourceFiles.write(folder, files);
        Optional<String> compiler =
                COMPILERS.stream().filter(PortableProof::isThere).findFirst();
        if (compiler.isEmpty() || raw.length == 0) {
            return new PortableProof(folder, "", error, 0, Double.NaN, 0, 0);
        }
        List<String> lines = run(folder, compiler.get(), raw);
        if (lines.size() != raw.length) {
            throw new TakeException(Messages.of("engine.the-board-s-code-gave-lines-for", lines.size(), raw.length));
        }
        return against(rig, channel, rateHz, raw, lines, folder, compiler.get(), error);
    }

    private static boolean isThere(String compiler) {
        return Arrays.stream(System.getenv().getOrDefault("PATH", "").split(File.pathSeparator))
                .anyMatch(one -> Files.isExecutable(Path.of(one, compiler)));
    }

    private static List<String> run(Path folder, String compiler, double[] raw)
            throws TakeException, InterruptedException {
        Path work = null;
        try {
            work = Files.createTempDirectory("zesty-portable");
            Path program = work.resolve("run");
            List<String> line = new ArrayList<>(List.of(compiler, "-std=c99", "-O1", "-o", program.toString()));
            try (Stream<Path> files = Files.list(folder)) {
                files.map(Path::toString)
                        .filter(one -> one.endsWith(".c"))
                        .sorted()
                        .forEach(line::add);
            }
            line.add("-lm");
            Path input = work.resolve("in");
            StringBuilder numbers = new StringBuilder();
            for (double value : raw) {
                numbers.append(String.format(Locale.ROOT, "%.9g%n", value));
            }
            Files.writeString(input, numbers);
            wait(line, null, work.resolve("compiled"), work, Messages.of("engine.the-compiler", compiler));
            wait(List.of(program.toString()), input, work.resolve("out"), work, Messages.of("engine.the-board-s-code"));
            return Files.readAllLines(work.resolve("out"));
        } catch (IOException e) {
            throw new TakeException(Messages.of("engine.the-board-s-code-could-not-be", e.getMessage()), e);
        } finally {
            away(work);
        }
    }

    private static void wait(List<String> line, Path in, Path out, Path work, String what)
            throws IOException, TakeException, InterruptedException {
        Path errors = work.resolve("errors");
        ProcessBuilder builder =
                new ProcessBuilder(line).redirectOutput(out.toFile()).redirectError(errors.toFile());
        Process process = (in == null ? builder : builder.redirectInput(in.toFile())).start();
        if (!process.waitFor(PATIENCE_SECONDS, TimeUnit.SECONDS)) {
            process.destroyForcibly();
            throw new TakeException(Messages.of("engine.did-not-end-within-s", what, PATIENCE_SECONDS));
        }
        if (process.exitValue() != 0) {
            String first = Files.readAllLines(errors).stream().findFirst().orElse(Messages.of("engine.no-words"));
            throw new TakeException(Messages.of("engine.failed", what, first));
        }
    }

    private static void away(Path work) {
        if (work == null) {
            return;
        }
        try (Stream<Path> files = Files.walk(work)) {
            for (Path one : files.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(one);
            }
        } catch (IOException e) {
            work.toFile().deleteOnExit();
        }
    }

    private static PortableProof against(
            Rig rig,
            Channel channel,
            double rateHz,
            double[] raw,
            List<String> lines,
            Path folder,
            String compiler,
            double error)
            throws TakeException {
        double[] wanted = new double[raw.length];
        channel.scaling().apply(raw, wanted, raw.length);
        double full =
                Arrays.stream(wanted).map(Math::abs).filter(v -> v == v).max().orElse(0);
        channel.recipe().onceThrough(wanted, rateHz);
        List<Rule> rules = PortableRig.rules(rig, channel);
        int[] on = new int[rules.size()];
        int[] turns = new int[1];
        RuleBook book = new RuleBook(rules, List.of());
        Controller controller = new Controller(book, new Controller.Listener() {
            @Override
            public void decided(double seconds, int rule, int state, double value) {
                on[rule] = state;
                turns[0]++;
            }

            @Override
            public void sent(double seconds, int output, String line, Controller.Why why) {
                // There is no output in this book.
            }
        });
        double largest = 0;
        int different = 0;
        double[] now = new double[book.watches().size()];
        for (int i = 0; i < raw.length; i++) {
            String[] cells = lines.get(i).split(",");
            double got;
            try {
                got = Double.parseDouble(cells[0].replace("nan", "NaN").replace("inf", "Infinity"));
            } catch (NumberFormatException e) {
                throw new TakeException(Messages.of("engine.the-board-s-code-printed-not-a", lines.get(i)));
            }
            if (wanted[i] == wanted[i]) {
                largest = Math.max(largest, Math.abs(got - wanted[i]));
            }
            if (!rules.isEmpty()) {
                Arrays.fill(now, wanted[i]);
                controller.samples(i / rateHz, now);
                boolean same = cells.length == rules.size() + 1;
                for (int r = 0; same && r < rules.size(); r++) {
                    same = cells[r + 1].equals(String.valueOf(on[r]));
                }
                different += same ? 0 : 1;
            }
        }
        return new PortableProof(
                folder,
                compiler,
                full > 0 ? error / full : error,
                raw.length,
                full > 0 ? largest / full : largest,
                turns[0],
                different);
    }
}
