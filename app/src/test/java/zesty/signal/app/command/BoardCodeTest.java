package zesty.signal.app.command;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

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
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
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
import zesty.signal.core.rig.ActSetup;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Source;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.scale.Conversion;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Line;
import zesty.signal.core.scale.Polynomial;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.scale.Thermistor;
import zesty.signal.core.scale.ValueTable;
import zesty.signal.engine.PortableProof;
import zesty.signal.takes.RigJson;
import zesty.signal.takes.TakeException;

/** What is written of a rig for a board goes through a C compiler that forgives nothing, runs, and does what the application does. */
@Timeout(240)
@Execution(ExecutionMode.CONCURRENT)
class BoardCodeTest {
    private static final double RATE = 250;

    @TempDir
    Path folder;

    private CCompiler compiler;

    @BeforeEach
    void compiler() {
        compiler = new CCompiler(folder);
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
        String program = compiler.compiled(code);
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
            double[] got = compiler.run(input.toString(), program, name)
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
        List<String> lines =
                compiler.run(input.toString(), compiler.compiled(code)).lines().toList();
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
}
