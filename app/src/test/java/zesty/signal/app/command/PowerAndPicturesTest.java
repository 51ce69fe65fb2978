package zesty.signal.app.command;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Pictures, supplies, cells and changes as the command line answers them, key by key. */
@Timeout(240)
class PowerAndPicturesTest {
    @TempDir
    Path folder;

    private String file(String name, String text) throws Exception {
        Path file = folder.resolve(name);
        Files.writeString(file, text);
        return file.toString();
    }

    /** Two pictures of three columns and two rows, a quarter of a second apart. */
    private String pictures() throws Exception {
        return file("heat.csv", "t,r1c1,r1c2,r1c3,r2c1,r2c2,r2c3\n5,20,21,22,23,24,25\n5.25,30,21,22,23,24,19\n");
    }

    @Test
    void aPictureIsToldKeyByKeyOneEntryAPicture() throws Exception {
        JsonNode told = Said.zesty(
                        "extract", "picture", pictures(), "--set", "limit=22", "--set", "box=1..2,0..0", "--json")
                .json();
        JsonNode wanted = new ObjectMapper()
                .readTree(
                        """
                        {"width": 3, "height": 2, "frames": 2, "rate_hz": 4.0, "t_s": [0.0, 0.25],
                         "hottest": [{"value": 25.0, "x": 2, "y": 1}, {"value": 30.0, "x": 0, "y": 0}],
                         "coldest": [{"value": 20.0, "x": 0, "y": 0}, {"value": 19.0, "x": 2, "y": 1}],
                         "mean": [22.5, 23.166666666666668], "share_above": [0.5, 0.5],
                         "box": [{"min": 21.0, "mean": 21.5, "max": 22.0}, {"min": 21.0, "mean": 21.5, "max": 22.0}],
                         "dead": [], "quality": 1.0}""");
        assertThat(told).isEqualTo(wanted);
        assertThat(Said.zesty("extract", "picture", pictures(), "--column", "picture", "--rate", "2", "--json")
                        .json()
                        .path("t_s")
                        .get(1)
                        .asDouble())
                .isEqualTo(0.5);
    }

