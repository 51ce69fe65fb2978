package zesty.signal.app.command;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import zesty.signal.core.compare.Difference;
import zesty.signal.core.compare.Spread;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.read.Setting;
import zesty.signal.core.read.Settings;
import zesty.signal.core.scale.Digits;
import zesty.signal.engine.Comparison;
import zesty.signal.takes.TakeException;

@Command(name = "compare", description = "Runs the same reader over several takes.")
final class CompareCommand implements Callable<Integer> {
    private static final int TESTED_GROUPS = 2;

    @Spec
    private CommandSpec spec;

    @Parameters(arity = "0..*", paramLabel = "TAKE")
    private List<Path> takes = new ArrayList<>();

    @Option(names = "--reader", paramLabel = "KIND", required = true)
    private String reader;

    @Option(names = "--column", paramLabel = "NAME", required = true)
    private List<String> columns = new ArrayList<>();

    @Option(names = "--set", paramLabel = "KEY=VALUE")
    private List<String> settings = new ArrayList<>();

    @Option(names = "--span", paramLabel = "A..B", description = "seconds of each take, both ends held")
    private String span;

    @Option(
            names = "--around",
            paramLabel = "MARK=BEFORE,AFTER",
            description = "seconds about its first mark of that text")
    private String around;

    @Option(names = "--group", paramLabel = "NAME=TAKE,TAKE")
    private List<String> groups = new ArrayList<>();

    @Option(names = "--paired", description = "the first of one group belongs to the first of the other, and so on")
    private boolean paired;

    @Option(names = "--json")
    private boolean json;

    @Override
    public Integer call() throws TakeException {
        ReaderKind kind = ExtractCommand.kind(reader);
        Map<String, List<Path>> grouped = grouped();
        Set<Path> all = new LinkedHashSet<>(takes);
        grouped.values().forEach(all::addAll);
        if (all.isEmpty()) {
            throw new Refusal("no take to compare; name some, or groups with --group NAME=TAKE,TAKE");
        }
        checkPairs(grouped);
        Map<String, String> given = Inputs.settings(
                settings, kind.settings().stream().map(Setting::key).toList());
        Comparison compared;
        try {
            Settings.of(kind, given);
            compared = Comparison.of(List.copyOf(all), kind.name(), columns, given, part());
        } catch (ReaderException e) {
            throw new Refusal(e.getMessage());
        } catch (TakeException e) {
            // What is wrong with a file has been said of it already; below it lies what the disk said.
            if (e.getCause() != null) {
                throw e;
            }
            throw new Refusal(e.getMessage());
        }
        if (json) {
            Json.print(json(compared, grouped));
        } else {
            print(kind, compared, grouped);
        }
        say(compared, grouped);
        return Commands.DONE;
    }

    private Map<String, List<Path>> grouped() {
        Map<String, List<Path>> grouped = new LinkedHashMap<>();
        for (String group : groups) {
            int equals = group.indexOf('=');
            if (equals < 1 || equals == group.length() - 1) {
                throw new Refusal("--group is NAME=TAKE,TAKE, was '" + group + "'");
            }
            String name = group.substring(0, equals);
            List<Path> of = Stream.of(group.substring(equals + 1).split(","))
                    .map(Path::of)
                    .toList();
            if (grouped.put(name, of) != null) {
                throw new Refusal("two groups are called '" + name + "'");
            }
        }
        return grouped;
    }

    private void checkPairs(Map<String, List<Path>> grouped) {
        if (!paired) {
            return;
        }
        List<List<Path>> of = List.copyOf(grouped.values());
        if (of.size() != TESTED_GROUPS || of.get(0).size() != of.get(1).size()) {
            throw new Refusal("--paired needs two groups with as many takes in one as in the other; there are "
                    + of.stream().map(one -> String.valueOf(one.size())).toList());
        }
    }

    private Comparison.Part part() {
        if (span != null && around != null) {
            throw new Refusal("--span and --around say different parts of a take; give one of them");
        }
        if (span != null) {
            String[] ends = span.split("\\.\\.", -1);
            if (ends.length != 2) {
                throw new Refusal("--span is A..B in seconds, for example 10..20; was '" + span + "'");
            }
            return part("--span", "", Inputs.number("--span", ends[0]), Inputs.number("--span", ends[1]));
        }
        if (around == null) {
            return Comparison.Part.ALL;
        }
        int equals = around.lastIndexOf('=');
        String[] ends = around.substring(equals + 1).split(",", -1);
        if (equals < 1 || ends.length != 2) {
            throw new Refusal("--around is MARK=BEFORE,AFTER, for example tack=5,20; was '" + around + "'");
        }
        return part(
                "--around",
                around.substring(0, equals),
                -Inputs.number("--around", ends[0]),
                Inputs.number("--around", ends[1]));
    }

