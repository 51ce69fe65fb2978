package zesty.signal.core.act;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Decisions worked by hand on samples at whole seconds, and against a reference that looks back over the whole record each time. */
class ControllerTest {
    private static final double NONE = Double.NaN;
    private static final Watch X = new Watch.Column("x");
    private static final Watch HITS = new Watch.Number("hits", "x", Map.of(), "", 10);

    private static Rule rule(String name, Condition when, double hysteresis, Rule.Holds holds) {
        return new Rule.OnSamples(name, when instanceof Condition.Events ? HITS : X, when, hysteresis, holds);
    }

    private static Rule rule(String name, Condition when) {
        return rule(name, when, 0, Rule.Holds.NONE);
    }

    /** Each decision as "time name state", each line as "time output line why". */
    private static List<String> run(RuleBook book, double period, double[] events, double... x) {
        List<String> said = new ArrayList<>();
        Controller controller = new Controller(book, new Controller.Listener() {
            @Override
            public void decided(double seconds, int rule, int state, double value) {
                said.add(text(seconds) + " " + book.rules().get(rule).name() + " " + state);
            }

            @Override
            public void sent(double seconds, int output, String line, Controller.Why why) {
                said.add(text(seconds) + " " + book.outputs().get(output).name() + " " + line + " "
                        + why.name().toLowerCase(Locale.ROOT));
            }
        });
        int watches = book.watches().size();
        int samples = book.watches().indexOf(X);
        int next = 0;
        for (int i = 0; i < x.length; i++) {
            while (next < events.length && events[next] <= i * period) {
                controller.event(book.watches().indexOf(HITS), events[next++]);
            }
            double[] row = new double[watches];
            Arrays.fill(row, NONE);
            if (samples >= 0) {
                row[samples] = x[i];
            }
            controller.samples(i * period, row);
        }
        controller.finish((x.length - 1) * period);
        return said;
    }

    private static String text(double seconds) {
        return Decimals.upToThree(seconds);
    }

    private static List<String> run(List<Rule> rules, double... x) {
        return run(new RuleBook(rules, List.of()), 1, new double[0], x);
    }

    @Test
    void edgesHoldsDeadTimeAndLatchAreToTheSample() {
        Rule.Holds none = Rule.Holds.NONE;
        assertThat(run(List.of(rule("r", new Condition.Above(5), 2, none)), 5.9, 6, 4, 3.9, 6))
                .containsExactly("1 r 1", "3 r 0", "4 r 1");
        assertThat(run(List.of(rule("r", new Condition.Below(5), 2, none)), 4.1, 4, 6, 6.1))
                .containsExactly("1 r 1", "3 r 0");
        assertThat(run(List.of(rule("r", new Condition.Inside(0, 10), 2, none)), 0.9, 1, -1, -1.1, 9, 11, 11.1))
                .containsExactly("1 r 1", "3 r 0", "4 r 1", "6 r 0");
        assertThat(run(List.of(rule("r", new Condition.Outside(0, 10), 2, none)), -1, -1.1, 0.9, 1, 11, 11.1, 9))
                .containsExactly("1 r 1", "3 r 0", "5 r 1", "6 r 0");
        // A missing value changes nothing and breaks no hold; a value below breaks it.
        assertThat(run(
                        List.of(rule("r", new Condition.Above(5), 0, new Rule.Holds(2, 1, 0, false))),
                        6,
                        NONE,
                        6,
                        4,
                        6,
                        4,
                        6,
                        6,
                        6,
                        6,
                        4,
                        4))
                .containsExactly("2 r 1", "11 r 0");
        assertThat(run(
                        List.of(rule("r", new Condition.Above(5), 0, new Rule.Holds(0, 0, 3, false))),
                        6,
                        4,
                        4,
                        4,
                        6,
                        6,
                        6))
                .containsExactly("0 r 1", "3 r 0", "6 r 1");
        assertThat(run(List.of(rule("r", new Condition.Above(5), 0, new Rule.Holds(0, 0, 0, true))), 4, 6, 4, 4))
                .containsExactly("1 r 1");
    }

