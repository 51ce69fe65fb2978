package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import zesty.signal.core.act.Band;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Reading;
import zesty.signal.core.rig.BandSetup;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.ReaderSight;
import zesty.signal.engine.Sight;

/** Answers other than the pulse in the real window: chosen, set, read live against what the boards know to be true. */
@Timeout(120)
class ReadersWindowTest extends RealWindow {
    ReadersWindowTest() {
        super(false);
    }

    private void connect(String board, int channels) throws Exception {
        robot.interact(() -> desk().connect("sim:" + board));
        until(s -> s.health().state() == LinkState.LIVE
                && s.channels().size() == channels
                && s.rig().source().equals("sim:" + board));
    }

    @SuppressWarnings("unchecked")
    private void choose(String column, String kind) throws Exception {
        robot.interact(() -> desk().focus().set(column));
        key(KeyCode.DIGIT5);
        awaitNode("#reader");
        ComboBox<String> reader = robot.lookup("#reader").queryAs(ComboBox.class);
        robot.interact(() -> reader.setValue(kind));
        until(s -> reading(s, column) != null);
    }

    private static Reading reading(Sight sight, String column) {
        return sight.channel(column)
                .flatMap(c -> c.reader())
                .map(ReaderSight::reading)
                .orElse(null);
    }

    private static List<double[]> lines(Reading reading) {
        return reading.items().stream()
                .filter(item ->
                        item instanceof Item.Records records && records.key().equals("peaks"))
                .flatMap(item -> ((Item.Records) item).records().stream())
                .toList();
    }

    @Test
    void theHumOfTheRudderIsNamedByItsLineAndWatchedByABand() throws Exception {
        connect("hull", 3);
        choose("ay", "vibration");
        // The model hums at 46 Hz with a second harmonic of three tenths.
        Sight seen = until(s -> reading(s, "ay") != null
                && lines(reading(s, "ay")).size() >= 2
                && s.channel("ay").orElseThrow().clean().end() > 6000);
        List<double[]> lines = lines(reading(seen, "ay"));
        assertThat(lines.get(0)[0]).isCloseTo(46, within(0.3));
        assertThat(lines.get(1)[0]).isCloseTo(92, within(0.6));
        assertThat(lines.get(1)[1] / lines.get(0)[1]).isCloseTo(0.3, within(0.06));
        awaitText("#reader-words", "RMS");
        write("#setting-peaks", "1");
        until(s -> lines(reading(s, "ay")).size() == 1);
        write("#setting-peaks", "none");
        awaitText(".error", "peaks takes a number from 1 to 50, was 'none'");
        String id = sight().rig().readersOn("ay").get(0).id();
        robot.interact(() -> desk().change(rig -> rig.withBand(new BandSetup(id, "crest", new Band(5, 9, 0.1)))));
        until(s -> s.channel("ay")
                        .orElseThrow()
                        .reader()
                        .orElseThrow()
                        .bands()
                        .get(0)
                        .side()
                == Band.Side.BELOW);
    }

    @Test
    void windIsReadFromCountedPulsesInItsOwnUnitAndSpansTheTake() throws Exception {
        connect("masthead", 2);
        choose("cups", "wind");
        write("#setting-factor", "0.7");
        write("#setting-per_turn", "2");
        Sight seen = until(s -> {
            Reading now = reading(s, "cups");
            return now != null
                    && now.trace("series").map(t -> t.seconds().length > 5).orElse(false)
                    && s.rig().readersOn("cups").get(0).settings().equals(Map.of("factor", "0.7", "per_turn", "2"));
        });
        Reading wind = reading(seen, "cups");
        // Pulses over the time they took, by hand: 0.7 m/s a turn a second, two pulses a turn.
        var raw = seen.channel("cups").orElseThrow().raw();
        double pulses = 0;
        for (long i = raw.start(); i < raw.end(); i++) {
            pulses += raw.value(i);
        }
        double seconds = (raw.end() - raw.start()) / 4.0;
        assertThat(wind.scalar("mean_mps")).isCloseTo(0.7 * pulses / 2 / seconds, within(0.25));
        assertThat(wind.scalar("gust_mps")).isGreaterThanOrEqualTo(wind.scalar("mean_mps"));
        awaitText("#reader-words", "gust");
        TextField factor = robot.lookup("#setting-factor").query();
        assertThat(factor.getText()).isEqualTo("0.7");
    }

    @Test
    void aKindThatDoesNotSuitSaysWhatWould() throws Exception {
        connect("deck", 5);
        robot.interact(() -> desk().focus().set("forearm"));
        key(KeyCode.DIGIT5);
        awaitNode("#reader");
        ComboBox<?> reader = robot.lookup("#reader").queryAs(ComboBox.class);
        robot.interact(() -> desk().change(
                        rig -> rig.withReader(zesty.signal.core.rig.ReaderSetup.on("forearm", "muscle", Map.of()))));
        awaitText("#reader-words", "a raw muscle signal needs 400 samples/s or more, not 200");
        assertThat(reader.getItems()).hasSizeGreaterThan(6);
        until(s -> s.rig().channels().stream().anyMatch(c -> c.column().equals("forearm")));
    }
}
