package zesty.signal.app.command;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zesty.signal.core.picture.HeatScale;

/** Takes with pictures on the command line: what they hold, out into open formats and read back, made right as their rig says. */
@Timeout(240)
class FilmCommandsTest {
    private static final int WIDTH = 8;
    private static final int HEIGHT = 6;
    private static final int FRAMES = 20;

    @TempDir
    Path folder;

    private final double[][] sent = new double[FRAMES][WIDTH * HEIGHT];
    private Path capture;

    @BeforeEach
    void photograph() throws Exception {
        Random random = new Random(12);
        StringBuilder text = new StringBuilder();
        for (int f = 0; f < FRAMES; f++) {
            text.append("picture ").append(f).append('\n');
            for (int p = 0; p < WIDTH * HEIGHT; p++) {
                double away = Math.hypot(p % WIDTH - 2 - f / 8.0, p / WIDTH - 3);
                sent[f][p] = Math.rint(100 * (19 + 30 * Math.exp(-away * away / 5) + random.nextDouble())) / 100;
                text.append(p % WIDTH == 0 ? "" : " ").append(sent[f][p]).append(p % WIDTH == WIDTH - 1 ? "\n" : "");
            }
        }
        capture = Files.writeString(folder.resolve("camera.txt"), text);
    }

    private static String format(String picture) {
        return """
                {"zesty_rig": 3, "name": "Wren", "source": {"address": "stdin"}, "decode": {"format": "picture",
                 "delimiter": "blanks", "decimal_comma": false, "rows": 6, "width": 8, "per_line": false,
                 "columns": [{"name": "hottest", "unit": "°C"}, {"name": "coldest", "unit": "°C"}, {"name": "mean", "unit": "°C"}],
                 "stated_rate_hz": 4%s}}"""
                .formatted(picture);
    }

    private String record(String name, String picture) throws Exception {
        Path rig = Files.writeString(folder.resolve(name + ".json"), format(picture));
        String out = folder.resolve(name + ".zest").toString();
        Said said = Said.zesty("record", "file:" + capture, "--rig", rig.toString(), "--out", out);
        assertThat(said.status()).as(said.err()).isZero();
        return out;
    }

    @Test
    void aTakeWithPicturesSaysSoAndGivesEveryPixelBack() throws Exception {
        String take = record("plain", "");
        JsonNode info = Said.zesty("info", take, "--json").json();
        JsonNode picture = info.path("channels").get(3);
        assertThat(picture.path("name").asText()).isEqualTo("picture");
        assertThat(picture.path("width").asInt()).isEqualTo(8);
        assertThat(picture.path("height").asInt()).isEqualTo(6);
        assertThat(picture.path("samples").asInt()).isEqualTo(FRAMES);
        assertThat(picture.path("unit").asText()).isEqualTo("°C");
        assertThat(Said.zesty("info", take).out()).contains("picture, 8 × 6 pixels");

        Path csv = folder.resolve("out.csv");
        assertThat(Said.zesty("export", take, "--to", csv.toString()).status()).isZero();
        List<String> lines = Files.readAllLines(csv);
        assertThat(lines.get(0)).startsWith("t,hottest").contains(",r1c1").endsWith("r6c8 [°C]");
        assertThat(lines).hasSize(FRAMES + 1);
        for (int f = 0; f < FRAMES; f++) {
            String[] cells = lines.get(f + 1).split(",");
            assertThat(cells).hasSize(4 + WIDTH * HEIGHT);
            for (int p = 0; p < WIDTH * HEIGHT; p++) {
                assertThat(Double.parseDouble(cells[4 + p])).isEqualTo(sent[f][p]);
            }
        }
        // The same answers from the take, from the table, and from what the camera sent.
        JsonNode kept = Said.zesty("extract", "picture", take, "--set", "limit=30", "--json")
                .json();
        JsonNode table = Said.zesty("extract", "picture", csv.toString(), "--set", "limit=30", "--json")
                .json();
        JsonNode bytes = Said.zesty(
                        "extract", "picture", capture.toString(), "--rate", "4", "--set", "limit=30", "--json")
                .json();
        for (String key : List.of("hottest", "coldest", "mean", "share_above", "dead", "t_s")) {
            assertThat(kept.path(key)).as(key).isEqualTo(table.path(key)).isEqualTo(bytes.path(key));
        }
        for (int f = 0; f < FRAMES; f++) {
            int hottest = 0;
            for (int p = 0; p < WIDTH * HEIGHT; p++) {
                hottest = sent[f][p] > sent[f][hottest] ? p : hottest;
            }
            JsonNode spot = kept.path("hottest").get(f);
            assertThat(spot.path("value").asDouble()).isEqualTo(sent[f][hottest]);
            assertThat(List.of(spot.path("x").asInt(), spot.path("y").asInt()))
                    .containsExactly(hottest % WIDTH, hottest / WIDTH);
        }
        // Of one pixel alone, and of one that there is not.
        Path one = folder.resolve("one.csv");
        assertThat(Said.zesty("export", take, "--to", one.toString(), "--column", "mean")
                        .status())
                .isZero();
        assertThat(Files.readAllLines(one).get(0)).isEqualTo("t,mean [°C]");
        assertThat(Said.zesty("export", take, "--to", folder.resolve("no.csv").toString(), "--column", "r9c9")
                        .status())
                .isEqualTo(2);
    }