    @Test
    void slopesSilencesAndEventsTurnAtTheirOwnMoment() {
        // Slope over (t − 3, t]: of three samples a second apart, from two on.
        assertThat(run(List.of(rule("r", new Condition.Rising(1, 3))), 0, 0.5, 3, 4, 4, 4, 4))
                .containsExactly("2 r 1", "4 r 0");
        assertThat(run(List.of(rule("r", new Condition.Falling(1, 3))), 0, -0.5, -3, -4, -4, -4, -4))
                .containsExactly("2 r 1", "4 r 0");
        assertThat(run(List.of(rule("r", new Condition.Silent(2.5))), 1, NONE, NONE, NONE, 1, NONE, NONE, NONE, NONE))
                .containsExactly("2.5 r 1", "4 r 0", "6.5 r 1");
        RuleBook twice = new RuleBook(List.of(rule("r", new Condition.Events(2, 1.5))), List.of());
        assertThat(run(twice, 1, new double[] {0.6, 2, 3, 3.2, 6}, new double[9]))
                .containsExactly("2 r 1", "2.1 r 0", "3 r 1", "4.5 r 0");
    }

    @Test
    void rulesMadeOfOthersFollowAtTheSameSample() {
        List<Rule> rules = List.of(
                rule("a", new Condition.Above(5)),
                rule("b", new Condition.Below(7)),
                new Rule.Made("both", Rule.Together.ALL, List.of("a", "b"), 0),
                new Rule.Made("some", Rule.Together.ANY, List.of("a", "both"), 0),
                new Rule.Made("no", Rule.Together.NOT, List.of("a"), 0));
        assertThat(run(rules, 4, 6, 8, 4))
                .containsExactly(
                        "0 b 1",
                        "0 no 1",
                        "1 a 1",
                        "1 both 1",
                        "1 some 1",
                        "1 no 0",
                        "2 b 0",
                        "2 both 0",
                        "3 a 0",
                        "3 b 1",
                        "3 some 0",
                        "3 no 1");
        List<Rule> then = List.of(
                rule("low", new Condition.Below(1)),
                rule("high", new Condition.Above(9)),
                new Rule.Made("leap", Rule.Together.THEN, List.of("low", "high"), 2));
        assertThat(run(then, 5, 0, 5, 9, 5, 0, 5, 5, 9, 5))
                .containsExactly(
                        "1 low 1",
                        "2 low 0",
                        "3 high 1",
                        "3 leap 1",
                        "4 high 0",
                        "4 leap 0",
                        "5 low 1",
                        "6 low 0",
                        "8 high 1",
                        "9 high 0");
    }

    @Test
    void bandsMoveByHysteresisAndAHoldBeginsAnewWhenAnotherIsAimedAt() {
        Rule bands = new Rule.InBands("b", X, new double[] {10, 20}, 2, 0);
        assertThat(run(List.of(bands), 10, 20, 21, 19, 8.9, 25)).containsExactly("2 b 2", "4 b 0", "5 b 2");
        Rule slow = new Rule.InBands("b", X, new double[] {10, 20}, 0, 2);
        assertThat(run(List.of(slow), 0, 15, 25, 25, NONE, 25, 0, 15, 15, 15)).containsExactly("5 b 2", "9 b 1");
    }

    @Test
    void outputsFollowTheirRuleEndSafeAndNeverStayOnTooLong() {
        List<Rule> rules = List.of(rule("hot", new Condition.Above(5)));
        Output fan = new Output.ByRule("fan", "fan 0", "hot", "fan 100", "fan off", 2.5);
        RuleBook book = new RuleBook(rules, List.of(fan));
        assertThat(run(book, 1, new double[0], 0, 6, 6, 0, 6, 6, 6, 6, 0, 6))
                .containsExactly(
                        "1 hot 1",
                        "1 fan fan 100 rule",
                        "3 hot 0",
                        "3 fan fan off rule",
                        "4 hot 1",
                        "4 fan fan 100 rule",
                        "6.5 fan fan 0 longest",
                        "8 hot 0",
                        "9 hot 1",
                        "9 fan fan 100 rule",
                        "9 fan fan 0 end");
        // What never sent anything counts as safe.
        assertThat(run(book, 1, new double[0], 0, 0)).isEmpty();
    }

