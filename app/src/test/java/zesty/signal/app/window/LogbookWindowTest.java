package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextArea;
import javafx.scene.input.KeyCode;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.RecordingSnapshot;
import zesty.signal.takes.LogEntry;
import zesty.signal.takes.Shelf;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeWriter;

/** The logbook in the real window: found by a word of a note, written into, laid side by side, printed; a table dropped; a take on cue. */
@Timeout(400)
class LogbookWindowTest extends RealWindow {
    @TempDir
    Path folder;

    LogbookWindowTest() {
        super(true);
    }

    private List<Shelf.Entry> takes() {
        return fx(() -> workspace().takes().all().get());
    }

    private Shelf.Entry take(String title) {
        return takes().stream()
                .filter(one -> one.title().equals(title))
                .findFirst()
                .orElseThrow();
    }

    private void awaitTakes(int count) throws Exception {
        eventually(() -> assertThat(takes()).hasSize(count));
    }

    private void awaitFile(Path file) throws Exception {
        eventually(() -> assertThat(file).exists());
    }

    @Test
    void aTakeIsFoundByAWordOfItsNotesWrittenIntoAndPrinted() throws Exception {
        awaitTakes(DEMO_TAKES);
        key(KeyCode.T);
        awaitText("#takes-found", DEMO_TAKES + " takes");
        write("#take-search", "GREASED rudder");
        awaitText("#takes-found", "1 of " + DEMO_TAKES);
        awaitText(".take-title", "Rudder stock, well");
        eventually(() ->
                assertThat(fx(() -> robot.lookup(".take-title").queryAll())).hasSize(1));
        click("#choose");
        awaitText("#take-panel .day", "Rudder stock, well");
        awaitText("#take-numbers .table-number", "1323");
        double[] samples;
        try (Take open = Take.open(take("Rudder stock, well").file())) {
            samples = open.column(0);
        }
        write("#add-tag", "bush");
        awaitText("#notice", "Written into Rudder stock, well");
        awaitText("#untag", "bush");
        robot.interact(
                () -> robot.lookup("#take-notes").queryAs(TextArea.class).setText("Greased; a second time in May."));
        click("#keep-notes");
        awaitText("#notice", "Notes kept");
        try (Take open = Take.open(take("Rudder stock, well").file())) {
            assertThat(open.notes()).isEqualTo("Greased; a second time in May.");
            assertThat(open.tags()).containsExactly("rudder", "after", "bush");
            assertThat(open.column(0)).containsExactly(samples);
        }
        click("#undo");
        eventually(() -> assertThat(take("Rudder stock, well").notes()).isEqualTo("After the bush was greased."));
        // A second one beside it, and both on paper.
        robot.interact(() -> view().logbook()
                .choose(List.of(
                        take("Rudder stock, worn").file(),
                        take("Rudder stock, well").file())));
        awaitText("#take-panel .day", "2 takes chosen");
        awaitText("#take-numbers .table-number", "−130");
        Path page = folder.resolve("rudder.pdf");
        write("#report-path", page.toString());
        awaitText("#notice", "Report written: ");
        awaitFile(page);
        try (PDDocument pdf = Loader.loadPDF(page.toFile())) {
            assertThat(new PDFTextStripper().getText(pdf))
                    .contains("Side by side", "1453", "1323", "After the bush was greased.");
        }
    }

    @Test
    void aSpreadsheetsTableIsShownBeforeItIsReadAndBecomesATake() throws Exception {
        awaitTakes(DEMO_TAKES);
        Path table = folder.resolve("rain.csv");
        Files.writeString(table, "Zeit [ms];Regen [mm]\n0;0,0\n500;0,2\n1000;0,4\n1500;1,0\n");
        robot.interact(() -> new Dropping(workspace(), view()).take(table));
        awaitText("#take-panel .hint", "a decimal comma");
        awaitText("#import-rows .table-number", "0.4");
        click("#import-go");
        awaitText("#notice", "Imported: rain, 4 rows");
        awaitTakes(DEMO_TAKES + 1);
        try (Take take = Take.open(take("rain").file())) {
            assertThat(take.column(0)).containsExactly(0, 0.2, 0.4, 1);
            assertThat(take.columns().get(0).unit()).isEqualTo("mm");
            assertThat(take.times()).containsExactly(0, 0.5, 1, 1.5);
        }
        // A file that tells no times waits for a rate.
        Path dump = folder.resolve("kept.txt");
        Files.writeString(dump, "x\n1\n2\n3\n");
        robot.interact(() -> new Dropping(workspace(), view()).take(dump));
        awaitText("#take-panel .hint", "no times: give the rate");
        eventually(() -> assertThat(fx(() -> robot.lookup("#import-go").query().isDisabled()))
                .isTrue());
        write("#import-rate", "4");
        awaitText("#import-rows .table-number", "0.25");
        click("#import-go");
        awaitText("#notice", "Imported: kept, 3 rows");
    }

