package zesty.signal.app.window.workspace;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayOutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zesty.signal.boards.sim.DeckBoard;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.pulse.Pulse;
import zesty.signal.engine.StoredTake;
import zesty.signal.engine.TakeReading;
import zesty.signal.takes.Take;

class WorkspaceTest {
    @TempDir
    Path folder;

    @Test
    void theTimeWindowFollowsUntilMovedAndComesBack() {
        TimeWindow window = new TimeWindow();
        window.follow(20);
        window.extent(0, 100);
        assertThat(window.from()).isEqualTo(80);
        window.extent(0, 101);
        assertThat(window.to()).isEqualTo(101);
        window.zoom(0.5, 0.1);
        assertThat(window.following()).isTrue();
        assertThat(window.span()).isEqualTo(10);
        window.scroll(-2, true);
        window.extent(0, 150);
        assertThat(window.to()).isEqualTo(81);
        double under = window.from() + 0.25 * window.span();
        window.zoom(3, 0.25);
        assertThat(window.from() + 0.25 * window.span()).isCloseTo(under, within(1e-9));
        window.scroll(100, true);
        assertThat(window.following()).isTrue();
        assertThat(window.to()).isEqualTo(150);
        window.zoom(1e-12, 0.5);
        assertThat(window.span()).isEqualTo(0.002);
        window.showAll();
        assertThat(window.from()).isLessThanOrEqualTo(0);
        assertThat(window.to()).isGreaterThanOrEqualTo(150);
    }

    @Test
    void settingsComeBackAndRubbishGivesTheFirstOnes() throws Exception {
        Path file = folder.resolve("deep").resolve("window.json");
        List<String> told = new ArrayList<>();
        Settings settings = new Settings(
                        12,
                        34,
                        1111,
                        777,
                        true,
                        Look.CONTRAST,
                        TextSize.LARGEST,
                        7.5,
                        List.of("sim:deck"),
                        new Settings.View(Stop.CLEAN, "heel", new Cards(List.of("trim"), List.of("bilge", "heel"))),
                        new Settings.Ease(true, 3, true))
                .withRecent("stdin")
                .withRecent("sim:deck");
        settings.save(file);
        assertThat(Settings.load(file, told::add)).isEqualTo(settings);
        assertThat(settings.recent()).containsExactly("sim:deck", "stdin");
        // What an earlier version wrote.
        Files.writeString(file, "{\"night\": true, \"width\": 900}");
        assertThat(Settings.load(file, told::add).look()).isEqualTo(Look.NIGHT);
        assertThat(told).isEmpty();
        Files.writeString(file, "{ this is no JSON");
        assertThat(Settings.load(file, told::add)).isEqualTo(Settings.FIRST);
        Places places = new Places(folder);
        Files.writeString(places.lastRig(), "rubbish");
        assertThat(Workspace.lastRig(places, told::add).source()).isEmpty();
        // What does not read is out of the way, whole, and said; the rig is among the others, to be opened once it
        // reads.
        assertThat(told).hasSize(2).allMatch(words -> words.contains("kept as"));
        assertThat(places.lastRig()).doesNotExist();
        try (Stream<Path> aside = Files.list(places.rigs())) {
            assertThat(aside).singleElement().satisfies(kept -> assertThat(kept).hasContent("rubbish"));
        }
    }

    @Test
    void cardsKeepTheirPlacesAlsoWhileTheirChannelsAreNotThere() {
        List<String> columns = List.of("pulse", "forearm", "heel", "trim");
        Cards cards = Cards.FIRST.turned("heel").turned("gone");
        assertThat(cards.arranged(columns)).containsExactly("heel", "pulse", "forearm", "trim");
        cards = cards.moved("trim", -1, columns);
        assertThat(cards.arranged(columns)).containsExactly("heel", "pulse", "trim", "forearm");
        cards = cards.moved("heel", 1, columns);
        assertThat(cards.arranged(columns)).containsExactly("pulse", "heel", "trim", "forearm");
        assertThat(cards.moved("pulse", -1, columns)).isEqualTo(cards);
        cards = cards.without("heel").without("forearm");
        assertThat(cards.arranged(columns)).containsExactly("pulse", "trim");
        assertThat(cards.away(columns)).isEqualTo(2);
        assertThat(cards.all().arranged(List.of("gone", "heel", "trim"))).containsExactly("heel", "trim", "gone");
        assertThat(cards.turned("pulse").arranged(columns)).containsExactly("trim", "pulse");
    }

    /** What the forearm's takes were planned to be: one pull of each force, and the same pulls at ever worse places. */
    private void theForearmsTakesHoldTheirPlan() throws Exception {
        try (Take take = Take.open(folder.resolve("Sheet hand, rest to tired.zest"))) {
            Reading muscle = TakeReading.read(take, "muscle", List.of("muscle"), Map.of("rest", "1..5"));
            List<Event> pulls = muscle.events("bursts");
            assertThat(pulls).hasSize(5);
            assertThat(muscle.times("bursts")).containsExactly(new double[] {7, 14, 19, 24, 32}, within(0.05));
            assertThat(pulls.get(0).values()[4]).isEqualTo(100);
            assertThat(pulls.get(1).values()[4]).isLessThan(pulls.get(3).values()[4]);
            assertThat(pulls.get(3).values()[4]).isLessThan(pulls.get(2).values()[4]);
            // The shapes widen by a third in half a minute.
            assertThat(muscle.scalar("fatigue_hz_per_s")).isBetween(-2.5, -0.4);
        }
        try (Take take = Take.open(folder.resolve("Sheet hand, three places.zest"))) {
            Reading all = TakeReading.read(take, "muscle", List.of("muscle"), Map.of());
            assertThat(take.marks())
                    .extracting(mark -> mark.text())
                    .containsExactly("on the belly", "near the elbow", "near the wrist");
            // At the wrist mains hides them from a reading of all three: each place is to be read by itself.
            assertThat(all.times("bursts")).hasSizeGreaterThanOrEqualTo(6);
            assertThat(java.util.Arrays.copyOf(all.times("bursts"), 6))
                    .containsExactly(new double[] {7, 11, 15, 27, 31, 35}, within(0.05));
        }
    }