    @Test
    void whatACameraSentIsReadFromItsTextAndFromItsTakeAlike() throws Exception {
        String take = folder.resolve("heat.zest").toString();
        Random random = new Random(3);
        StringBuilder text = new StringBuilder();
        for (int f = 0; f < 12; f++) {
            text.append("picture ").append(f).append('\n');
            for (int y = 0; y < 6; y++) {
                for (int x = 0; x < 8; x++) {
                    double value = x == 5 && y == 3 ? 60.5 + f : 20 + Math.rint(10 * random.nextDouble()) / 10;
                    text.append(x == 0 ? "" : " ").append(value);
                }
                text.append('\n');
            }
        }
        String capture = file("camera.txt", text.toString());
        assertThat(Said.zesty("record", "file:" + capture, "--out", take).status())
                .isZero();
        JsonNode sent = Said.zesty("extract", "picture", capture, "--rate", "4", "--json")
                .json();
        JsonNode kept = Said.zesty("extract", "picture", take, "--json").json();
        assertThat(sent.path("width").asInt()).isEqualTo(8);
        assertThat(sent.path("height").asInt()).isEqualTo(6);
        assertThat(sent.path("frames").asInt()).isGreaterThanOrEqualTo(11);
        // One pixel alone that stands out in every picture is told as dead, and the hottest is in doubt.
        assertThat(sent.path("dead")).hasSize(1).first().satisfies(dead -> {
            assertThat(dead.path("x").asInt()).isEqualTo(5);
            assertThat(dead.path("y").asInt()).isEqualTo(3);
        });
        assertThat(sent.path("quality").asDouble()).isLessThanOrEqualTo(0.5);
        JsonNode last = kept.path("hottest").path(kept.path("frames").asInt() - 1);
        assertThat(last.path("x").asInt()).isEqualTo(5);
        assertThat(last.path("value").asDouble()).isGreaterThanOrEqualTo(70);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "box=0..3,0..1 | goes beyond the picture, which has columns 0..2 and rows 0..1",
                "box=2..1,0..1 | a box runs from low to high",
                "box=all | box takes X1..X2,Y1..Y2",
                "limit=warm | limit must be a number",
                "boxes=1 | no setting is called 'boxes'; there is limit, box"
            })
    void aSettingOfPicturesThatMakesNoSenseIsRefused(String setting, String message) throws Exception {
        Said said = Said.zesty("extract", "picture", pictures(), "--set", setting, "--json");
        assertThat(said.status()).isEqualTo(2);
        assertThat(said.err()).contains(message);
        assertThat(said.out()).isEmpty();
    }

    @Test
    void cellsAndSuppliesHaveTheColumnsNamesAndNothingWhereNothingCanBeKnown() throws Exception {
        StringBuilder text = new StringBuilder("t,amps,left,middle,right\n");
        for (int i = 0; i < 400; i++) {
            boolean load = i / 50 % 2 == 1;
            text.append(i).append(',').append(load ? 2 : 0.5);
            for (double sag : new double[] {0.05, 0.2, 0.052}) {
                text.append(',').append(4.1 - 1e-5 * i - (load ? sag : 0));
            }
            text.append('\n');
        }
        String pack = file("pack.csv", text.toString());
        JsonNode cells = Said.zesty(
                        "extract",
                        "cells",
                        pack,
                        "--column",
                        "left",
                        "--column",
                        "middle",
                        "--column",
                        "right",
                        "--json")
                .json();
        assertThat(cells.path("weakest").asText()).isEqualTo("middle");
        JsonNode middle = cells.path("cells").get(1);
        assertThat(middle.path("column").asText()).isEqualTo("middle");
        assertThat(middle.path("weak").asBoolean()).isTrue();
        assertThat(middle.path("sag_v").asDouble()).isCloseTo(0.2, within(0.001));
        assertThat(middle.path("left_s").isNull()).isTrue();
        assertThat(cells.path("cells").get(0).path("weak").asBoolean()).isFalse();
        JsonNode supply = Said.zesty(
                        "extract",
                        "supply",
                        pack,
                        "--column",
                        "amps",
                        "--column",
                        "middle",
                        "--set",
                        "cutoff=3",
                        "--json")
                .json();
        assertThat(supply.path("resistance_ohm").asDouble()).isCloseTo(0.2 / 1.5, within(0.001));
        assertThat(supply.path("charge_ah").asDouble()).isCloseTo(1.25 * 399 / 3600, within(0.001));
        JsonNode alone = Said.zesty("extract", "supply", pack, "--column", "amps", "--json")
                .json();
        assertThat(alone.path("energy_wh").isNull()).isTrue();
        assertThat(alone.path("left_s").isNull()).isTrue();
        Said one = Said.zesty("extract", "cells", pack, "--column", "left", "--json");
        assertThat(one.status()).isEqualTo(2);
        assertThat(one.err()).contains("cells reads 2 to 24 columns, not 1");
    }

    @Test
    void aChangeIsCountedFromAMarkersTextInATakeAndInItsExport() throws Exception {
        StringBuilder text = new StringBuilder("t,load\n");
        for (int i = 0; i < 600; i++) {
            double t = i / 10.0;
            text.append(t)
                    .append(',')
                    .append(t < 30 ? 100 : t < 35 ? 100 + 8 * (t - 30) : 140)
                    .append('\n');
        }
        String sheet = file("load.csv", text.toString());
        String take = folder.resolve("load.zest").toString();
        String edf = folder.resolve("load.edf").toString();
        Said.zesty("import", sheet, "--out", take);
        Said.zesty("note", take, "--mark", "10=early", "--mark", "30=reef");
        assertThat(Said.zesty("export", take, "--to", edf).status()).isZero();
        for (String from : new String[] {take, edf}) {
            JsonNode answer = Said.zesty("extract", "response", from, "--set", "mark=reef", "--json")
                    .json();
            // Tenths keep their steps in sixteen bits.
            assertThat(answer.path("baseline").asDouble()).isCloseTo(100, within(1e-9));
            assertThat(answer.path("change").asDouble()).isCloseTo(40, within(1e-6));
            assertThat(answer.path("latency_s").asDouble()).isCloseTo(2.6, within(1e-6));
            assertThat(answer.path("half_recovery_s").isNull()).isTrue();
        }
        Said unknown = Said.zesty("extract", "response", take, "--set", "mark=gybe", "--json");
        assertThat(unknown.status()).isEqualTo(2);
        assertThat(unknown.err()).contains("has no marker 'gybe'; it has early, reef");
        Said never = Said.zesty("extract", "response", sheet, "--json");
        assertThat(never.status()).isEqualTo(2);
        assertThat(never.err()).contains("say when it happened");
    }
}
