package zesty.signal.core.rig;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Deed;
import zesty.signal.core.act.Output;
import zesty.signal.core.act.Profile;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.RuleBook;
import zesty.signal.core.act.Watch;

/** What a rig decides and drives: changed a part at a time, with what hangs on it. */
class ActSetupTest {
    private static final Watch AIR = new Watch.Column("air");
    private static final Watch MEAN = new Watch.Number("level", "air", Map.of(), "mean", 10);

    private static Rule.OnSamples rule(String name, Condition when) {
        return new Rule.OnSamples(name, AIR, when, 4, new Rule.Holds(1, 2, 3, true));
    }

    private static Rule.OnSamples above(String name, double limit) {
        return rule(name, new Condition.Above(limit));
    }

    private static Output.ByRule lamp(String name, String rule) {
        return new Output.ByRule(name, "off", rule, "on", "off", 60);
    }

    private static Output.ByValue dial(double[]... map) {
        return new Output.ByValue("dial", "dial 0", AIR, map, 0.5, 10, 1, 0.1, "dial {value}");
    }

    private static final ActSetup SOME = ActSetup.NONE
            .withRule(above("hot", 60))
            .withRule(above("warm", 40))
            .withRule(new Rule.Made("both", Rule.Together.ALL, List.of("hot", "warm"), 0))
            .withRule(new Rule.Made("neither", Rule.Together.NOT, List.of("both"), 0))
            .withRule(new Rule.InBands("stage", MEAN, new double[] {10, 20}, 1, 0))
            .withDeed("hot", Deed.TONE, true)
            .withDeed("hot", Deed.MARK, true)
            .withOutput(lamp("fan", "hot"), OutputUse.DRY.withLive(true))
            .withOutput(lamp("sign", "neither"), OutputUse.DRY)
            .withOutput(dial(), new OutputUse("", true, Caution.MOVING));

    private static List<String> rules(ActSetup act) {
        return act.book().rules().stream().map(Rule::name).toList();
    }

    private static List<String> outputs(ActSetup act) {
        return act.book().outputs().stream().map(Output::name).toList();
    }

    @Test
    void takingARuleOffTakesWhatIsMadeOfItAndWhatItDrives() {
        ActSetup less = SOME.withoutRule("hot");
        assertThat(rules(less)).containsExactly("warm", "stage");
        assertThat(outputs(less)).containsExactly("dial");
        assertThat(less.deeds()).isEmpty();
        assertThat(less.uses().keySet()).containsExactly("dial");
        assertThat(rules(SOME.withoutRule("neither"))).containsExactly("hot", "warm", "both", "stage");
        assertThat(outputs(SOME.withoutRule("neither"))).containsExactly("fan", "dial");
        assertThat(SOME.withoutRule("stage").deedsOf("hot")).isEqualTo(Set.of(Deed.TONE, Deed.MARK));
    }

    @Test
    void aPartIsChangedInItsPlace() {
        ActSetup hotter = SOME.withRule(above("hot", 70)).withDeed("hot", Deed.TONE, false);
        assertThat(rules(hotter)).isEqualTo(rules(SOME));
        assertThat(((Rule.OnSamples) hotter.book().rules().get(0)).when()).isEqualTo(new Condition.Above(70));
        assertThat(hotter.deedsOf("hot")).isEqualTo(Set.of(Deed.MARK));
        ActSetup other = SOME.withOutput(lamp("fan", "warm"), SOME.use("fan"));
        assertThat(outputs(other)).isEqualTo(outputs(SOME));
        assertThat(((Output.ByRule) other.book().outputs().get(0)).rule()).isEqualTo("warm");
        assertThat(other.use("fan").live()).isTrue();
        assertThat(SOME.withUse("fan", use -> use.withLive(false)).use("fan").live())
                .isFalse();
        assertThat(outputs(SOME.withoutOutput("fan"))).containsExactly("sign", "dial");
        // What is not there is used as a dry run, and does nothing.
        assertThat(SOME.use("nothing")).isEqualTo(OutputUse.DRY);
        assertThat(SOME.deedsOf("nothing")).isEmpty();
        assertThat(ActSetup.NONE.isNone()).isTrue();
        assertThat(SOME.isNone()).isFalse();
    }

