package zesty.signal.app.command;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Scaling;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeWriter;

/** The logbook and comparing, as the command line has them, on takes of levels that are known. */
@Timeout(240)
class LogbookTest {
    /** Of these numbers a scientific library's unequal-variance t test gave what is asked for below. */
    private static final double[] BEFORE = {71.2, 69.8, 73.1, 70.5, 72.2};

    private static final double[] AFTER = {75.9, 74.1, 78.8, 73.6, 77.0, 76.1};

    @TempDir
    Path folder;

    /** A take of 10 s at 50/s of a level that swings by one about it, half a unit lower after its mark at 6 s. */
    private Path take(String name, double level, int day) throws Exception {
        int rows = 500;
        double[] x = new double[rows];
        for (int i = 0; i < rows; i++) {
            x[i] = level + (i % 2 == 0 ? 1 : -1) - (i < 300 ? 0 : 0.5);
        }
        Path file = folder.resolve(name + ".zest");
        Rig rig = Rig.blank("Wren, mooring line", "stdin")
                .fittedTo(new DelimitedFormat(',', false, false, "pull", List.of(new Column("pull", "N")), null))
                .withChannels(List.of(new Channel("pull", "Pull", Scaling.asItCame("N"), Recipe.NONE, true)));
        try (TakeWriter writer = TakeWriter.create(file, name, rig, Instant.parse("2026-09-0" + day + "T10:00:00Z"))) {
            writer.append(new Block(new TimeBase.Steady(0, 0.02), new double[][] {x}, rows, List.of()));
            writer.mark(6, "slack water");
            writer.finish();
        }
        return file;
    }

    private String at(String name) {
        return folder.resolve(name).toString();
    }

    @Test
    void whatIsWrittenIntoTheLogbookIsFoundAgainAndTheSamplesStay() throws Exception {
        take("first", 10, 1);
        take("second", 20, 2);
        Path third = take("third", 30, 3);
        double[] samples;
        try (Take open = Take.open(third)) {
            samples = open.column(0);
        }
        assertThat(Said.zesty(
                        "note",
                        third.toString(),
                        "--title",
                        "Spring tide",
                        "--note",
                        "the new cleat held",
                        "--tag",
                        "cleat",
                        "--tag",
                        "tide",
                        "--mark",
                        "2.5=Gust"))
                .isEqualTo(new Said(0, "", ""));
        assertThat(Said.zesty("note", third.toString(), "--note", "and no chafe", "--untag", "tide", "--tag", "cleat")
                        .status())
                .isZero();
        JsonNode info = Said.zesty("info", third.toString(), "--json").json();
        assertThat(info.path("title").asText()).isEqualTo("Spring tide");
        assertThat(info.path("notes").asText()).isEqualTo("the new cleat held\nand no chafe");
        assertThat(info.path("tags"))
                .hasSize(1)
                .first()
                .extracting(JsonNode::asText)
                .isEqualTo("cleat");
        assertThat(info.path("marks")).hasSize(2);
        assertThat(info.path("marks").get(0).path("t_s").asDouble()).isEqualTo(2.5);
        assertThat(info.path("damage")).isEmpty();
        try (Take open = Take.open(third)) {
            assertThat(open.column(0)).containsExactly(samples);
        }

        JsonNode all = Said.zesty("takes", folder.toString(), "--json").json();
        assertThat(all).extracting(one -> one.path("title").asText()).containsExactly("Spring tide", "second", "first");
        assertThat(all.get(0).path("rig").asText()).isEqualTo("Wren, mooring line");
        assertThat(all.get(0).path("rows").asInt()).isEqualTo(500);
        // Words in any case, each anywhere: one in the notes, one a mark.
        assertThat(Said.zesty("takes", folder.toString(), "--search", "CLEAT gust", "--json")
                        .json())
                .hasSize(1);
        assertThat(Said.zesty("takes", folder.toString(), "--search", "cleat calm", "--json")
                        .json())
                .isEmpty();
        assertThat(Said.zesty("takes", folder.toString(), "--tag", "cleat", "--json")
                        .json())
                .hasSize(1);
        // A file that is none hides no other, and is told.
        Files.writeString(folder.resolve("torn.zest"), "rubbish");
        Said told = Said.zesty("takes", folder.toString(), "--json");
        assertThat(told.json()).hasSize(3);
        assertThat(told.err()).contains("torn.zest");
    }

