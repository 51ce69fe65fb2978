package zesty.signal.app.command;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.File;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Controller;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.RuleBook;
import zesty.signal.core.act.Watch;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.plan.Draft;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.rig.ActSetup;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Source;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.scale.Conversion;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Line;
import zesty.signal.core.scale.Polynomial;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.scale.Thermistor;
import zesty.signal.core.scale.ValueTable;
import zesty.signal.engine.PortableProof;
import zesty.signal.exchange.portable.PortableBoard;
import zesty.signal.exchange.portable.SourceFiles;
import zesty.signal.takes.RigJson;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/** What is written for a board goes through a C compiler that forgives nothing, runs, and does what the application does. */
@Timeout(240)
class BoardCodeTest {
    private static final double RATE = 250;

    @TempDir
    Path folder;

    @BeforeEach
    void compiler() {
        assumeTrue(
                Arrays.stream(System.getenv("PATH").split(File.pathSeparator))
                        .anyMatch(one -> Files.isExecutable(Path.of(one, "cc"))),
                "a C compiler, cc, is not on this machine");
    }

    private String run(String input, String... line) throws Exception {
        Path in = folder.resolve("input.txt");
        Path out = folder.resolve("output.txt");
        Path err = folder.resolve("errors.txt");
        Files.writeString(in, input);
        Process process = new ProcessBuilder(line)
                .redirectInput(in.toFile())
                .redirectOutput(out.toFile())
                .redirectError(err.toFile())
                .start();
        assertThat(process.waitFor()).as(Files.readString(err)).isZero();
        return Files.readString(out, StandardCharsets.ISO_8859_1);
    }

    private String compiled(Path sources) throws Exception {
        List<String> line = new ArrayList<>(List.of(
                "cc",
                "-std=c99",
                "-Wall",
                "-Wextra",
                "-pedantic",
                "-Werror",
                "-o",
                folder.resolve("program").toString()));
        try (var files = Files.list(sources)) {
            files.map(Path::toString).filter(one -> one.endsWith(".c")).forEach(line::add);
        }
        line.add("-lm");
        run("", line.toArray(String[]::new));
        return folder.resolve("program").toString();
    }

    private static final List<String> RECIPES = List.of(
            "",
            "mean:7",
            "lowpass:10@4 | rectify",
            "highpass:0.5@2 | notch:50@30",
            "bandpass:5..40@3 | rms:0.1",
            "bandstop:45..55@2 | scale:-0.5 | offset:3",
            "envelope:4",
            "exp:0.1 | highpass:1@1",
            "differentiate | lowpass:20@2");

    private static Conversion conversion(int index) {
        return switch (index % 5) {
            case 0 -> new Line(0.25, -3);
            case 1 -> new Polynomial(List.of(1.0, 0.5, -0.01, 0.001));
            case 2 -> new Thermistor(new Thermistor.Beta(3950, 10_000, 25), 10_000, Thermistor.Side.LOW, 5);
            case 3 -> new ValueTable(List.of(0.0, 1.0, 2.5, 5.0), List.of(-4.0, 3.0, 2.0, 9.0));
            default -> Line.SAME;
        };
    }