    @ParameterizedTest
    @CsvSource({
        "above 20,        above 30 4",
        "below 20,        below 30 4",
        "inside 20 80,    inside 30 90 4",
        "outside 20 80,   outside 30 90 4",
        "rising 20,       rising 20 4"
    })
    void percentsAreOfTheSpanOfTheChosenProfile(String written, String inForce) {
        // 0 % is 10 and 100 % is 110: a percent is one, moved by ten; the hysteresis is a width.
        Profile helm = new Profile("the helm", List.of(new Profile.Span(AIR, 10, 110)));
        Rule.OnSamples rule = rule("r", condition(written));
        ActSetup act = ActSetup.NONE.withRule(rule).withPercent("r", true).withProfile(helm);
        Rule.OnSamples now = (Rule.OnSamples) act.inForce().rules().get(0);
        assertThat(words(now)).isEqualTo(inForce);
        assertThat(now.holds()).isEqualTo(rule.holds());
        assertThat(act.span(rule)).contains(helm.spans().get(0));
        // With rest above the hardest pull everything is the other way round, but low stays below high.
        ActSetup turned = act.withProfile(new Profile("the crew", List.of(new Profile.Span(AIR, 110, 10))));
        if (written.startsWith("inside")) {
            assertThat(words((Rule.OnSamples) turned.inForce().rules().get(0))).isEqualTo("inside 30 90 4");
        }
        assertThat(turned.profile()).isEqualTo("the crew");
        assertThat(turned.choosing("the helm").inForce()).isEqualTo(act.inForce());
        assertThat(act.withPercent("r", false).inForce()).isEqualTo(act.book());
        // Without a profile nothing is above a limit that is not known.
        Rule.OnSamples unknown =
                (Rule.OnSamples) act.choosing("").inForce().rules().get(0);
        assertThat(((Condition.Above) unknown.when()).limit()).isNaN();
    }

    private static Condition condition(String words) {
        String[] parts = words.split(" ");
        double first = Double.parseDouble(parts[1]);
        return switch (parts[0]) {
            case "above" -> new Condition.Above(first);
            case "below" -> new Condition.Below(first);
            case "inside" -> new Condition.Inside(first, Double.parseDouble(parts[2]));
            case "outside" -> new Condition.Outside(first, Double.parseDouble(parts[2]));
            default -> new Condition.Rising(first, 1);
        };
    }

    private static String words(Rule.OnSamples rule) {
        String limits;
        if (rule.when() instanceof Condition.Above one) {
            limits = "above " + (int) one.limit();
        } else if (rule.when() instanceof Condition.Below one) {
            limits = "below " + (int) one.limit();
        } else if (rule.when() instanceof Condition.Inside one) {
            limits = "inside " + (int) one.low() + " " + (int) one.high();
        } else if (rule.when() instanceof Condition.Outside one) {
            limits = "outside " + (int) one.low() + " " + (int) one.high();
        } else {
            limits = "rising " + (int) ((Condition.Rising) rule.when()).limit();
        }
        return limits + " " + (int) rule.hysteresis();
    }

    @Test
    void anOutputThatFollowsPercentsHasItsMapMoved() {
        ActSetup act = ActSetup.NONE
                .withOutput(dial(new double[] {20, 0}, new double[] {80, 100}), OutputUse.DRY)
                .withPercent("dial", true);
        Profile helm = new Profile("the helm", List.of(new Profile.Span(AIR, 10, 210)));
        Output.ByValue moved =
                (Output.ByValue) act.withProfile(helm).inForce().outputs().get(0);
        assertThat(moved.map()).isDeepEqualTo(new double[][] {{50, 0}, {170, 100}});
        assertThat(moved.smoothSeconds()).isEqualTo(0.5);
        // Turned round the points still rise, and go down.
        Profile crew = new Profile("the crew", List.of(new Profile.Span(AIR, 210, 10)));
        Output.ByValue turned =
                (Output.ByValue) act.withProfile(crew).inForce().outputs().get(0);
        assertThat(turned.map()).isDeepEqualTo(new double[][] {{50, 100}, {170, 0}});
        // Nothing measured: it stays at its first end.
        Output.ByValue still = (Output.ByValue) act.inForce().outputs().get(0);
        assertThat(still.map()).hasDimensions(1, 2);
        assertThat(still.map()[0][1]).isZero();
    }

