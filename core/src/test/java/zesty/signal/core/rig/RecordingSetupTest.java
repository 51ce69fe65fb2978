package zesty.signal.core.rig;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Collections;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.scale.Scaling;

/** What a recording goes by, and how a change of the rig is told in one. */
class RecordingSetupTest {
    private static Rig rig() {
        return Rig.blank("Wren", "stdin")
                .fittedTo(new DelimitedFormat(
                        ',', false, false, "", List.of(new Column("pull", "N"), new Column("heel", "")), null));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "rest 60 s | rest:0:60",
                "rest 1 min, pull 5 s | rest:0:60, pull:60:5",
                "2 x (a b 1.5 s, c 2s), a b 1 s | a b 1:0:1.5, c 1:1.5:2, a b 2:3.5:1.5, c 2:5:2, a b 3:7:1",
                "3 × (x 1 s) | x 1:0:1, x 2:1:1, x 3:2:1"
            })
    void aProtocolIsParted(String text, String phases) {
        List<String> parted = Protocol.parse(text).phases().stream()
                .map(one -> one.name() + ":" + plain(one.startSeconds()) + ":" + plain(one.seconds()))
                .toList();
        assertThat(String.join(", ", parted)).isEqualTo(phases);
    }

    private static String plain(double seconds) {
        return seconds == Math.rint(seconds) ? String.valueOf((long) seconds) : String.valueOf(seconds);
    }

    @Test
    void thePhaseOfAMomentIsTheOneThatHasBegun() {
        Protocol protocol = Protocol.parse("a 2 s, b 3 s");
        assertThat(List.of(0.0, 1.999, 2.0, 4.999, 5.0, 9.0))
                .extracting(protocol::at)
                .containsExactly(0, 0, 1, 1, 2, 2);
        assertThat(protocol.seconds()).isEqualTo(5);
        assertThat(protocol.length()).isEqualTo("5 s");
        assertThat(Protocol.NONE.at(3)).isZero();
    }

    @Test
    void markersHaveAKeyEachAndWordsOfTheirOwn() {
        assertThatThrownBy(() -> new RecordingSetup(List.of("gust", " gust "), Protocol.NONE, List.of()))
                .hasMessageContaining("words of its own");
        assertThatThrownBy(() -> new RecordingSetup(List.of("gust", " "), Protocol.NONE, List.of()))
                .hasMessageContaining("words of its own");
        assertThatThrownBy(() -> new RecordingSetup(Collections.nCopies(9, "a"), Protocol.NONE, List.of()))
                .hasMessageContaining("at most 8");
        assertThat(new RecordingSetup(List.of(), Protocol.NONE, List.of("b", "a", "b")).leftOut())
                .containsExactly("a", "b");
    }

    @Test
    void aChangeIsCarriedOverToAnotherRigAndTakenBack() {
        Rig before = rig();
        RecordingSetup setup = new RecordingSetup(List.of("gust"), Protocol.parse("rest 5 s"), List.of("heel"));
        RigChange change = RigChange.between(before, before.withRecording(setup));
        assertThat(change.words()).isEqualTo("what a recording goes by");
        assertThat(change.remark()).isEmpty();
        Rig other = before.withName("Tern").withChannel("pull", c -> c.withRecipe(Recipe.parse("mean:3")));
        Rig changed = change.onto(other);
        assertThat(changed.recording()).isEqualTo(setup);
        assertThat(changed.name()).isEqualTo("Tern");
        assertThat(change.reversed().onto(changed)).isEqualTo(other);
        // What else is changed leaves it alone.
        assertThat(changed.withSource("sim:deck").acknowledging(Caution.BODY).recording())
                .isEqualTo(setup);
    }

    @Test
    void aRecordingIsToldWhatChangedOfItsNumbers() {
        Rig before = rig().withReader(new ReaderSetup("level", List.of("heel"), Map.of()));
        Rig after = before.withChannel("pull", c -> c.withRecipe(Recipe.parse("median:5 | mean:3")))
                .withChannel("heel", c -> c.withScaling(new Scaling(null, 0.1, 0, "°")))
                .withReader(new ReaderSetup("level", List.of("heel"), Map.of("hysteresis", "2")))
                .withReader(new ReaderSetup("tone", List.of("pull"), Map.of()));
        assertThat(RigChange.between(before, after).remark())
                .startsWith("changed: cleaning of pull is now median:5 | mean:3; scaling of heel is now ")
                .contains(", in °; ", "reader level(heel) set to {hysteresis=2}; ", "reader tone(pull) added");
        assertThat(RigChange.between(after, before).remark())
                .contains("cleaning of pull is now none", "reader tone(pull) taken off");
        assertThat(RigChange.between(before, before.withChannel("heel", c -> c.withShown(false)))
                        .remark())
                .isEmpty();
    }
}