    private Reading thing(String title, String column) throws Exception {
        try (Take take = Take.open(folder.resolve(title + ".zest"))) {
            assertThat(take.marks()).isNotEmpty();
            return StoredTake.load(take)
                    .snapshot()
                    .channel(column)
                    .orElseThrow()
                    .reader()
                    .orElseThrow()
                    .reading();
        }
    }

    /** One good and one bad take of each thing: what the boards do in each mode is told apart by its reader. */
    private void theThingsTakesHoldWhatIsRightAndWhatIsWrong() throws Exception {
        Reading worn = thing("Rudder stock, worn", "ay");
        assertThat(worn.items())
                .anyMatch(item -> item instanceof Item.Records grown
                        && grown.key().equals("grown")
                        && grown.records().stream().anyMatch(one -> one[4] == 1 && Math.abs(one[0] - 131) < 0.5));
        double slaps = thing("Halyard, fresh breeze", "knock").scalar("rate_per_min");
        assertThat(slaps).isBetween(100.0, 145.0);
        assertThat(thing("Halyard, strikes twice", "knock").scalar("rate_per_min"))
                .isGreaterThan(1.3 * slaps);
        assertThat(thing("Masthead, gusty", "cups").scalar("gust_mps")).isGreaterThan(8);
        assertThat(thing("Masthead, calm", "cups").scalar("beaufort")).isLessThanOrEqualTo(1);
        assertThat(thing("Heel and trim, under way", "ax").quality().segments()).isEqualTo(8);
        assertThat(thing("Heel and trim, magnet near", "ax").quality().reasons())
                .anyMatch(why -> why.contains("magnet"));
        assertThat(thing("Whistle at the start", "sound").scalar("hz")).isCloseTo(1180, within(5.0));
        assertThat(thing("Whistle beside a generator", "sound").scalar("level_db"))
                .isGreaterThan(thing("Whistle at the start", "sound").scalar("level_db") + 2);
        assertThat(thing("Cupboard, heater on", "heat").scalar("gain")).isCloseTo(0.4, within(0.01));
        assertThat(thing("Cupboard, plug forgotten", "heat").scalar("gain")).isCloseTo(0, within(0.002));
    }

    @Test
    void theDemoTakesHoldTheBoardsTruth() throws Exception {
        // Told to stop at once it makes none; what an earlier start broke off is made anew.
        Files.writeString(folder.resolve("Long beat home.zest.making"), "half of it");
        DemoData.makeTakes(folder, () -> false);
        assertThat(folder.resolve("Long beat home.zest")).doesNotExist();
        DemoData.makeTakes(folder, () -> true);
        DemoData.makeTakes(folder, () -> true);
        theForearmsTakesHoldTheirPlan();
        theThingsTakesHoldWhatIsRightAndWhatIsWrong();
        DeckBoard board = new DeckBoard(DeckBoard.Settings.usual(12));
        for (int i = 0; i < 120_000; i++) {
            board.next(new ByteArrayOutputStream());
        }
        try (Take take = Take.open(folder.resolve("Long beat home.zest"))) {
            assertThat(take.rows()).isEqualTo(120_000);
            assertThat(take.mended()).isEmpty();
            StoredTake stored = StoredTake.load(take);
            Reading pulse =
                    stored.snapshot().channels().get(0).reader().orElseThrow().reading();
            List<Double> truth = board.pulse().truth();
            // The reading's is the mean of the rates from beat to beat.
            double rate = 0;
            for (int i = 1; i < truth.size(); i++) {
                rate += 60 / (truth.get(i) - truth.get(i - 1)) / (truth.size() - 1);
            }
            assertThat(pulse.scalar(Pulse.RATE)).isCloseTo(rate, within(0.5));
            // What cleaning delays is taken off: the beats stand on the rise before the true tops.
            double worst = 0;
            int near = 0;
            for (double beat : pulse.times("beats")) {
                double off = truth.stream()
                        .mapToDouble(t -> Math.abs(t - beat))
                        .min()
                        .orElse(9);
                if (off < 0.15) {
                    near++;
                    worst = Math.max(worst, off);
                }
            }
            assertThat((double) near / truth.size()).isGreaterThan(0.93);
            assertThat(worst).isLessThan(0.15);

            StoredTake changed =
                    stored.with(stored.snapshot().rig().withChannel("heel", c -> c.withRecipe(Recipe.NONE)));
            assertThat(changed.snapshot().channels().get(0).clean())
                    .isSameAs(stored.snapshot().channels().get(0).clean());
            assertThat(changed.snapshot().channels().get(2).clean().value(77)).isEqualTo(0.1 * take.column(3)[77]);
        }
    }
}