    @Test
    void columnsThatAreCalledOtherwiseTakeRulesOutputsAndProfilesAlong() {
        Profile helm = new Profile("the helm", List.of(new Profile.Span(AIR, 1, 2), new Profile.Span(MEAN, 3, 4)));
        Rig rig = Rig.blank("r", "sim:cupboard").withAct(SOME.withProfile(helm));
        ActSetup moved = rig.renamed("air", "luft", "Luft").act();
        assertThat(moved.book().watches())
                .containsExactly(new Watch.Column("luft"), new Watch.Number("level", "luft", Map.of(), "mean", 10));
        assertThat(moved.chosen().orElseThrow().spans())
                .extracting(Profile.Span::watch)
                .containsExactly(new Watch.Column("luft"), new Watch.Number("level", "luft", Map.of(), "mean", 10));
        assertThat(moved.deedsOf("hot")).isEqualTo(SOME.deedsOf("hot"));
        assertThat(rig.renamed("wood", "holz", "Holz").act()).isEqualTo(rig.act());
    }

    @Test
    void whatMovesWaitsForItsCaution() {
        Rig rig = Rig.blank("r", "sim:cupboard").withAct(SOME);
        assertThat(rig.cautions()).containsExactly(Caution.MOVING);
        assertThat(rig.drives("dial")).isFalse();
        assertThat(rig.drives("fan")).isTrue();
        assertThat(rig.drives("sign")).isFalse();
        assertThat(rig.drives("nothing")).isFalse();
        assertThat(rig.acknowledging(Caution.MOVING).drives("dial")).isTrue();
        assertThat(rig.acknowledging(Caution.MOVING).cautions()).isEmpty();
        assertThatThrownBy(() -> new OutputUse("", false, Caution.BODY)).hasMessageContaining("heats or moves");
    }

    @Test
    void aChangeCarriesRulesOntoAnotherRigAndLeavesTheRest() {
        Rig before = Rig.blank("r", "sim:cupboard");
        Rig after = before.withAct(SOME);
        RigChange change = RigChange.between(before, after);
        assertThat(change.isNothing()).isFalse();
        assertThat(change.words()).isEqualTo("a rule or an output");
        Rig other = Rig.blank("other", "sim:hoist").acknowledging(Caution.LOAD);
        assertThat(change.onto(other).act()).isEqualTo(SOME);
        assertThat(change.onto(other).acknowledged()).isEqualTo(Set.of(Caution.LOAD));
        assertThat(change.reversed().onto(after).act()).isEqualTo(ActSetup.NONE);
        // A change of something else keeps the rules that are there.
        Rig named = before.withName("n");
        assertThat(RigChange.between(before, named).onto(after).act()).isEqualTo(SOME);
    }

    @Test
    void whatMakesNoSenseIsRefusedInWords() {
        Profile helm = new Profile("the helm", List.of());
        assertThatThrownBy(() -> ActSetup.NONE.choosing("nobody"))
                .hasMessage("there is no profile 'nobody'; there are []");
        assertThatThrownBy(() -> new ActSetup(
                        new RuleBook(List.of(), List.of()), Map.of(), Set.of(), Map.of(), List.of(helm, helm), ""))
                .hasMessage("two profiles have the same name");
        assertThatThrownBy(() -> new Profile(" ", List.of())).hasMessage("a profile needs a name");
        assertThatThrownBy(() -> new Profile.Span(AIR, 3, 3)).hasMessageContaining("two different numbers");
        assertThatThrownBy(() -> new Profile.Span(AIR, 3, Double.NaN)).hasMessageContaining("of air");
        Profile.Span span = new Profile.Span(AIR, 0, 1);
        assertThatThrownBy(() -> new Profile("p", List.of(span, span))).hasMessageContaining("two spans");
        assertThat(helm.with(span).with(new Profile.Span(AIR, 0, 2)).spans()).hasSize(1);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "puls, rate, bands, 1   | no reader is called 'puls'",
                "level, meen, bands, 1  | level has no number 'meen'; it has mean",
                "level, mean, edges, 1  | no setting of level is called 'edges'",
                "pulse, rate_bpm, kind, ear | ear",
                "motion, tilt, unit, g  | motion"
            })
    void aWatchOfWhatThereIsNotIsNamed(String watch, String said) {
        String[] parts = watch.split(", ");
        assertThatThrownBy(() -> WatchCheck.check(
                        new Watch.Number(parts[0], "air", Map.of(parts[2], parts[3].strip()), parts[1], 10)))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(said);
        WatchCheck.check(AIR);
        WatchCheck.check(MEAN);
        WatchCheck.check(new Watch.Number("hits", "air", Map.of(), "", 10));
    }
}