    @ParameterizedTest
    @CsvSource({
        "--mark,12=late,is not within",
        "--mark,gust,--mark is SECONDS=TEXT",
        "--untag,storm,has no tag 'storm'",
        "--title,' ',a take needs a name"
    })
    void whatMakesNoSenseIsRefusedWholeAndWritesNothing(String option, String value, String said) throws Exception {
        Path file = take("first", 10, 1);
        Said refused = Said.zesty("note", file.toString(), "--tag", "kept out", option, value);
        assertThat(refused.status()).isEqualTo(2);
        assertThat(refused.err()).contains(said);
        try (Take open = Take.open(file)) {
            assertThat(open.tags()).isEmpty();
            assertThat(open.title()).isEqualTo("first");
        }
    }

    private List<String> group(String name, double[] levels) throws Exception {
        List<String> files = new ArrayList<>();
        for (int i = 0; i < levels.length; i++) {
            files.add(take(name + i, levels[i], 1 + i).toString());
        }
        return files;
    }

    @Test
    void twoGroupsAreHeldAgainstEachOtherAndPoorOnesAreLeftOut() throws Exception {
        String before = String.join(",", group("before", BEFORE));
        String after = String.join(",", group("after", AFTER));
        Path stub = folder.resolve("unmarked.zest");
        Files.copy(Path.of(after.split(",")[0]), stub);
        String[] words = {
            "compare",
            stub.toString(),
            "--reader",
            "level",
            "--column",
            "Pull",
            "--span",
            "0..5.98",
            "--group",
            "before=" + before,
            "--group",
            "after=" + after,
            "--json"
        };
        JsonNode found = Said.zesty(words).json();
        JsonNode test = found.path("test").path("mean");
        assertThat(test.path("kind").asText()).isEqualTo("welch");
        assertThat(test.path("difference").asDouble()).isCloseTo(4.556666666666672, within(1e-9));
        assertThat(test.path("low").asDouble()).isCloseTo(2.339540378056507, within(1e-6));
        assertThat(test.path("high").asDouble()).isCloseTo(6.7737929552768374, within(1e-6));
        assertThat(test.path("p").asDouble()).isCloseTo(0.0012566889530583089, within(1e-9));
        assertThat(test.path("n").asInt()).isEqualTo(11);
        assertThat(found.path("groups").path("before").path("mean").path("mean").asDouble())
                .isCloseTo(71.36, within(1e-9));
        assertThat(found.path("numbers").path("mean").path("n").asInt()).isEqualTo(12);

        // About the mark: a second before and two after it, of which two thirds lie half a unit lower.
        JsonNode about = Said.zesty(
                        "compare",
                        at("before0.zest"),
                        "--reader",
                        "level",
                        "--column",
                        "pull",
                        "--around",
                        "slack water=0,2",
                        "--json")
                .json();
        assertThat(about.path("rows").get(0).path("from_s").asDouble()).isEqualTo(6);
        assertThat(about.path("rows").get(0).path("numbers").path("mean").asDouble())
                .isCloseTo(70.7, within(0.02));
        assertThat(about.has("test")).isFalse();
        Said lacks = Said.zesty(
                "compare",
                at("before0.zest"),
                "--reader",
                "level",
                "--column",
                "pull",
                "--around",
                "tack=1,1",
                "--json");
        assertThat(lacks.json().path("left_out").get(0).path("why").asText()).contains("no mark 'tack'");
        assertThat(lacks.json().path("numbers")).isEmpty();
        assertThat(lacks.err()).contains("is left out");
        Said few = Said.zesty(
                "compare",
                "--reader",
                "level",
                "--column",
                "pull",
                "--group",
                "a=" + at("before0.zest"),
                "--group",
                "b=" + at("before1.zest"),
                "--json");
        assertThat(few.json().path("test").path("mean").isNull()).isTrue();
        assertThat(few.err()).contains("cannot be told");
        Said unequal = Said.zesty(
                "compare",
                "--reader",
                "level",
                "--column",
                "pull",
                "--group",
                "a=" + before,
                "--group",
                "b=" + after,
                "--paired");
        assertThat(unequal.status()).isEqualTo(2);
        assertThat(unequal.err()).contains("--paired needs two groups");
    }

