package zesty.signal.benchmarks;

import java.io.IOException;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javax.tools.ToolProvider;

/**
 * What becomes of a kind's answers when one of its numbers moves by a fifth: each constant of the kind's package, made
 * smaller and larger, is compiled anew and held against the records of known truth.
 */
public final class ThresholdsBench {
    private static final Pattern CONSTANT =
            Pattern.compile("static final (double|int|long) ([A-Z][A-Z_0-9]*) = (-?[0-9][0-9_.]*(?:e-?[0-9]+)?);");
    private static final double A_FIFTH = 0.2;

    /** @param all how many right of how many in all; of those with a quality of 0.9 or more likewise */
    private record Score(int[] all, int[] sure) {
        @Override
        public String toString() {
            return all[1] + " of " + all[0] + " | " + sure[1] + " of " + sure[0];
        }
    }

    private final Path sources;
    private final String kind;
    private final int records;
    private final long seed;
    private final List<Path> ours = new ArrayList<>();
    private final ClassLoader others;

    private ThresholdsBench(Path sources, String kind, int records, long seed) throws IOException {
        this.sources = sources;
        this.kind = kind;
        this.records = records;
        this.seed = seed;
        List<URL> shared = new ArrayList<>();
        for (String one : System.getProperty("java.class.path").split(java.io.File.pathSeparator)) {
            Path path = Path.of(one);
            if (Files.isDirectory(path)
                    || path.getFileName().toString().matches("(core|engine|boards|takes|exchange)-.*")) {
                ours.add(path);
            } else {
                shared.add(path.toUri().toURL());
            }
        }
        others = new URLClassLoader(shared.toArray(URL[]::new), ClassLoader.getPlatformClassLoader());
    }

    /** @param arguments the folder of the core's sources, the kind, how many records, the seed */
    public static void main(String[] arguments) throws Exception {
        Path core = Path.of(arguments[0]);
        String kind = arguments[1];
        int records = arguments.length > 2 ? Integer.parseInt(arguments[2]) : 120;
        long seed = arguments.length > 3 ? Long.parseLong(arguments[3]) : 1;
        new ThresholdsBench(core.resolve("read").resolve(kind), kind, records, seed).run();
    }

    private void run() throws Exception {
        Score before = score(null, "");
        if (before == null) {
            throw new IllegalStateException("not even as it is: " + kind);
        }
        System.out.println(
                "| " + kind + " | value | right of all, right of those said to be sure: a fifth less | a fifth more |");
        System.out.println("|---|---|---|---|");
        System.out.println("| as it is | | " + before.toString().replace('|', ';') + " | |");
        for (Path file : files()) {
            String text = Files.readString(file);
            Matcher constant = CONSTANT.matcher(text);
            while (constant.find()) {
                String less = moved(constant.group(1), constant.group(3), -A_FIFTH);
                String more = moved(constant.group(1), constant.group(3), A_FIFTH);
                String head = text.substring(0, constant.start(3));
                String tail = text.substring(constant.end(3));
                System.out.printf(
                        "| %s.%s | %s | %s | %s |%n",
                        file.getFileName().toString().replace(".java", ""),
                        constant.group(2),
                        constant.group(3),
                        said(score(file, head + less + tail), before),
                        said(score(file, head + more + tail), before));
            }
        }
    }

    private static String said(Score now, Score before) {
        if (now == null) {
            return "does not run";
        }
        boolean same = Arrays.equals(now.all, before.all) && Arrays.equals(now.sure, before.sure);
        return same ? "the same" : now.toString().replace('|', ';');
    }

    private static String moved(String type, String value, double by) {
        double was = Double.parseDouble(value.replace("_", ""));
        if (type.equals("double")) {
            return String.valueOf(was * (1 + by));
        }
        long now = Math.round(was * (1 + by));
        now = now == (long) was ? now + (by > 0 ? 1 : -1) : now;
        return now + (type.equals("long") ? "L" : "");
    }

    private List<Path> files() throws IOException {
        try (Stream<Path> all = Files.list(sources)) {
            return all.filter(file -> file.toString().endsWith(".java") && !file.endsWith("package-info.java"))
                    .sorted()
                    .toList();
        }
    }

    /** @return null where what was changed does not compile or run any more */
    private Score score(Path changed, String text) throws Exception {
        Path made = Files.createTempDirectory("zesty-thresholds");
        try {
            List<String> compile = new ArrayList<>(List.of("-proc:none", "-nowarn", "-d", made.toString(), "-cp"));
            compile.add(System.getProperty("java.class.path"));
            for (Path file : files()) {
                Path one = made.resolve(file.getFileName());
                Files.writeString(one, file.equals(changed) ? text : Files.readString(file));
                compile.add(one.toString());
            }
            if (ToolProvider.getSystemJavaCompiler().run(null, null, null, compile.toArray(String[]::new)) != 0) {
                return null;
            }
            List<URL> path = new ArrayList<>(List.of(made.toUri().toURL()));
            for (Path one : ours) {
                path.add(one.toUri().toURL());
            }
            try (URLClassLoader loader = new URLClassLoader(path.toArray(URL[]::new), others)) {
                Thread.currentThread().setContextClassLoader(loader);
                Class<?> truth = loader.loadClass("zesty.signal.engine.truth.Truth");
                Object answers = truth.getMethod("of", String.class, int.class, long.class)
                        .invoke(null, kind, records, seed);
                var right = truth.getMethod("right", List.class, double.class, double.class);
                return new Score(
                        (int[]) right.invoke(null, answers, -1.0, 2.0), (int[]) right.invoke(null, answers, 0.9, 2.0));
            } catch (ReflectiveOperationException | LinkageError e) {
                return null;
            }
        } finally {
            try (Stream<Path> all = Files.walk(made)) {
                for (Path one : all.sorted(Comparator.reverseOrder()).toList()) {
                    Files.delete(one);
                }
            }
        }
    }
}