    private static Comparison.Part part(String option, String mark, double from, double to) {
        if (!(from < to)) {
            throw new Refusal(option + " ends before it begins");
        }
        return new Comparison.Part(mark, from, to);
    }

    private ObjectNode json(Comparison compared, Map<String, List<Path>> grouped) {
        ObjectNode root = Json.object();
        root.put("reader", reader);
        root.put("column", String.join(",", columns));
        ArrayNode rows = root.putArray("rows");
        ArrayNode out = root.putArray("left_out");
        for (Comparison.Row row : compared.rows()) {
            ObjectNode node = rows.addObject();
            node.put("take", row.take().toString());
            node.put("title", row.title());
            Json.put(node, "from_s", row.from());
            Json.put(node, "to_s", row.to());
            Json.put(node, "quality", row.quality());
            ObjectNode numbers = node.putObject("numbers");
            row.numbers().forEach((key, value) -> Json.put(numbers, key, value));
            if (!row.leftOut().isEmpty()) {
                node.put("why", row.leftOut());
                out.addObject().put("take", row.take().toString()).put("why", row.leftOut());
            }
        }
        ObjectNode numbers = root.putObject("numbers");
        for (String key : compared.keys()) {
            Spread spread = compared.spread(key);
            ObjectNode node = spread(numbers.putObject(key), spread);
            Json.put(node, "min", spread.min());
            Json.put(node, "max", spread.max());
        }
        if (!grouped.isEmpty()) {
            ObjectNode all = root.putObject("groups");
            grouped.forEach((name, of) -> {
                ObjectNode group = all.putObject(name);
                for (String key : compared.keys()) {
                    spread(group.putObject(key), Spread.of(compared.numbers(key, of)));
                }
            });
        }
        if (grouped.size() == TESTED_GROUPS) {
            ObjectNode tests = root.putObject("test");
            for (String key : compared.keys()) {
                difference(compared, grouped, key)
                        .ifPresentOrElse(found -> test(tests.putObject(key), found), () -> tests.putNull(key));
            }
        }
        return root;
    }

    private static ObjectNode spread(ObjectNode node, Spread spread) {
        Json.put(node, "mean", spread.mean());
        Json.put(node, "sd", spread.sd());
        node.put("n", spread.n());
        return node;
    }

    private static void test(ObjectNode node, Difference found) {
        node.put("kind", found.kind().name().toLowerCase(Locale.ROOT));
        Json.put(node, "difference", found.difference());
        Json.put(node, "low", found.low());
        Json.put(node, "high", found.high());
        Json.put(node, "p", found.p());
        node.put("n", found.n());
    }

    private Optional<Difference> difference(Comparison compared, Map<String, List<Path>> grouped, String key) {
        List<List<Path>> of = List.copyOf(grouped.values());
        return compared.difference(key, of.get(0), of.get(1), paired);
    }

    private void print(ReaderKind kind, Comparison compared, Map<String, List<Path>> grouped) {
        PrintWriter out = spec.commandLine().getOut();
        for (ScalarInfo scalar : kind.scalars()) {
            Spread spread = compared.spread(scalar.key());
            if (spread.n() == 0) {
                continue;
            }
            String unit = scalar.unit("");
            out.println(scalar.words() + ": " + Digits.about(spread.mean(), 4) + (unit.isEmpty() ? "" : " " + unit)
                    + (spread.n() > 1 ? ", SD " + Digits.about(spread.sd(), 2) : "") + " over " + spread.n()
                    + (spread.n() == 1 ? " take" : " takes"));
            if (grouped.size() == TESTED_GROUPS) {
                List<String> names = List.copyOf(grouped.keySet());
                difference(compared, grouped, scalar.key())
                        .ifPresent(found -> out.println(
                                "  " + Commands.plain(found.words(scalar.words(), unit, names.get(0), names.get(1)))));
            }
        }
        out.flush();
    }

    /** Tells on standard error what was left out, and where nothing can be told. */
    private void say(Comparison compared, Map<String, List<Path>> grouped) {
        PrintWriter err = spec.commandLine().getErr();
        for (Comparison.Row row : compared.rows()) {
            if (!row.leftOut().isEmpty()) {
                err.println("zesty: " + Commands.plain(row.take() + " is left out: " + row.leftOut()));
            }
        }
        if (grouped.size() == TESTED_GROUPS) {
            boolean none = compared.keys().stream()
                    .noneMatch(key -> difference(compared, grouped, key).isPresent());
            if (none) {
                err.println("zesty: below " + Difference.FEWEST
                        + " takes in a group it cannot be told whether a difference is real");
            }
        } else if (grouped.size() > TESTED_GROUPS) {
            err.println("zesty: of more than two groups no test is made");
        }
        err.flush();
    }
}