    @Test
    void partsOfThePictureAreChannelsOnTheCommandLineToo() throws Exception {
        String take = record(
                "parts",
                """
                , "picture": {"regions": [{"name": "exhaust", "form": "box", "from": [1, 2], "to": [5, 4], "measure": "hottest"},
                  {"name": "warm", "form": "box", "from": [0, 0], "to": [7, 5], "measure": "above", "limit": 30}],
                  "dead": [47], "emissivity": 0.9, "reflected": 20}""");
        List<Double> due = new ArrayList<>();
        double highest = 0;
        for (double[] frame : sent) {
            double most = 0;
            for (int y = 2; y <= 4; y++) {
                for (int x = 1; x <= 5; x++) {
                    most = Math.max(most, frame[y * WIDTH + x]);
                }
            }
            double mixed = Math.pow(most + 273.15, 4);
            due.add(Math.pow((mixed - 0.1 * Math.pow(293.15, 4)) / 0.9, 0.25) - 273.15);
            highest = Math.max(highest, due.get(due.size() - 1));
        }
        JsonNode level = Said.zesty("extract", "level", take, "--column", "exhaust", "--json")
                .json();
        assertThat(level.path("max").asDouble()).isCloseTo(highest, within(1e-4));
        double mean = due.stream().mapToDouble(d -> d).average().orElseThrow();
        assertThat(level.path("mean").asDouble()).isCloseTo(mean, within(1e-4));
        Path csv = folder.resolve("scaled.csv");
        assertThat(Said.zesty("export", take, "--to", csv.toString(), "--scaled")
                        .status())
                .isZero();
        String[] head = Files.readAllLines(csv).get(0).split(",");
        assertThat(head).contains("exhaust [°C]", "warm [%]");
        // Read of the take, pictures are made right, and as they came where that is asked for.
        double made = Said.zesty("extract", "picture", take, "--json")
                .json()
                .path("hottest")
                .get(0)
                .path("value")
                .asDouble();
        double came = Said.zesty("extract", "picture", take, "--raw", "--json")
                .json()
                .path("hottest")
                .get(0)
                .path("value")
                .asDouble();
        assertThat(came).isEqualTo(java.util.Arrays.stream(sent[0]).max().orElseThrow());
        assertThat(made).isGreaterThan(came + 1);

        for (String[] wrong : new String[][] {
            {"\"emissivity\": 3", "emissivity"},
            {
                "\"regions\": [{\"name\": \"a\", \"form\": \"circle\", \"from\": [0, 0], \"to\": [1, 1], \"measure\": \"mean\"}]",
                "circle"
            },
            {
                "\"regions\": [{\"name\": \"a\", \"form\": \"box\", \"from\": [0], \"to\": [1, 1], \"measure\": \"mean\"}]",
                "from"
            },
            {"\"glow\": 3", "glow"}
        }) {
            Path rig = Files.writeString(folder.resolve("wrong.json"), format(", \"picture\": {" + wrong[0] + "}"));
            Path out = folder.resolve("wrong.zest");
            Said said = Said.zesty("record", "file:" + capture, "--rig", rig.toString(), "--out", out.toString());
            assertThat(said.status()).as(wrong[0]).isEqualTo(2);
            assertThat(said.err()).contains(wrong[1]);
            assertThat(out).doesNotExist();
        }
    }

    /** The page has pictures as large as the sensor has pixels times a whole number, painted by the scale, hottest of all among them. */
    @Test
    void aReportShowsTheFirstTheHottestTheLastAndThoseAtMarkers() throws Exception {
        String take = record("reported", "");
        assertThat(Said.zesty("note", take, "--mark", "1.5=started").status()).isZero();
        Path page = folder.resolve("page.html");
        assertThat(Said.zesty("report", take, "--to", page.toString()).status()).isZero();
        String html = Files.readString(page);
        Matcher figure = Pattern.compile(
                        "<figure><img alt=\"([^\"]*)\" src=\"data:image/png;base64,([^\"]*)\"><figcaption>")
                .matcher(html);
        int hottest = 0;
        double most = Double.NEGATIVE_INFINITY;
        for (int f = 0; f < FRAMES; f++) {
            for (double value : sent[f]) {
                hottest = value > most ? f : hottest;
                most = Math.max(most, value);
            }
        }
        List<String> captions = new ArrayList<>();
        while (figure.find()) {
            captions.add(figure.group(1));
            BufferedImage image =
                    ImageIO.read(new ByteArrayInputStream(Base64.getDecoder().decode(figure.group(2))));
            int zoom = image.getWidth() / WIDTH;
            assertThat(image.getWidth()).isEqualTo(zoom * WIDTH);
            assertThat(image.getHeight()).isEqualTo(zoom * HEIGHT);
            if (figure.group(1).contains("the hottest of all")) {
                int p = 0;
                while (sent[hottest][p] < most) {
                    p++;
                }
                int at = image.getRGB(p % WIDTH * zoom + zoom / 2, p / WIDTH * zoom + zoom / 2);
                assertThat(at).isEqualTo(HeatScale.argb(1));
            }
        }
        assertThat(captions)
                .hasSizeBetween(3, 4)
                .filteredOn(one -> one.contains("the hottest of all"))
                .hasSize(1);
        assertThat(captions.get(0)).startsWith("0.0 s");
        assertThat(captions).anyMatch(one -> one.startsWith("1.5 s"));
        Path paper = folder.resolve("page.pdf");
        assertThat(Said.zesty("report", take, "--to", paper.toString()).status())
                .isZero();
        try (PDDocument document = Loader.loadPDF(paper.toFile())) {
            int images = 0;
            for (PDPage one : document.getPages()) {
                for (COSName name : one.getResources().getXObjectNames()) {
                    images += one.getResources().isImageXObject(name) ? 1 : 0;
                }
            }
            // The scale beside them.
            assertThat(images).isEqualTo(captions.size() + 1);
        }
    }
}
