package zesty.signal.core.act;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The small parts that rules are made of, by hand: sides of a band, percents of a profile, times held, maps, and what is equal. */
class ActPartsTest {
    private static final Watch X = new Watch.Column("x");
    private static final Watch Y = new Watch.Column("y");

    /** A band from 10 to 20 with a hysteresis of 2 is left at its edges and entered 2 within. */
    @ParameterizedTest
    @CsvSource({
        "UNKNOWN,9.9,BELOW",
        "UNKNOWN,10,INSIDE",
        "UNKNOWN,20,INSIDE",
        "UNKNOWN,20.1,ABOVE",
        "BELOW,11.9,BELOW",
        "BELOW,12,INSIDE",
        "ABOVE,18.1,ABOVE",
        "ABOVE,18,INSIDE",
        "INSIDE,11,INSIDE",
        "INSIDE,9,BELOW",
        "ABOVE,9,BELOW",
        "BELOW,21,ABOVE",
        "ABOVE,NaN,UNKNOWN"
    })
    void aBandIsLeftAtItsEdgesAndEnteredWithin(Band.Side before, double value, Band.Side now) {
        assertThat(new Band(10, 20, 2).next(before, value)).isEqualTo(now);
    }

    @Test
    void percentsRunFromRestToFullWhicheverIsHigher() {
        Profile.Span up = new Profile.Span(X, 100, 300);
        Profile.Span down = new Profile.Span(X, 300, 100);
        assertThat(List.of(up.at(0), up.at(25), up.at(100), up.width(25))).containsExactly(100.0, 150.0, 300.0, 50.0);
        assertThat(List.of(down.at(0), down.at(25), down.at(100), down.width(25)))
                .containsExactly(300.0, 250.0, 100.0, 50.0);
        Profile profile =
                new Profile("mate", List.of(up)).with(new Profile.Span(Y, 0, 1)).with(down);
        assertThat(profile.spans()).containsExactly(new Profile.Span(Y, 0, 1), down);
        assertThat(profile.of(X)).contains(down);
        assertThat(new Profile("mate", List.of()).of(X)).isEmpty();
        assertThatThrownBy(() -> new Profile("mate", List.of(up, down))).hasMessageContaining("two spans");
    }

    /** On from 1 to 3 s and from 4 s on; in bands 0, 1 and 2 for a while each. */
    @Test
    void howLongEachStateWasHeld() {
        RuleBook book = new RuleBook(
                List.of(
                        new Rule.OnSamples("r", X, new Condition.Above(5), 0, Rule.Holds.NONE),
                        new Rule.InBands("b", X, new double[] {2, 8}, 0, 0)),
                List.of());
        List<String> said = new ArrayList<>();
        Controller controller = new Controller(book, new Controller.Listener() {
            @Override
            public void decided(double seconds, int rule, int state, double value) {
                said.add(seconds + " " + rule + " " + state);
            }

            @Override
            public void sent(double seconds, int output, String line, Controller.Why why) {
                said.add(line);
            }
        });
        assertThat(controller.isRunning()).isFalse();
        assertThat(controller.state(1)).isEqualTo(-1);
        double[] x = {0, 6, 9, 3, 9, 9};
        for (int i = 0; i < x.length; i++) {
            controller.samples(i, new double[] {x[i]});
        }
        assertThat(controller.isRunning()).isTrue();
        assertThat(controller.nowSeconds()).isEqualTo(5);
        assertThat(controller.held(0, 5)).containsExactly(2, 3);
        assertThat(controller.held(1, 7)).containsExactly(1, 2, 4);
        assertThat(List.of(controller.state(0), controller.state(1), controller.turns(0)))
                .containsExactly(1, 2, 3);
        assertThat(said).startsWith("1.0 0 1", "1.0 1 1", "2.0 1 2", "3.0 0 0");
    }

    private static Output.ByValue dial(double[][] map, double smooth) {
        return new Output.ByValue("dial", "dial 0", X, map, smooth, 1000, 0, 1, "dial {value}");
    }

    /** Before the first point and behind the last the map is level; between two it is straight; without points it is as it comes. */
    @Test
    void aMapIsStraightBetweenItsPointsAndLevelBeyond() {
        double[][] map = {{0, 10}, {4, 30}, {8, 20}};
        assertThat(lines(dial(map, 0), -5, 0, 1, 4, 6, 8, 99))
                .containsExactly("dial 10", "dial 10", "dial 15", "dial 30", "dial 25", "dial 20", "dial 20", "dial 0");
        assertThat(lines(dial(new double[0][], 0), 3, 7)).containsExactly("dial 3", "dial 7", "dial 0");
        // Smoothed over a second, each second goes 1 − 1/e of the way.
        assertThat(lines(dial(new double[0][], 1), 0, 100)).containsExactly("dial 0", "dial 63.212", "dial 0");
    }