    @Test
    void scalingAndRecipeOnTheBoardAreThoseOfTheApplication() throws Exception {
        List<Column> columns = new ArrayList<>();
        List<Channel> channels = new ArrayList<>();
        for (int c = 0; c < RECIPES.size(); c++) {
            String name = c == 3 ? "2nd µ-pull" : "x" + c;
            columns.add(new Column(name, ""));
            Scaling scaling = new Scaling(new Converter(10, 5, Divisor.STEPS), conversion(c), List.of(), "N");
            channels.add(new Channel(name, "Column " + c, scaling, Recipe.parse(RECIPES.get(c)), true));
        }
        Source source = new Source(
                "",
                new SourceSetup("stdin", RATE, 0, List.of(), List.of()),
                new DelimitedFormat(',', false, false, "", columns, null));
        Rig rig = new Rig("Wren */ rig", List.of(source), channels, List.of(), List.of(), Set.of());
        Path file = folder.resolve("rig.json");
        Files.writeString(file, RigJson.write(rig));
        Path code = folder.resolve("code");
        Said said = Said.zesty("portable", file.toString(), "--out", code.toString());
        assertThat(said.status()).as(said.err()).isZero();
        String program = compiled(code);
        Random random = new Random(25);
        double[] raw = new double[2000];
        StringBuilder input = new StringBuilder();
        for (int i = 0; i < raw.length; i++) {
            raw[i] = Math.rint(500 + 200 * Math.sin(i / 9.0) + 40 * random.nextGaussian());
            input.append((int) raw[i]).append('\n');
        }
        for (int c = 0; c < channels.size(); c++) {
            String name = c == 3 ? "_2nd___pull" : "x" + c;
            double[] wanted = new double[raw.length];
            channels.get(c).scaling().apply(raw, wanted, raw.length);
            double[] scaled = wanted.clone();
            channels.get(c).recipe().onceThrough(wanted, RATE);
            double full = Arrays.stream(scaled).map(Math::abs).max().orElseThrow();
            double[] got = run(input.toString(), program, name)
                    .lines()
                    .mapToDouble(Double::parseDouble)
                    .toArray();
            assertThat(got).hasSize(raw.length);
            for (int i = 0; i < got.length; i++) {
                // A float has 24 bits; differentiating multiplies by the rate.
                double most = RECIPES.get(c).startsWith("diff") ? 1e-5 * RATE * full : 1e-6 * full;
                assertThat(got[i]).as("%s at %d", RECIPES.get(c), i).isCloseTo(wanted[i], within(most));
            }
        }
        Files.writeString(code.resolve("x1.c"), "int mine;");
        assertThat(Said.zesty("portable", file.toString(), "--out", code.toString())
                        .err())
                .contains("x1.c is there already and was not made this way");
    }

    private static Rule.OnSamples rule(String name, Condition when, double hysteresis, Rule.Holds holds) {
        return new Rule.OnSamples(name, new Watch.Column("x"), when, hysteresis, holds);
    }

    /** The rules of a column on the board turn at the same samples as in the application. */
    @Test
    void rulesOnTheBoardDecideAsTheApplicationDoes() throws Exception {
        Rule.Holds none = Rule.Holds.NONE;
        List<Rule> rules = List.of(
                rule("above", new Condition.Above(0.4), 0.3, none),
                rule("be-low", new Condition.Below(-0.4), 0.2, new Rule.Holds(0.05, 0, 0, false)),
                rule("inside", new Condition.Inside(-0.5, 0.5), 0.1, new Rule.Holds(0, 0.03, 0.2, false)),
                rule("outside", new Condition.Outside(-0.6, 0.6), 0.1, new Rule.Holds(0.011, 0.02, 0, false)),
                rule("rising", new Condition.Rising(3, 0.1), 1, none),
                rule("falling", new Condition.Falling(3, 0.08), 1, new Rule.Holds(0.02, 0, 0.1, false)),
                rule("once", new Condition.Above(0.8), 0, new Rule.Holds(0, 0, 0, true)));
        Rig rig = Rig.blank("rig", "stdin")
                .withLink(new SourceSetup("stdin", RATE, 0, List.of(), List.of()))
                .fittedTo(new DelimitedFormat(',', false, false, "", List.of(new Column("x", "")), null))
                .withChannel("x", one -> one.withRecipe(Recipe.parse("exp:0.25")))
                .withAct(ActSetup.NONE.withBook(new RuleBook(rules, List.of())));
        Path file = folder.resolve("rig.json");
        Files.writeString(file, RigJson.write(rig));
        Path code = folder.resolve("code");
        Said said = Said.zesty("portable", file.toString(), "--out", code.toString());
        assertThat(said.status()).as(said.err()).isZero();
        assertThat(Files.readString(code.resolve("x.h"))).contains("bool x_be_low(const x_state *s);");
        Random random = new Random(26);
        double[] x = new double[4000];
        StringBuilder input = new StringBuilder();
        for (int i = 0; i < x.length; i++) {
            x[i] = (float) (Math.sin(i / 40.0) + 0.3 * random.nextGaussian());
            input.append((float) x[i]).append('\n');
        }
        List<String> lines = run(input.toString(), compiled(code)).lines().toList();
        assertThat(lines).hasSize(x.length);
        double[] cleaned = x.clone();
        channelOf(rig).recipe().onceThrough(cleaned, RATE);
        int[] on = new int[rules.size()];
        int[] turns = new int[rules.size()];
        Controller controller = new Controller(new RuleBook(rules, List.of()), new Controller.Listener() {
            @Override
            public void decided(double seconds, int rule, int state, double value) {
                on[rule] = state;
                turns[rule]++;
            }

            @Override
            public void sent(double seconds, int output, String line, Controller.Why why) {
                throw new AssertionError("there is no output");
            }
        });
        for (int i = 0; i < x.length; i++) {
            controller.samples(i / RATE, new double[] {cleaned[i]});
            String states = Arrays.stream(on).mapToObj(Integer::toString).collect(Collectors.joining(","));
            assertThat(lines.get(i)).as("row %d", i).endsWith("," + states);
        }
        assertThat(Arrays.stream(turns).limit(6)).allMatch(n -> n > 10);
    }

