package zesty.signal.takes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import zesty.signal.core.plan.Draft;
import zesty.signal.core.plan.Plan;
import zesty.signal.core.read.Need;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.kinds.ReaderKinds;

/** Plans in the making, kept from one day to the next. */
class DraftJsonTest {
    @Test
    void everyPlanComesBackTheSame() throws Exception {
        Random random = new Random(9);
        for (ReaderKind kind : ReaderKinds.all()) {
            for (Need need : kind.needs()) {
                Draft first = Draft.of(kind.name(), need, "mean:5");
                Draft draft = first.withRate(0.1 + 1000 * random.nextDouble())
                        .withChannels(1 + random.nextInt(20))
                        .withLine(9600 * (1 + random.nextInt(9)), random.nextBoolean())
                        .withConverter(new Plan.Converter(
                                8 + random.nextInt(16), 3.3, random.nextDouble(), 1 + random.nextInt(64)))
                        .withSignal(random.nextDouble() + 0.01, "lowpass:0.3@2", List.of(100.0, 1 / 3.0))
                        .withMemory(100 + random.nextInt(9000))
                        .withBattery(1000 * random.nextDouble() + 1, 77.7, 24);
                assertThat(DraftJson.read(DraftJson.write(draft), "plan.json")).isEqualTo(draft);
                assertThat(DraftJson.read(DraftJson.write(first), "plan.json")).isEqualTo(first);
            }
        }
    }

    @Test
    void whatIsSpoiltIsNamedAndASensorThatIsNoMoreBecomesTheUsualOne() throws Exception {
        ReaderKind pulse = ReaderKinds.of("pulse");
        String text = DraftJson.write(Draft.of("pulse", pulse.needs().get(1), ""));
        Draft renamed = DraftJson.read(text.replace("electrodes with an amplifier", "something else"), "plan.json");
        assertThat(renamed.need()).isEqualTo(pulse.needs().get(0));
        for (String[] spoilt : new String[][] {
            {"\"channels\" : 1", "\"channels\" : 0", "1 to 64 channels"},
            {"\"kind\" : \"pulse\"", "\"kind\" : \"mood\"", "no reader is called 'mood'"},
            {"\"baud\" : 115200.0", "\"baud\" : -1", "the line's speed must be above 0"},
            {"\"bits\" : 10", "\"bits\" : 99", "converter.bits must be 1 to 32"},
            {"\"recipe\" : \"\"", "\"recipe\" : \"melt:5\"", "melt"}
        }) {
            assertThat(text).contains(spoilt[0]);
            assertThatThrownBy(() -> DraftJson.read(text.replace(spoilt[0], spoilt[1]), "plan.json"))
                    .isInstanceOf(TakeException.class)
                    .hasMessageContaining("plan.json")
                    .hasMessageContaining(spoilt[2]);
        }
        assertThatThrownBy(() -> DraftJson.read("[1", "plan.json")).isInstanceOf(TakeException.class);
    }
}