    @Test
    void aTakeIsHandedOnRawScaledAndCleaned() throws Exception {
        Path file = take("first", 10, 1);
        assertThat(Said.zesty("note", file.toString(), "--tag", "given away").status())
                .isZero();
        assertThat(Said.zesty("export", file.toString(), "--to", at("out.json")))
                .isEqualTo(new Said(0, "", ""));
        JsonNode json = new com.fasterxml.jackson.databind.ObjectMapper()
                .readTree(folder.resolve("out.json").toFile());
        assertThat(json.path("rig").path("zesty_rig").asInt()).isEqualTo(3);
        assertThat(json.path("tags").get(0).asText()).isEqualTo("given away");
        assertThat(json.path("marks").get(0).path("text").asText()).isEqualTo("slack water");
        assertThat(json.path("columns").get(1).path("name").asText()).isEqualTo("pull");
        assertThat(json.path("columns").get(1).path("values")).hasSize(500);
        assertThat(json.path("columns").get(1).path("values").get(0).asDouble()).isEqualTo(11);
        assertThat(json.path("columns").get(0).path("values").get(499).asDouble())
                .isCloseTo(9.98, within(1e-9));

        Said sound = Said.zesty("export", file.toString(), "--to", at("out.wav"), "--column", "Pull");
        assertThat(sound.status()).as(sound.err()).isZero();
        assertThat(sound.err()).contains("rounded to 32-bit float");
        StringBuilder silent = new StringBuilder("t,x\n");
        for (int i = 0; i < 2000; i++) {
            silent.append(i / 100.0 + (i < 1000 ? 0 : 10))
                    .append(',')
                    .append(i % 50)
                    .append('\n');
        }
        Files.writeString(folder.resolve("silent.csv"), silent);
        assertThat(Said.zesty("import", at("silent.csv"), "--out", at("silent.zest"))
                        .status())
                .isZero();
        assertThat(Said.zesty("export", at("silent.zest"), "--to", at("silent.wav"))
                        .err())
                .contains("a sound has no gaps", "it lasts 20.0 s, the samples 30.0 s");
        assertThat(Said.zesty("export", file.toString(), "--to", at("out.npz")).status())
                .isZero();

        assertThat(Said.zesty("export", file.toString(), "--to", at("cleaned.csv"), "--cleaned")
                        .status())
                .isZero();
        List<String> lines = Files.readAllLines(folder.resolve("cleaned.csv"));
        assertThat(lines).hasSize(501).first().isEqualTo("t,Pull [N]");
        assertThat(lines.get(1)).isEqualTo("0,11");

        Said none = Said.zesty("export", file.toString(), "--to", at("no.npz"), "--column", "push");
        assertThat(none.status()).isEqualTo(2);
        assertThat(none.err()).contains("no column 'push'");
        assertThat(Said.zesty("export", file.toString(), "--to", at("no.mp9")).status())
                .isEqualTo(2);
        assertThat(Said.zesty("export", file.toString(), "--to", at("no.csv"), "--scaled", "--cleaned")
                        .status())
                .isEqualTo(2);
        assertThat(folder.resolve("no.npz")).doesNotExist();
    }

    /** The numbers of a level that is known stand on the page, with the notes, and the page asks no network. */
    @Test
    void aReportOfTwoTakesHasTheirLanesNumbersAndNotesOnPaperAndInABrowser() throws Exception {
        Path first = take("spring", 10, 1);
        Path second = take("neap", 20, 2);
        Said.zesty("note", first.toString(), "--note", "wind over tide, Ω and −");
        for (String format : List.of("pdf", "html")) {
            Path page = folder.resolve("page." + format);
            Said said = Said.zesty("report", first.toString(), second.toString(), "--to", page.toString());
            assertThat(said.status()).as(said.err()).isZero();
            String text;
            if (format.equals("pdf")) {
                try (PDDocument pdf = Loader.loadPDF(page.toFile())) {
                    text = new PDFTextStripper().getText(pdf);
                    assertThat(pdf.getDocumentInformation().getTitle()).isEqualTo("2 takes");
                }
            } else {
                text = Files.readString(page);
                assertThat(text).doesNotContainPattern("(https?:|src=|href=|url\\()");
                assertThat(text.split("<path ", -1)).hasSize(3);
            }
            assertThat(text)
                    .contains(
                            "spring", "neap", "wind over tide, Ω and −", "slack water", "Pull, N", "Wren, mooring line")
                    .contains("6.00 s", "Side by side");
        }
        assertThat(Said.zesty("report", first.toString(), "--to", at("page.doc"))
                        .status())
                .isEqualTo(2);
        assertThat(Said.zesty("report", at("none.zest"), "--to", at("p.pdf")).status())
                .isEqualTo(2);
        assertThat(folder.resolve("p.pdf")).doesNotExist();
    }
}