    private static double between(double[] sorted, int at) {
        int k = at;
        while (sorted[k + 1] - sorted[k] < 1e-4 * (sorted[sorted.length - 1] - sorted[0])) {
            k++;
        }
        return (sorted[k] + sorted[k + 1]) / 2;
    }

    private static String recipe(Random random) {
        List<String> steps = new ArrayList<>();
        for (int n = 1 + random.nextInt(3); n > 0; n--) {
            double hz = 0.5 * Math.pow(80, random.nextDouble());
            int order = 1 + random.nextInt(4);
            steps.add(
                    switch (random.nextInt(11)) {
                        case 0 -> "mean:" + (1 + random.nextInt(60));
                        case 1 -> String.format(Locale.ROOT, "lowpass:%.2f@%d", hz, order);
                        case 2 -> String.format(Locale.ROOT, "highpass:%.2f@%d", hz, order);
                        case 3 -> String.format(Locale.ROOT, "bandpass:%.2f..%.2f@%d", hz, 2 * hz + 1, order);
                        case 4 -> String.format(Locale.ROOT, "bandstop:%.2f..%.2f@%d", hz, 2 * hz + 1, order);
                        case 5 -> String.format(Locale.ROOT, "notch:%.2f@30", hz);
                        case 6 -> String.format(Locale.ROOT, "rms:%.3f", 0.02 + random.nextDouble());
                        case 7 -> String.format(Locale.ROOT, "envelope:%.2f", hz);
                        case 8 -> String.format(Locale.ROOT, "exp:%.3f | scale:-3", 0.01 + 0.9 * random.nextDouble());
                        case 9 -> "rectify";
                        default -> String.format(Locale.ROOT, "offset:%.3f | scale:0.01", random.nextGaussian());
                    });
        }
        return String.join(" | ", steps);
    }