    private static List<String> lines(Output output, double... x) {
        List<String> said = new ArrayList<>();
        Controller controller = new Controller(new RuleBook(List.of(), List.of(output)), new Controller.Listener() {
            @Override
            public void decided(double seconds, int rule, int state, double value) {
                said.add("decided");
            }

            @Override
            public void sent(double seconds, int at, String line, Controller.Why why) {
                said.add(line);
            }
        });
        for (int i = 0; i < x.length; i++) {
            controller.samples(i, new double[] {x[i]});
        }
        controller.finish(x.length - 1);
        return said;
    }

    /** What is equal in each of its numbers is the same, so that a book that is taken into force again changes nothing. */
    @Test
    void rulesAndOutputsAreEqualByTheirNumbers() {
        Rule.InBands bands = new Rule.InBands("b", X, new double[] {1, 2}, 0.1, 3);
        assertThat(bands)
                .isEqualTo(new Rule.InBands("b", X, new double[] {1, 2}, 0.1, 3))
                .hasSameHashCodeAs(new Rule.InBands("b", X, new double[] {1, 2}, 0.1, 3));
        assertThat(List.<Object>of(
                        new Rule.InBands("c", X, new double[] {1, 2}, 0.1, 3),
                        new Rule.InBands("b", Y, new double[] {1, 2}, 0.1, 3),
                        new Rule.InBands("b", X, new double[] {1, 3}, 0.1, 3),
                        new Rule.InBands("b", X, new double[] {1, 2}, 0.2, 3),
                        new Rule.InBands("b", X, new double[] {1, 2}, 0.1, 4),
                        "b"))
                .doesNotContain(bands);
        double[][] map = {{0, 1}, {2, 3}};
        Output.ByValue one = new Output.ByValue("a", "s", X, map, 1, 2, 3, 4, "{value}");
        double[][] alike = Arrays.stream(map).map(double[]::clone).toArray(double[][]::new);
        assertThat(one)
                .isEqualTo(new Output.ByValue("a", "s", X, alike, 1, 2, 3, 4, "{value}"))
                .hasSameHashCodeAs(new Output.ByValue("a", "s", X, alike, 1, 2, 3, 4, "{value}"));
        assertThat(List.<Object>of(
                        new Output.ByValue("b", "s", X, map, 1, 2, 3, 4, "{value}"),
                        new Output.ByValue("a", "t", X, map, 1, 2, 3, 4, "{value}"),
                        new Output.ByValue("a", "s", Y, map, 1, 2, 3, 4, "{value}"),
                        new Output.ByValue("a", "s", X, new double[][] {{0, 1}}, 1, 2, 3, 4, "{value}"),
                        new Output.ByValue("a", "s", X, map, 2, 2, 3, 4, "{value}"),
                        new Output.ByValue("a", "s", X, map, 1, 3, 3, 4, "{value}"),
                        new Output.ByValue("a", "s", X, map, 1, 2, 4, 4, "{value}"),
                        new Output.ByValue("a", "s", X, map, 1, 2, 3, 5, "{value}"),
                        new Output.ByValue("a", "s", X, map, 1, 2, 3, 4, "x{value}"),
                        "a"))
                .doesNotContain(one);
    }

    @Test
    void aBookSaysWhatItLooksAtAndCanLookAtSomethingElse() {
        RuleBook book = new RuleBook(
                List.of(
                        new Rule.OnSamples("r", X, new Condition.Above(5), 0, Rule.Holds.NONE),
                        new Rule.InBands("b", X, new double[] {1}, 0, 0),
                        new Rule.Made("m", Rule.Together.ALL, List.of("r", "r"), 0)),
                List.of(dial(new double[0][], 0)));
        assertThat(book.watches()).containsExactly(X);
        RuleBook other = book.watching(was -> Y);
        assertThat(other.watches()).containsExactly(Y);
        assertThat(other.rules().get(2)).isEqualTo(book.rules().get(2));
        assertThat(other.watching(was -> X)).isEqualTo(book);
        assertThat(X.words()).isEqualTo("x");
        assertThat(new Watch.Number("hits", "knock", Map.of(), "count", 10).words())
                .contains("hits", "knock", "count");
        assertThat(Arrays.stream(Deed.values()).map(Deed::words))
                .doesNotContain("")
                .doesNotHaveDuplicates();
        assertThat(Arrays.stream(LoopProposal.Temper.values()).map(LoopProposal.Temper::words))
                .doesNotContain("")
                .doesNotHaveDuplicates();
    }
}