    @Test
    void aPartIsCutOutOfAnOpenTakeAndTheTakeStays() throws Exception {
        awaitTakes(DEMO_TAKES);
        Path whole = take("First reach, light air").file();
        byte[] before = Files.readAllBytes(whole);
        robot.interact(() -> workspace().open(whole));
        until(s -> s.health().state() == LinkState.STORED);
        robot.interact(() -> workspace().view().span().set(new Span(20, 50)));
        awaitText("#span-numbers .span-number", "30 s");
        click("#span-trim");
        awaitText("#notice", "Cut out: 600");
        awaitTakes(DEMO_TAKES + 1);
        try (Take part = Take.open(take("First reach, light air, part").file())) {
            assertThat(part.seconds()).isCloseTo(30, within(0.006));
            assertThat(part.notes()).endsWith("Cut out of \"First reach, light air\", from 20.000 to 50.000 s.");
            assertThat(part.tags()).containsExactly("reach", "light air");
        }
        assertThat(Files.readAllBytes(whole)).isEqualTo(before);
    }

    @Test
    void aRecordingWaitsForItsCueKeepsWhatCameBeforeAndMakesATakeEachTime() throws Exception {
        awaitTakes(DEMO_TAKES);
        until(s ->
                s.channel("pulse").isPresent() && s.channel("pulse").get().raw().end() > 800);
        click("#on-cue");
        robot.interact(() -> {
            text("#cue-before", "0.2 s");
            // An early beat comes 0.65 s after the one before it: what is kept from before it is whole all the same.
            text("#cue-stop", "0.3 s");
            text("#cue-start", "pulse > 600 V");
        });
        click("#record");
        awaitText("#notice", "a condition is COLUMN > NUMBER");
        click("#cue-again");
        // Scaled as the rig says: counts of a beat's foot and peak are 2.4 and 3.3 V.
        robot.interact(() -> text("#cue-start", "pulse > 3"));
        click("#record");
        eventually(() -> assertThat(recording().made()).hasSizeGreaterThanOrEqualTo(2));
        click("#record");
        awaitText("#notice", "Recordings saved: ");
        // The first may begin sooner than so much had come since it was armed.
        RecordingSnapshot.Made made = recording().made().get(1);
        try (Take take = Take.open(made.file())) {
            assertThat(take.marks().get(0).text()).isEqualTo("started: pulse > 3");
            assertThat(take.marks().get(0).seconds()).isCloseTo(0.2, within(0.02));
            assertThat(take.seconds()).isCloseTo(0.5, within(0.02));
        }
        awaitTakes(DEMO_TAKES + recording().made().size());
        awaitText("#record", "Record");
    }

    @Test
    void snapshotsOfEightPlacesAreATableAndATake() throws Exception {
        awaitTakes(DEMO_TAKES);
        until(s ->
                s.channel("pulse").isPresent() && s.channel("pulse").get().raw().end() > 800);
        key(KeyCode.S);
        for (int place = 1; place <= 8; place++) {
            write("#snapshot-remark", "place " + place);
            awaitText("#snapshots .hint", place == 1 ? "1 row" : place + " rows");
        }
        double heel = fx(() -> workspace().snapshots().rows().get(7).means()[2]);
        double noise = fx(() -> workspace().snapshots().rows().get(7).deviations()[2]);
        assertThat(heel).isBetween(-10.0, 30.0);
        assertThat(noise).isPositive();
        click("#snapshot-done");
        awaitText("#notice", "Snapshots kept: 8 rows");
        awaitTakes(DEMO_TAKES + 1);
        Shelf.Entry kept = takes().get(0);
        try (Take take = Take.open(kept.file())) {
            take.verify();
            assertThat(take.damage()).isEmpty();
            assertThat(take.rows()).isEqualTo(8);
            assertThat(take.marks()).hasSize(8).last().satisfies(mark -> assertThat(mark.text())
                    .isEqualTo("place 8"));
            assertThat(take.columns().get(4).name()).isEqualTo("Heel");
            assertThat(take.columns().get(5).name()).isEqualTo("Heel noise");
            assertThat(take.column(4)[7]).isEqualTo(heel);
            assertThat(take.column(5)[7]).isEqualTo(noise);
        }
    }