    /** What a press in the window does: the same code, compiled, run and compared, and a program that fails is told. */
    @Test
    void codeIsProvedOnRawNumbersAndACompilerThatFailsIsTold() throws Exception {
        Random random = new Random(27);
        int decided = 0;
        for (int k = 0; k < 24; k++) {
            String recipe = recipe(random);
            Scaling scaling = new Scaling(
                    k % 6 == 5 ? null : new Converter(8 + random.nextInt(9), 5, Divisor.STEPS),
                    k % 6 == 5 ? new Line(0.01, -2) : conversion(k),
                    List.of(),
                    "N");
            double full = k % 6 == 5 ? 900 : scaling.converter().highestCode();
            double[] raw = new double[3000];
            for (int i = 0; i < raw.length; i++) {
                double x = full * (0.5 + 0.3 * Math.sin(i / 40.0) + 0.06 * random.nextGaussian());
                raw[i] = k % 6 == 5 ? x : Math.rint(Math.max(1, Math.min(full, x)));
            }
            raw[1000] = Double.NaN;
            double[] cleaned = Arrays.stream(raw).filter(v -> v == v).toArray();
            scaling.apply(cleaned, cleaned, cleaned.length);
            Recipe.parse(recipe).onceThrough(cleaned, RATE);
            double[] sorted = Arrays.stream(cleaned).sorted().toArray();
            // A value that comes just at a limit is decided by its last bit; limits lie where no value is as near.
            double limit = between(sorted, 1000 + random.nextInt(1500));
            Rule.Holds holds =
                    new Rule.Holds(0.02 * random.nextInt(3), 0.02 * random.nextInt(2), 0.1 * random.nextInt(2), false);
            List<Rule> rules = List.of(
                    rule("high", new Condition.Above(limit), 0, holds),
                    rule("up", new Condition.Rising((sorted[2900] - sorted[100]) / 0.6, 0.1), 0, Rule.Holds.NONE));
            Rig rig = Rig.blank("rig", "stdin")
                    .fittedTo(new DelimitedFormat(',', false, false, "", List.of(new Column("x", "")), null))
                    .withChannel("x", one -> one.withScaling(scaling).withRecipe(Recipe.parse(recipe)))
                    .withAct(ActSetup.NONE.withBook(new RuleBook(rules, List.of())));
            String what = k + ": " + scaling.conversion().words() + ", " + recipe;
            PortableProof proof = PortableProof.of(rig, "x", RATE, raw, folder.resolve("proof" + k));
            assertThat(proof.compiler()).isEqualTo("cc");
            assertThat(proof.samples()).isEqualTo(2999);
            assertThat(proof.largest()).as(what).isBetween(0.0, 1e-5);
            assertThat(proof.different()).as(what).isZero();
            PortableProof whole = PortableProof.ofFixed(rig, "x", RATE, raw, folder.resolve("whole" + k));
            assertThat(whole.largest()).as(what).isLessThan(whole.says());
            // What it says is worth something: a straight scaling's rounding is far below a count.
            if (k % 5 == 0 || k % 6 == 5) {
                assertThat(whole.says()).as(what).isLessThan(1e-5);
            }
            if (whole.says() < 1e-5) {
                assertThat(whole.different()).as(what).isZero();
                decided += whole.decisions();
            }
        }
        assertThat(decided).isGreaterThan(180);
        Path spoilt = Files.createDirectories(folder.resolve("spoilt"));
        Files.writeString(spoilt.resolve("zz.c"), "int main(void) { return 1 }");
        Rig rig = Rig.blank("rig", "stdin")
                .fittedTo(new DelimitedFormat(',', false, false, "", List.of(new Column("x", "")), null))
                .withChannel("x", one -> one.withRecipe(Recipe.parse("mean:3")));
        assertThatThrownBy(() -> PortableProof.of(rig, "x", RATE, new double[] {1, 2, 3}, spoilt))
                .isInstanceOf(TakeException.class)
                .hasMessageContaining("the compiler cc failed");
    }