    @Test
    void aValueGoesThroughMapSmoothingSlewAndDeadZoneOnceAPeriod() {
        Output plain = new Output.ByValue(
                "servo",
                "stop",
                X,
                new double[][] {{0, 0}, {10, 100}, {20, 0}},
                0,
                Double.POSITIVE_INFINITY,
                10,
                1,
                "go {value}!");
        assertThat(run(
                        new RuleBook(List.of(), List.of(plain)),
                        0.5,
                        new double[0],
                        -5,
                        1,
                        0.9,
                        2,
                        15,
                        NONE,
                        NONE,
                        30,
                        30))
                .containsExactly(
                        "0 servo go 0! value", "2 servo go 50! value", "4 servo go 0! value", "4 servo stop end");
        Output smooth = new Output.ByValue(
                "v", "0", X, new double[0][], 1 / Math.log(2), Double.POSITIVE_INFINITY, 0.001, 1, "{value}");
        assertThat(run(new RuleBook(List.of(), List.of(smooth)), 1, new double[0], 0, 8, 8, 8))
                .containsExactly("0 v 0 value", "1 v 4 value", "2 v 6 value", "3 v 7 value", "3 v 0 end");
        Output slewed = new Output.ByValue("v", "x", X, new double[0][], 0, 3, 0, 1, "{value}");
        assertThat(run(new RuleBook(List.of(), List.of(slewed)), 1, new double[0], 1, 8, 8, -1.0005))
                .containsExactly("0 v 1 value", "1 v 4 value", "2 v 7 value", "3 v 4 value", "3 v x end");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "a,a | '' | two rules are called 'a'",
                "a | b | 'made' names the rule 'b', which does not stand above it",
                "a | bands | 'made' names the rule 'bands', which is a band's number, not on or off"
            })
    void aBookThatNamesWhatIsNotThereIsRefused(String rules, String part, String message) {
        assertThatThrownBy(() -> {
                    List<Rule> all = new ArrayList<>();
                    all.add(new Rule.InBands("bands", X, new double[] {1}, 0, 0));
                    for (String name : rules.split(",")) {
                        all.add(rule(name, new Condition.Above(1)));
                    }
                    if (!part.isEmpty()) {
                        all.add(new Rule.Made("made", Rule.Together.NOT, List.of(part), 0));
                    }
                    new RuleBook(all, List.of());
                })
                .hasMessage(message);
    }

    /** The rule to the letter, each sample anew from the whole record. */
    private static List<String> reference(Rule.OnSamples rule, double[] t, double[] x) {
        List<String> said = new ArrayList<>();
        boolean on = false;
        double last = Double.NEGATIVE_INFINITY;
        double h = rule.hysteresis() / 2;
        int since = 0;
        for (int i = 0; i < t.length; i++) {
            if (Double.isNaN(x[i])) {
                continue;
            }
            double hold = on ? rule.holds().offForSeconds() : rule.holds().forSeconds();
            // The first sample of the unbroken run, back from here, that no turn came after.
            int k = i;
            double begin = NONE;
            while (k >= since) {
                if (!Double.isNaN(x[k])) {
                    double v = value(rule.when(), t, x, k);
                    if (Double.isNaN(v) || !would(rule.when(), v, h, on)) {
                        break;
                    }
                    begin = t[k];
                }
                k--;
            }
            boolean may =
                    !(on && rule.holds().latch()) && t[i] - last >= rule.holds().deadSeconds() - 1e-9;
            if (begin == begin && t[i] - begin >= hold - 1e-9 && may) {
                on = !on;
                last = t[i];
                since = i + 1;
                said.add(text(t[i]) + " r " + (on ? 1 : 0));
            }
        }
        return said;
    }

    private static double value(Condition when, double[] t, double[] x, int at) {
        double over = when instanceof Condition.Rising one
                ? one.overSeconds()
                : when instanceof Condition.Falling two ? two.overSeconds() : 0;
        if (over == 0) {
            return x[at];
        }
        double n = 0;
        double mt = 0;
        double mx = 0;
        for (int i = 0; i <= at; i++) {
            if (t[i] > t[at] - over + 1e-9 && !Double.isNaN(x[i])) {
                n++;
                mt += t[i];
                mx += x[i];
            }
        }
        double up = 0;
        double down = 0;
        for (int i = 0; i <= at; i++) {
            if (t[i] > t[at] - over + 1e-9 && !Double.isNaN(x[i])) {
                up += (t[i] - mt / n) * (x[i] - mx / n);
                down += (t[i] - mt / n) * (t[i] - mt / n);
            }
        }
        return n < 2 ? NONE : up / down;
    }

    private static boolean would(Condition when, double v, double h, boolean on) {
        if (when instanceof Condition.Above one) {
            return on ? v < one.limit() - h : v >= one.limit() + h;
        } else if (when instanceof Condition.Below one) {
            return on ? v > one.limit() + h : v <= one.limit() - h;
        } else if (when instanceof Condition.Inside one) {
            boolean in = v >= one.low() + h && v <= one.high() - h;
            return on ? v < one.low() - h || v > one.high() + h : in;
        } else if (when instanceof Condition.Outside one) {
            boolean out = v < one.low() - h || v > one.high() + h;
            return on ? v >= one.low() + h && v <= one.high() - h : out;
        } else if (when instanceof Condition.Rising one) {
            return on ? v < one.limit() - h : v >= one.limit() + h;
        }
        double limit = ((Condition.Falling) when).limit();
        return on ? v > -limit + h : v <= -limit - h;
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6})
    void everyConditionWithAnyHoldsEqualsTheReferenceOnWandersWithHoles(long seed) {
        Random random = new Random(20_261_129 + seed);
        for (int round = 0; round < 60; round++) {
            int n = 400;
            double[] t = new double[n];
            double[] x = new double[n];
            for (int i = 1; i < n; i++) {
                t[i] = t[i - 1] + 0.05 * (1 + random.nextInt(3));
                double last = Double.isNaN(x[i - 1]) ? 0 : x[i - 1];
                x[i] = random.nextInt(15) == 0 ? NONE : 0.9 * last + random.nextGaussian();
            }
            double limit = random.nextGaussian();
            List<Condition> all = List.of(
                    new Condition.Above(limit),
                    new Condition.Below(limit),
                    new Condition.Inside(limit - 1, limit + 1),
                    new Condition.Outside(limit - 1, limit + 1),
                    new Condition.Rising(limit, 0.5),
                    new Condition.Falling(limit, 0.7));
            Rule.Holds holds = new Rule.Holds(
                    random.nextInt(3) * 0.15, random.nextInt(3) * 0.1, random.nextInt(3) * 0.4, random.nextInt(9) == 0);
            for (Condition when : all) {
                Rule.OnSamples rule = new Rule.OnSamples("r", X, when, random.nextInt(3) * 0.5, holds);
                List<String> said = new ArrayList<>();
                Controller controller =
                        new Controller(new RuleBook(List.of(rule), List.of()), new Controller.Listener() {
                            @Override
                            public void decided(double seconds, int index, int state, double value) {
                                said.add(text(seconds) + " r " + state);
                            }

                            @Override
                            public void sent(double seconds, int output, String line, Controller.Why why) {
                                throw new AssertionError("there is no output");
                            }
                        });
                for (int i = 0; i < n; i++) {
                    controller.samples(t[i], new double[] {x[i]});
                }
                controller.finish(t[n - 1]);
                assertThat(said).as("%s", rule).isEqualTo(reference(rule, t, x));
                assertThat(controller.turns(0)).isEqualTo(said.size());
            }
        }
    }

    private static final class Said implements Controller.Listener {
        final List<String> lines = new ArrayList<>();
        Controller controller;

        @Override
        public void decided(double seconds, int rule, int state, double value) {
            lines.add(text(seconds) + " " + controller.book().rules().get(rule).name() + " " + state + " at "
                    + (Double.isNaN(value) ? "none" : text(value)));
        }

        @Override
        public void sent(double seconds, int output, String line, Controller.Why why) {
            lines.add(text(seconds) + " "
                    + controller.book().outputs().get(output).name() + " " + line + " "
                    + why.name().toLowerCase(Locale.ROOT));
        }
    }

    private static Said begun(RuleBook book) {
        Said said = new Said();
        said.controller = new Controller(book, said);
        return said;
    }

    private static void feed(Said said, double from, double... x) {
        for (int i = 0; i < x.length; i++) {
            double[] row = new double[said.controller.book().watches().size()];
            Arrays.fill(row, x[i]);
            said.controller.samples(from + i, row);
        }
    }

    @Test
    void anotherBookKeepsWhatStaysTheSameAndMakesTheRestSafe() {
        Rule a = rule("a", new Condition.Above(5), 0, new Rule.Holds(2, 0, 0, false));
        Rule b = rule("b", new Condition.Above(3));
        Rule ab = new Rule.Made("ab", Rule.Together.ALL, List.of("a", "b"), 0);
        Output lamp = new Output.ByRule("lamp", "off", "a", "on", "out", 100);
        Output sign = new Output.ByRule("sign", "dark", "b", "lit", "dim", 100);
        Said said = begun(new RuleBook(List.of(a, b, ab), List.of(lamp, sign)));
        feed(said, 0, 4, 6);
        assertThat(said.lines).containsExactly("0 b 1 at 4", "0 sign lit rule");
        // b gets another limit: its sign goes dark first, a's hold goes on, what is made of both begins anew.
        Rule other = rule("b", new Condition.Above(7));
        said.controller.change(new RuleBook(
                List.of(other, a, new Rule.Made("ab", Rule.Together.ALL, List.of("a", "b"), 0)), List.of(sign, lamp)));
        feed(said, 2, 6, 6, 8);
        assertThat(said.lines.subList(2, said.lines.size()))
                .containsExactly(
                        "1 sign dark end",
                        "3 a 1 at 6",
                        "3 lamp on rule",
                        "4 b 1 at 8",
                        "4 ab 1 at none",
                        "4 sign lit rule");
        assertThat(said.controller.turns(1)).isEqualTo(1);
        // Nothing changed: nothing is said, and the longest time counts on.
        said.controller.change(said.controller.book());
        int before = said.lines.size();
        said.controller.advance(103.5);
        assertThat(said.lines.subList(before, said.lines.size())).containsExactly("103 lamp off longest");
    }

    /** Rules and outputs go by their own column; of a book that is gone nothing speaks any more. */
    @Test
    void eachLooksAtItsOwnColumnAndWhatIsGoneIsSilent() {
        Watch other = new Watch.Column("other");
        Rule hot = rule("hot", new Condition.Above(5));
        Rule quiet = new Rule.OnSamples("quiet", X, new Condition.Silent(2), 0, Rule.Holds.NONE);
        Rule far = new Rule.OnSamples("far", other, new Condition.Above(50), 0, Rule.Holds.NONE);
        Output lamp = new Output.ByRule("lamp", "off", "hot", "on", "out", 3);
        Output dial = new Output.ByValue(
                "dial", "dial 0", X, new double[0][], 0, Double.POSITIVE_INFINITY, 0, 1, "dial {value}");
        Output vane = new Output.ByValue(
                "vane", "vane 0", other, new double[0][], 0, Double.POSITIVE_INFINITY, 0, 1, "vane {value}");
        Said said = begun(new RuleBook(List.of(hot, quiet, far), List.of(lamp, dial, vane)));
        said.controller.samples(0, new double[] {6, 40});
        said.controller.samples(1, new double[] {6, 60});
        said.controller.advance(1.5);
        assertThat(said.lines)
                .containsExactly(
                        "0 hot 1 at 6",
                        "0 lamp on rule",
                        "0 dial dial 6 value",
                        "0 vane vane 40 value",
                        "1 far 1 at 60",
                        "1 dial dial 6 value",
                        "1 vane vane 60 value");
        said.lines.clear();
        said.controller.change(new RuleBook(List.of(far), List.of()));
        said.controller.advance(9);
        said.controller.samples(9, new double[] {60});
        said.controller.finish(10);
        assertThat(said.lines.stream().filter(line -> !line.endsWith(" end"))).isEmpty();
        assertThat(said.controller.turns(0)).isEqualTo(1);
    }

    @Test
    void whatWasMadeSafeWaitsUntilItsRuleHasBeenOff() {
        Rule hot = rule("hot", new Condition.Above(5));
        Output lamp = new Output.ByRule("lamp", "off", "hot", "on", "out", 100);
        Output dial = new Output.ByValue(
                "dial", "dial 0", X, new double[0][], 0, Double.POSITIVE_INFINITY, 0, 1, "dial {value}");
        Said said = begun(new RuleBook(List.of(hot), List.of(lamp, dial)));
        feed(said, 0, 6, 6);
        assertThat(said.lines).containsExactly("0 hot 1 at 6", "0 lamp on rule", "0 dial dial 6 value");
        said.controller.madeSafe(0);
        said.controller.madeSafe(1);
        said.lines.clear();
        // Time passes with nothing new: neither drives. Then the rule goes off and on again.
        said.controller.advance(4.5);
        assertThat(said.lines).isEmpty();
        feed(said, 5, 7, 4, 8);
        said.controller.finish(7);
        assertThat(said.lines)
                .containsExactly(
                        "5 dial dial 7 value",
                        "6 hot 0 at 4",
                        "6 dial dial 4 value",
                        "7 hot 1 at 8",
                        "7 lamp on rule",
                        "7 dial dial 8 value",
                        "7 lamp off end",
                        "7 dial dial 0 end");
    }

    @Test
    void spansOfARuleAndOfBandsAreWhenTheyWouldHaveBeen() {
        double[] t = {0, 1, 2, 3, 4, 5, 6};
        double[] x = {4, 6, 7, 3, NONE, 8, 9};
        assertThat(RuleSpans.of(rule("r", new Condition.Above(5)), t, x))
                .containsExactly(new RuleSpans.On(1, 3, 1), new RuleSpans.On(5, 6, 1));
        assertThat(RuleSpans.of(new Rule.InBands("b", X, new double[] {5, 7.5}, 0, 0), t, x))
                .containsExactly(
                        new RuleSpans.On(0, 1, 0),
                        new RuleSpans.On(1, 3, 1),
                        new RuleSpans.On(3, 5, 0),
                        new RuleSpans.On(5, 6, 2));
        assertThat(RuleSpans.of(rule("r", new Condition.Above(50)), t, x)).isEmpty();
        assertThat(RuleSpans.of(rule("r", new Condition.Above(5)), new double[0], new double[0]))
                .isEmpty();
    }
}