    /** Of these levels a scientific library's unequal-variance t test gives 2.34 to 6.77, p 0.0013. */
    @Test
    void twoGroupsOfTakesAreComparedAndTheSentenceIsThatOfAnIndependentTest() throws Exception {
        awaitTakes(DEMO_TAKES);
        double[] levels = {71.2, 69.8, 73.1, 70.5, 72.2, 75.9, 74.1, 78.8, 73.6, 77.0, 76.1};
        Rig rig = Rig.blank("Wren, mooring line", "stdin")
                .fittedTo(new DelimitedFormat(',', false, false, "pull", List.of(new Column("pull", "N")), null))
                .withReader(ReaderSetup.on("pull", "level", Map.of()));
        List<Path> files = new ArrayList<>();
        for (int i = 0; i < levels.length; i++) {
            double[] x = new double[500];
            for (int k = 0; k < x.length; k++) {
                x[k] = levels[i] + (k % 2 == 0 ? 1 : -1);
            }
            Path file = take("Masthead, calm").file().resolveSibling("pull " + i + ".zest");
            files.add(file);
            try (TakeWriter writer = TakeWriter.create(file, "pull " + i, rig, Instant.parse("2026-09-20T10:00:00Z"))) {
                writer.append(new Block(new TimeBase.Steady(0, 0.02), new double[][] {x}, x.length, List.of()));
                writer.finish();
            }
        }
        robot.interact(() -> {
            workspace().view().takesOpen().set(true);
            workspace().takes().list();
        });
        awaitTakes(DEMO_TAKES + 11);
        robot.interact(() -> view().logbook().choose(files));
        awaitText("#group-test .group-sentence", "mean is higher in the second than in the first group by 4.56");
        awaitText("#group-test .group-sentence", "with 95 % confidence between 2.34 and 6.77: the difference is real.");
        // Ten of them in pairs: the same library's paired test gives 4.52, 3.35 to 5.69.
        robot.interact(() -> view().logbook().choose(files.subList(0, 10)));
        awaitText("#group-test .group-sentence", "in the second than in the first group by 4.52");
        fire("#group-pairs");
        awaitText("#group-test .group-sentence", "with 95 % confidence between 3.35 and 5.69: the difference is real.");
        robot.interact(() -> view().logbook().choose(files.subList(0, 9)));
        awaitText("#group-test .group-sentence", "with 95 % confidence between");
        fire("#group-pairs");
        awaitText("#group-test .hint", "Pairs need as many takes in one group as in the other.");
        trialsAndSetups(files);
        // Two of a group are too few to tell.
        robot.interact(() -> view().logbook().choose(List.of(files.get(0), files.get(1), files.get(5), files.get(6))));
        awaitText("#group-test .group-sentence", "Below 3 takes in each group it cannot be told");
    }

    /** What takes with a tag say, all numbers of three, what else differs, and how the shelf is put in order. */
    private void trialsAndSetups(List<Path> files) throws Exception {
        for (int i : new int[] {0, 1, 2, 5, 6, 7}) {
            try (Take open = Take.open(files.get(i))) {
                String tag = i < 5 ? "old line" : "new line";
                open.write(new LogEntry(null, null, List.of(tag), List.of(), List.of()));
            }
        }
        robot.interact(() -> workspace().takes().list());
        eventually(() -> assertThat(take("pull 7").tags()).isNotEmpty());
        List<Path> tagged = List.of(files.get(0), files.get(1), files.get(2), files.get(5), files.get(6), files.get(7));
        robot.interact(() -> view().logbook().choose(tagged));
        // Of 71.2, 69.8, 73.1 the mean is 71.37 and the standard deviation 1.66; of 75.9, 74.1, 78.8 76.27 and 2.37.
        awaitText("#trials .table-number", "71.37 ± 1.7");
        awaitText("#trials .table-number", "76.27 ± 2.4");
        press("#all-numbers");
        awaitText("#side-by-side .hint", "F − A");
        press("#close-wide");
        robot.interact(() -> view().logbook()
                .choose(List.of(files.get(0), take("Masthead, calm").file())));
        awaitText("#take-panel .hint", "Rig: Wren, mooring line in A, Wren, wind in B");
        robot.interact(() -> view().logbook().choose(List.of(files.get(3))));
        awaitText("#take-panel .day", "pull 3");
        robot.interact(() -> robot.lookup("#other-rig")
                .queryAs(MenuButton.class)
                .getItems()
                .get(0)
                .fire());
        awaitText("#notice", "has no column of the rig");
        robot.interact(() -> box("#take-rigs").setValue("Wren, mooring line"));
        awaitText("#takes-found", "11 of " + (DEMO_TAKES + 11));
        robot.interact(() -> workspace()
                .takes()
                .write(
                        take("pull 4"),
                        new LogEntry(null, null, List.of(Shelf.Entry.STAR), List.of(), List.of()),
                        null));
        eventually(() -> assertThat(take("pull 4").starred()).isTrue());
        robot.interact(() -> box("#take-order").getSelectionModel().select(2));
        eventually(() -> assertThat(first()).isEqualTo("pull 4"));
        robot.interact(() -> box("#take-order").getSelectionModel().select(0));
        robot.interact(() -> box("#take-rigs").getSelectionModel().select(0));
    }

    @SuppressWarnings("unchecked")
    private ComboBox<Object> box(String query) {
        return robot.lookup(query).queryAs(ComboBox.class);
    }

    private String first() {
        return fx(() -> robot.lookup(".take-title").queryAllAs(Label.class).stream()
                .map(Label::getText)
                .findFirst()
                .orElse(""));
    }

    private void text(String query, String text) {
        robot.lookup(query).queryAs(javafx.scene.control.TextField.class).setText(text);
    }

    private RecordingSnapshot recording() {
        return fx(() -> workspace().live().snapshot(System.nanoTime()).recording());
    }
}