    private static Channel channelOf(Rig rig) {
        return rig.channels().get(0);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{'name':'a','watch':{'reader':'level','column':'x','number':'mean'},'when':'above','limit':3} | the rule 'a' cannot go onto a board: it goes by a reader",
                "{'name':'a','watch':{'column':'x'},'when':'silent','for_s':3} | a value that does not come",
                "{'name':'a','watch':{'column':'x'},'bands':[1,2]} | it is a band's number",
                "{'name':'a','watch':{'column':'x'},'when':'above','limit':3,'percent':true} | its percents need a profile"
            })
    void aRuleThatCannotGoIsNamed(String rule, String message) throws Exception {
        Path file = folder.resolve("rig.json");
        Files.writeString(
                file,
                ("{'zesty_rig':3,'name':'r','source':{'address':'stdin'},'scale':[{'column':'x','name':'x',"
                                + "'conversion':{'kind':'line','slope':1,'offset':0},'unit':''}],'decide':{'rules':["
                                + rule
                                + "]}}")
                        .replace('\'', '"'));
        Said said = Said.zesty(
                "portable", file.toString(), "--out", folder.resolve("code").toString());
        assertThat(said.status()).as(said.err()).isEqualTo(2);
        assertThat(said.err()).contains(message);
        assertThat(folder.resolve("code")).doesNotExist();
    }

    @ParameterizedTest
    @CsvSource({
        "median:5, the step median:5 cannot go onto a board",
        "lowpass:10@2 | smooth:7@2, the step smooth:7@2 cannot go",
        "detrend, the step detrend cannot go"
    })
    void whatCannotGoIsNamedAndNothingIsWritten(String recipe, String message) throws Exception {
        Rig rig = Rig.blank("rig", "stdin")
                .withLink(new SourceSetup("stdin", RATE, 0, List.of(), List.of()))
                .fittedTo(new DelimitedFormat(',', false, false, "", List.of(new Column("x", "")), null))
                .withChannel("x", one -> one.withRecipe(Recipe.parse(recipe)));
        Path file = folder.resolve("rig.json");
        Files.writeString(file, RigJson.write(rig));
        Said said = Said.zesty(
                "portable", file.toString(), "--out", folder.resolve("code").toString());
        assertThat(said.status()).isEqualTo(2);
        assertThat(said.err()).contains("x: " + message);
        assertThat(folder.resolve("code")).doesNotExist();
    }

    /** A clock of its own that wraps, steps of 90 µs with a long pause now and then, and channels that count their readings. */
    private static final String HARNESS =
            """
            #include "board.h"
            #include <stdio.h>
            static uint32_t us = 4294960000u;
            static int32_t reads;
            uint32_t board_micros(void) { return us; }
            int32_t board_read(uint8_t channel) { return channel == 0 ? reads++ : -channel; }
            void board_write(const uint8_t *bytes, uint16_t n) { fwrite(bytes, 1, n, stdout); }
            int main(void)
            {
                long i;
                board_begin();
                for (i = 0; i < %d; i++) {
                    board_poll();
                    us += i %% 50000 == 49999 ? 250000u : 90u;
                }
                fprintf(stderr, "%%lu\\n", (unsigned long)board_dropped());
                return 0;
            }
            """;

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "100 | t_us=1234567,load=512;n=-3~ | 3",
                "333 | {\"ms\": 123.456, \"load\": 5, \"dropped\": 0}~ | 3",
                "50 | 12345678\t17~ | 2",
                "20 | t 12.50 load 7~ | 2",
                "1000 | load: 99 lbs?? 5% \\done~ | 2",
                "0.5 | t_ms;1200;500~ | 2"
            })
    void aPlannedBoardSendsItsRowsAtItsRateOverEveryWrapAndCountsWhatItDropped(double rate, String text, int numbers)
            throws Exception {
        Path plan = folder.resolve("plan.json");
        String row = new com.fasterxml.jackson.databind.ObjectMapper().writeValueAsString(text.replace("~", "\r\n"));
        Files.writeString(plan, "{\"row\":{\"rate_hz\":" + rate + ",\"text\":" + row + "}}");
        Path code = folder.resolve("code");
        Said said = Said.zesty("plan", plan.toString(), "--board", code.toString(), "--json");
        assertThat(said.json().path("rate").path("nyquist_hz").asDouble()).isEqualTo(rate / 2);
        long steps = (long) Math.min(2_000_000, 4000 / rate / 90e-6);
        Files.writeString(code.resolve("main.c"), String.format(Locale.ROOT, HARNESS, steps));
        String program = compiled(code);
        List<String> lines = run("", program).lines().toList();
        long dropped =
                Long.parseLong(Files.readString(folder.resolve("errors.txt")).strip());
        long pauses = steps / 50_000;
        double seconds = ((steps - 1) * 90.0 + pauses * (250_000.0 - 90)) * 1e-6;
        // Rows sent and rows dropped are together as many as were due, to the row at either end.
        assertThat(lines.size() + dropped).isCloseTo(Math.round(seconds * rate), within(1L + pauses));
        assertThat(dropped > 0).isEqualTo(pauses > 0 && rate > 8);
        String pattern = java.util.regex.Pattern.quote(text.replace("~", ""))
                .replaceAll("-?\\d+(\\.\\d+)?", "\\\\E(-?\\\\d+(?:\\\\.\\\\d+)?)\\\\Q");
        assertThat(lines).allMatch(one -> one.matches(pattern));
        if (text.startsWith("t_us")) {
            double[] us = lines.stream()
                    .mapToDouble(one -> Double.parseDouble(one.replaceAll("\\D+(\\d+),.*", "$1")))
                    .toArray();
            long odd = 0;
            for (int i = 1; i < us.length; i++) {
                double step = us[i] - us[i - 1];
                assertThat(step).as("row %d", i).isPositive();
                odd += step < 9_800 || step > 10_200 ? 1 : 0;
            }
            // The wrap of 32 bits is no step back; a pause makes one row late and the next keeps its own due time.
            assertThat(odd).isLessThanOrEqualTo(2 * pauses);
            assertThat(us[us.length - 1]).isGreaterThan(4_294_967_296.0);
            Files.writeString(folder.resolve("sent.txt"), String.join("\n", lines) + "\n");
            JsonNode decoded = Said.zesty("decode", folder.resolve("sent.txt").toString(), "--json")
                    .json();
            assertThat(decoded.path("columns")).hasSize(numbers);
            assertThat(decoded.path("rejected").asInt()).isZero();
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{\"row\":{\"rate_hz\":100,\"text\":\"hello\"}} | the row's text has 0 numbers for channels",
                "{\"row\":{\"rate_hz\":100,\"bytes\":8}} | an odd number from 9 on; was 8",
                "{\"line\":{\"baud\":9600}} | a board's code needs the plan's row",
                "{\"row\":{\"rate_hz\":0,\"bytes\":9}} | row.rate_hz must be above 0",
                "{\"rows\":{}} | \"rows\" is no key of a plan",
                "{\"row\":{\"rate_hz\":100,\"bytes\":9},\"recipe\":\"lowpass:80@2\"} | lowpass:80@2"
            })
    void aPlanThatCannotBeIsRefusedByName(String text, String message) throws Exception {
        Path plan = folder.resolve("plan.json");
        Files.writeString(plan, text);
        Said said = Said.zesty(
                "plan", plan.toString(), "--board", folder.resolve("code").toString());
        assertThat(said.status()).as(said.err()).isEqualTo(2);
        assertThat(said.err()).contains(message);
        assertThat(folder.resolve("code")).doesNotExist();
    }

    /**
     * A planned board at the end of a cable. Told a time, it runs by a clock of its own that wraps after 7 s, in steps of 45 µs, and stands
     * still now and then; told none, by the machine's. Of each row it notes how many were dropped before it.
     */
    private static final String SENSOR =
            """
            #define _POSIX_C_SOURCE 199309L
            #include "board.h"
            #include <math.h>
            #include <stdio.h>
            #include <stdlib.h>
            #include <time.h>
            static uint32_t us = 4287967296u;
            static int stepped;
            static FILE *notes;
            uint32_t board_micros(void)
            {
                struct timespec now;
                if (stepped) {
                    return us;
                }
                clock_gettime(CLOCK_MONOTONIC, &now);
                return (uint32_t)now.tv_sec * 1000000u + (uint32_t)(now.tv_nsec / 1000);
            }
            int32_t board_read(uint8_t channel)
            {
                return (int32_t)(512.0 + 300.0 * sin(board_micros() * 1e-6 * (5 + channel)) + (rand() %% 5));
            }
            void board_write(const uint8_t *bytes, uint16_t n)
            {
                fwrite(bytes, 1, n, stdout);
                fprintf(notes, "%%lu %%lu\\n", (unsigned long)board_dropped(), (unsigned long)board_micros());
                if (!stepped) {
                    fflush(stdout);
                    fflush(notes);
                }
            }
            int main(int argc, char **argv)
            {
                struct timespec nap = {0, 300000};
                struct timespec pause = {0, 130000000};
                double seconds = argc > 2 ? atof(argv[2]) : 0;
                long i;
                notes = fopen(argv[1], "w");
                stepped = seconds > 0;
                board_begin();
                for (i = 0; !stepped || i * 45e-6 < seconds; i++) {
                    board_poll();
                    us += i %% 700000 == 699999 ? 250000u : 45u;
                    if (!stepped) {
                        nanosleep(i %% 3000 == 2999 ? &pause : &nap, NULL);
                    }
                }
                return fclose(notes);
            }
            """
                    .replace("%%", "%");

    private static List<Integer> dropped(Path notes) throws Exception {
        return noted(notes, 0).stream().map(Long::intValue).toList();
    }

    /** @return of each row that a board sent how many were dropped before it, or when it was sent, in its own microseconds */
    private static List<Long> noted(Path notes, int which) throws Exception {
        // The last line may be half written.
        String text = Files.readString(notes);
        return text.substring(0, text.lastIndexOf('\n'))
                .lines()
                .map(line -> Long.parseLong(line.split(" ")[which]))
                .toList();
    }

    /**
     * Twelve plans as the planner makes them, text and packets: ten minutes by a clock of the test's own, then all at once through cables
     * at the machine's time. Their streams are recognised with rate and channels without a word typed, and what was dropped is counted.
     */
    @Test
    void whatPlannedBoardsSendIsRecognisedAndCountedWithoutAWord() throws Exception {
        Random random = new Random(28);
        ReaderKind kind = ReaderKinds.of("level");
        List<Draft> drafts = new ArrayList<>();
        List<Process> cables = new ArrayList<>();
        try {
            for (int k = 0; k < 12; k++) {
                Draft draft = Draft.of(kind.name(), kind.needs().get(0), "")
                        .withRate(Math.rint(20 * Math.pow(20, random.nextDouble())))
                        .withChannels(1 + random.nextInt(5))
                        .withLine(1_000_000, k % 2 == 1);
                drafts.add(draft);
                Path code = folder.resolve("plan" + k);
                SourceFiles.write(code, PortableBoard.files(draft.plan()));
                Files.writeString(code.resolve("main.c"), SENSOR);
                Path board = Path.of(compiled(code));
                Files.move(board, folder.resolve("board" + k));
                tenMinutes(k, draft);
            }
            // A rig has eight sources at most.
            long all = through(cables, drafts, 0, 6) + through(cables, drafts, 6, 12);
            assertThat(all).isGreaterThan(100);
        } finally {
            cables.forEach(Process::destroy);
        }
    }

    /** Records some of the boards at once. @return how many rows were missing, of each as many as it dropped */
    private long through(List<Process> cables, List<Draft> drafts, int from, int to) throws Exception {
        List<Source> sources = new ArrayList<>();
        for (int k = from; k < to; k++) {
            String address = "serial:" + folder.resolve("cable" + k) + "@1000000";
            sources.add(new Source(k == from ? "" : "board" + k, SourceSetup.at(address), null));
        }
        Path rig = folder.resolve("cables.json");
        Files.writeString(rig, RigJson.write(new Rig("cables", sources, List.of(), List.of(), List.of(), Set.of())));
        String first = sources.get(0).setup().address();
        for (int k = from; k < to; k++) {
            cables.add(new ProcessBuilder(
                            "socat",
                            "pty,raw,echo=0,link=" + folder.resolve("cable" + k),
                            "EXEC:" + folder.resolve("board" + k) + " " + folder.resolve("notes" + k))
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start());
        }
        String take = folder.resolve("take" + from + ".zest").toString();
        Said said = Said.zesty("record", first, "--rig", rig.toString(), "--for", "6s", "--out", take);
        assertThat(said.status()).as(said.err()).isZero();
        for (Process cable : cables) {
            cable.destroy();
            cable.waitFor();
        }
        cables.clear();
        JsonNode columns = Said.zesty("info", take, "--json").json().path("channels");
        long all = 0;
        try (Take read = Take.open(Path.of(take))) {
            int at = 0;
            for (int k = from; k < to; k++) {
                Draft draft = drafts.get(k);
                // Clock and number are columns of their own before the channels.
                double[] clock = read.column(at);
                double[] numbers = read.column(at + 1);
                for (int c = 0; c < draft.channels() + 2; c++) {
                    JsonNode column = columns.get(at++);
                    assertThat(column.path("rate_hz").asDouble())
                            .as("plan %d of %d channels, %s", k, draft.channels(), columns)
                            // The boards run on this machine, too: a row is as late as a busy one makes it.
                            .isCloseTo(draft.rateHz(), within(0.2 * draft.rateHz()));
                }
                assertThat(numbers.length).isGreaterThan((int) draft.rateHz());
                // The n-th row that a board sent has a number: n and what it had dropped by then.
                List<Integer> dropped = dropped(folder.resolve("notes" + k));
                List<Long> micros = noted(folder.resolve("notes" + k), 1);
                int begun = sentAt(micros, clock[0]);
                int ended = sentAt(micros, clock[clock.length - 1]);
                long truth = dropped.get(ended)
                        - dropped.get(begun)
                        // What was sent before the port was open to the end is lost on the way.
                        + (ended - begun + 1 - numbers.length);
                long missing =
                        read.gaps(k - from).stream().mapToLong(Gap::missing).sum();
                assertThat(missing)
                        .as("plan %d at %s rows/s", k, draft.rateHz())
                        .isEqualTo(truth);
                all += truth;
            }
            assertThat(columns).as(columns.toString()).hasSize(at);
        }
        return all;
    }

    /** @return which row of those a board sent has that clock: the one that was sent soonest after it was read */
    private static int sentAt(List<Long> micros, double clock) {
        int best = 0;
        for (int n = 0; n < micros.size(); n++) {
            best = after(micros.get(n), clock) < after(micros.get(best), clock) ? n : best;
        }
        assertThat(after(micros.get(best), clock)).isLessThan(1_000_000);
        return best;
    }

    private static long after(long micros, double clock) {
        return micros - (long) clock & 0xFFFFFFFFL;
    }

    /** Whether a board by its own clock sends each row that is due, or counts it. */
    private void tenMinutes(int k, Draft draft) throws Exception {
        Path notes = folder.resolve("stepped" + k);
        run("", folder.resolve("board" + k).toString(), notes.toString(), "600");
        List<Integer> dropped = dropped(notes);
        int last = dropped.get(dropped.size() - 1);
        // 600 s in steps of 45 µs, nineteen of them 250 ms long.
        double due = (600 + 19 * 0.25) * draft.rateHz();
        assertThat(dropped.size() + last).as("plan %d", k).isCloseTo((int) due, within(3));
        assertThat(last).isCloseTo((int) (19 * 0.25 * draft.rateHz()), within(2 * 19));
    }
}
