package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.networknt.schema.InputFormat;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import java.io.ByteArrayOutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import zesty.signal.boards.sim.SimulatedBoard;
import zesty.signal.boards.sim.SimulatedBoards;
import zesty.signal.core.act.Band;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Recogniser;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.prove.FitModel;
import zesty.signal.core.prove.Proof;
import zesty.signal.core.prove.ReferencePoint;
import zesty.signal.core.rig.BandSetup;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Limits;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SensorKind;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.scale.Chained;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Correction;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Formula;
import zesty.signal.core.scale.Line;
import zesty.signal.core.scale.Polynomial;
import zesty.signal.core.scale.Scaling;
import zesty.signal.takes.FormatJson;
import zesty.signal.takes.KindJson;
import zesty.signal.takes.RigJson;
import zesty.signal.takes.TakeException;

/** Rigs, formats and sensor kinds as files: what is written keeps to the published schemas and reads back the same. */
class SharedFilesTest {
    private static void keepsTo(String schema, String json) throws Exception {
        String text = Files.readString(Path.of("..", "docs", schema + ".schema.json"));
        JsonSchema published =
                JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012).getSchema(text);
        assertThat(published.validate(json, InputFormat.JSON)).as(json).isEmpty();
    }

    static List<String> boards() {
        return SimulatedBoards.all().stream().map(SimulatedBoards.Entry::name).toList();
    }

    private static StreamFormat formatOf(String board) throws Exception {
        SimulatedBoard simulated = SimulatedBoards.create(board, 1);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(simulated.greeting());
        while (out.size() < 60_000) {
            simulated.next(out);
        }
        return Recogniser.recognise(out.toByteArray(), out.size()).get(0).format();
    }

    @ParameterizedTest
    @MethodSource("boards")
    void aFormatIsSharedAsItIs(String board) throws Exception {
        StreamFormat format = formatOf(board);
        String json = FormatJson.write(format);
        keepsTo("format", json);
        assertThat(FormatJson.read(json, "shared")).isEqualTo(format);
    }

    @Test
    void everyKindOfTheLibraryIsSharedAsItIs() throws Exception {
        for (SensorKind kind : SensorKind.all()) {
            String json = KindJson.write(kind);
            keepsTo("kind", json);
            assertThat(KindJson.read(json, "shared")).isEqualTo(kind);
        }
    }

    @Test
    void aRigWithEverythingInItIsSharedAsItIs() throws Exception {
        Rig rig = Rig.blank("everything", "sim:deck")
                .fittedTo(formatOf("deck"))
                .joined("battery", SourceSetup.at("udp:9000"))
                .fittedTo(1, formatOf("battery"))
                .withStation(1, 4);
        rig = rig.withLink(new SourceSetup("serial:/dev/ttyX@9600", 200, 1.5, List.of("heat 40"), List.of("a #")));
        List<Channel> channels = new ArrayList<>(rig.channels());
        List<SensorKind> kinds = SensorKind.all();
        for (int i = 0; i < channels.size(); i++) {
            SensorKind kind = kinds.get(i + 3);
            channels.set(
                    i,
                    channels.get(i)
                            .withScaling(kind.on(channels.get(i).scaling()))
                            .withSensor(kind.sensor()));
        }
        Converter measured = new Converter(24, 2.5, Divisor.HIGHEST_CODE, true, "trim");
        Formula formula = new Formula("x * heel + c1", Map.of("c1", 2.0), "W", List.of("heel"));
        channels.set(
                0,
                channels.get(0)
                        .withScaling(new Scaling(
                                measured,
                                new Chained(new Polynomial(List.of(0.0, 1.0, 0.5)), formula),
                                List.of(new Correction("tare", -1.25, 1_700_000_000)),
                                "W"))
                        .withShownIn("mW")
                        .withRecipe(Recipe.parse("median:5 | lowpass:4@2"))
                        .withLimits(new Limits(Double.NaN, 14.4))
                        .proved(new Proof(1_700_000_000, FitModel.LINE, points(), true, "W"))
                        .proved(new Proof(1_710_000_000, FitModel.OFFSET, points(), false, "W")));
        rig = rig.withChannels(channels)
                .withReader(ReaderSetup.on("pulse", "pulse", Map.of("kind", "electrical")))
                .withReader(ReaderSetup.on("heel", "level", Map.of("bands", "10,20")))
                .withBand(new BandSetup("level(heel)", "mean", new Band(1, 5, 0.5)))
                .acknowledging(Caution.BODY)
                .acknowledging(Caution.CURRENT);
        String json = RigJson.write(rig);
        keepsTo("rig", json);
        assertThat(RigJson.read(json, "shared")).isEqualTo(rig);
        assertThat(rig.channels().get(0).unit()).isEqualTo("mW");
        assertThat(rig.channels()).extracting(Channel::column).contains("pulse", "battery/volts 4");
    }

    private static List<ReferencePoint> points() {
        return List.of(
                new ReferencePoint(0, 0.1, 0.05), new ReferencePoint(10, 10.2, 0.05), new ReferencePoint(20, 20, 0));
    }

    @Test
    void aRigOfTheFirstVersionOpens() throws Exception {
        String old =
                """
                {"zesty_rig": 1, "name": "Wren", "source": {"address": "sim:deck"},
                 "decode": {"format": "delimited", "delimiter": "semicolon", "decimal_comma": true,
                   "trailing_delimiter": true, "header": "t_us;pulse",
                   "columns": [{"name": "t_us", "unit": ""}, {"name": "pulse", "unit": "counts"}],
                   "clock": {"column": "t_us", "ticks_per_second": 1000000.0, "wraps_at": 4294967296.0}},
                 "scale": [{"column": "pulse", "name": "Helm pulse", "shown": true,
                   "converter": {"bits": 12, "reference_volts": 3.3, "divisor": "highest_code"},
                   "slope": 2.0, "offset": -1.0, "unit": "V"}],
                 "clean": [{"column": "pulse", "recipe": "bandpass:0.5..8@2"}],
                 "read": [{"column": "pulse", "reader": "pulse", "kind": "optical"}],
                 "act": [{"column": "pulse", "reading": "pulse", "low": 60.0, "high": 100.0, "slack": 3.0}]}
                """;
        Rig rig = RigJson.read(old, "old");
        String today = RigJson.write(rig);
        keepsTo("rig", today);
        assertThat(RigJson.read(today, "today")).isEqualTo(rig);
        assertThat(rig.readers()).containsExactly(ReaderSetup.on("pulse", "pulse", Map.of("kind", "optical")));
        assertThat(rig.bands()).containsExactly(new BandSetup("pulse(pulse)", "rate_bpm.mean", new Band(60, 100, 3)));
        assertThat(rig.sources()).hasSize(1);
        Channel pulse = rig.channels().get(0);
        assertThat(pulse.scaling())
                .isEqualTo(new Scaling(new Converter(12, 3.3, Divisor.HIGHEST_CODE), new Line(2, -1), List.of(), "V"));
        assertThat(pulse.proof()).isNull();
        assertThat(pulse.limits()).isEqualTo(Limits.NONE);
        assertThat(rig.format().clock().ticksPerSecond()).isEqualTo(1e6);
        // A made-up board is on nobody's body: its pulse is read at once.
        assertThat(rig.cautions()).isEmpty();
        assertThat(rig.withSource("serial:/dev/ttyX@9600").cautions()).containsExactly(Caution.BODY);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    {"zesty_kind": 2}                                                   | it is no sensor kind of version 1
                    {"zesty_kind": 1, "conversion": {"kind": "line"}}                   | "kind" must be a text
                    {"zesty_kind": 1, "kind": "a", "conversion": {"kind": "bent"}}      | no conversion is called "bent"
                    {"zesty_kind": 1, "kind": "a", "conversion": {"kind": "shunt", "ohms": 0, "gain": 1, "zero": 0}} | the shunt must be above 0, was 0
                    {"zesty_kind": 1, "kind": "a", "low": 5, "high": 1, "conversion": {"kind": "line", "slope": 1, "offset": 0}} | the least plausible value must be below
                    {"zesty_kind": 1, "kind": "a", "caution": "fire", "conversion": {"kind": "line", "slope": 1, "offset": 0}} | "fire" is none of body, voltage
                    {"zesty_kind": 1, "kind": "a", "recipe": "blur", "conversion": {"kind": "line", "slope": 1, "offset": 0}} | blur
                    {"zesty_kind": 1, "kind":                                           | is no JSON
                    """)
    void aKindThatDoesNotReadSaysWhatIsWrong(String json, String said) {
        assertThatThrownBy(() -> KindJson.read(json, "torn.json"))
                .isInstanceOf(TakeException.class)
                .hasMessageContaining("torn.json")
                .hasMessageContaining(said);
    }

    @Test
    void aRigThatNamesTwoSourcesAlikeIsRefused() {
        String two =
                """
                {"zesty_rig": 1, "name": "r", "source": {"address": "sim:deck"}, "other_sources": [
                 {"name": "mast", "source": {"address": "sim:hull"}}, {"name": "mast", "source": {"address": "sim:hoist"}}]}
                """;
        assertThatThrownBy(() -> RigJson.read(two, "two.json"))
                .hasMessageContaining("two.json")
                .hasMessageContaining("each of the others one of its own; were [, mast, mast]");
    }
}
