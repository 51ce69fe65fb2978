package zesty.signal.takes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.core.act.Band;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Deed;
import zesty.signal.core.act.Output;
import zesty.signal.core.act.Profile;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.Watch;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Recogniser;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.prove.FitModel;
import zesty.signal.core.prove.Proof;
import zesty.signal.core.prove.ReferencePoint;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Setting;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.rig.ActSetup;
import zesty.signal.core.rig.BandSetup;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Limits;
import zesty.signal.core.rig.OutputUse;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Sensor;
import zesty.signal.core.rig.SensorKind;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.scale.AnalogTemperature;
import zesty.signal.core.scale.Chained;
import zesty.signal.core.scale.Conversion;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Correction;
import zesty.signal.core.scale.Decibels;
import zesty.signal.core.scale.Divider;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Echo;
import zesty.signal.core.scale.Formula;
import zesty.signal.core.scale.Height;
import zesty.signal.core.scale.Line;
import zesty.signal.core.scale.MagneticCurrent;
import zesty.signal.core.scale.Polynomial;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.scale.Shunt;
import zesty.signal.core.scale.Thermistor;
import zesty.signal.core.scale.Thermocouple;
import zesty.signal.core.scale.ThermocoupleType;
import zesty.signal.core.scale.ValueTable;

/**
 * What a maker decided comes back from its file to the last digit: rigs of all there is, drawn by chance, formats of every
 * dialect, every sensor kind. And a file with any one part of it spoilt is named, or gives another rig; never an exception
 * of somebody else's.
 */
class KeptWholeTest {
    private static final ObjectMapper JSON = new ObjectMapper();
    private static final List<String> RECIPES = List.of(
            "",
            "mean:9",
            "median:5 | lowpass:4@2",
            "bandpass:0.5..8@2",
            "notch:50@30 | rectify | rms:0.2",
            "despike:4@3.5 | smooth:11@3 | offset:-0.25 | scale:1.5",
            "exp:0.125 | detrend",
            "bandstop:49..51@2 | envelope:3");

    /** Names as makers and other languages write them. */
    private static final List<String> NAMES = List.of(
            "pulse",
            "Ruderlage",
            "größe",
            "\u6e29\u5ea6",
            "a \"quoted\" one",
            "back\\slash",
            "tab\there",
            "emoji \u26f5",
            "1e5");

    private static <T> T any(Random random, List<T> of) {
        return of.get(random.nextInt(of.size()));
    }

    private static double number(Random random) {
        return switch (random.nextInt(5)) {
            case 0 -> random.nextInt(1000);
            case 1 -> random.nextGaussian() * 1e-9;
            case 2 -> random.nextGaussian() * 1e12;
            case 3 -> 1.0 / (1 + random.nextInt(97));
            default -> random.nextGaussian();
        };
    }

    private static double positive(Random random) {
        return Math.abs(number(random)) + 1e-6;
    }

    private static Conversion conversion(Random random, boolean chained) {
        return switch (random.nextInt(chained ? 15 : 14)) {
            case 0 -> new Line(number(random), number(random));
            case 1 -> new Polynomial(List.of(number(random), number(random), number(random)));
            case 2 -> new ValueTable(List.of(-1.5, 0.25, 7.0), List.of(number(random), number(random), number(random)));
            case 3 ->
                new Thermistor(
                        new Thermistor.Beta(3000 + positive(random), 10_000, 25),
                        4700,
                        any(random, List.of(Thermistor.Side.values())),
                        3.3);
            case 4 ->
                new Thermistor(
                        new Thermistor.ThreeCoefficients(positive(random), 2e-4, 1e-7), 10_000, Thermistor.Side.LOW, 5);
            case 5 -> new Divider(positive(random), positive(random));
            case 6 -> new Shunt(positive(random), positive(random), number(random));
            case 7 -> new MagneticCurrent(number(random), positive(random));
            case 8 -> new AnalogTemperature(positive(random), number(random));
            case 9 -> new Thermocouple(any(random, List.of(ThermocoupleType.values())), random.nextInt(40));
            case 10 -> new Echo(random.nextInt(30), random.nextDouble());
            case 11 -> new Height(900 + random.nextInt(150));
            case 12 -> new Decibels(positive(random));
            case 13 -> new Formula("c0 + c1 * x ^ 2", Map.of("c0", number(random), "c1", number(random)), "V");
            default -> new Chained(conversion(random, false), conversion(random, false));
        };
    }

    private static Channel channel(Random random, String column) {
        Converter converter = random.nextInt(3) == 0
                ? null
                : new Converter(
                        8 + random.nextInt(17),
                        positive(random),
                        any(random, List.of(Divisor.values())),
                        random.nextBoolean(),
                        "");
        List<Correction> corrections = random.nextInt(3) > 0
                ? List.of()
                : List.of(new Correction("tare", number(random), random.nextInt()), new Correction("x", 0.1, 7));
        String unit = any(random, List.of("V", "°C", "m", "", "µT", "beats/min"));
        Scaling scaling = new Scaling(converter, conversion(random, true), corrections, unit);
        Sensor sensor = random.nextBoolean()
                ? Sensor.UNKNOWN
                : new Sensor(
                        any(random, NAMES),
                        -positive(random),
                        random.nextBoolean() ? Double.NaN : positive(random),
                        "mind \"this\"",
                        any(random, List.of(Caution.values())));
        Limits limits = random.nextBoolean()
                ? Limits.NONE
                : new Limits(random.nextBoolean() ? Double.NaN : -positive(random), positive(random));
        List<Proof> proofs = new ArrayList<>();
        for (int i = random.nextInt(3); i > 0; i--) {
            proofs.add(new Proof(
                    random.nextInt(),
                    any(random, List.of(FitModel.values())),
                    List.of(
                            new ReferencePoint(number(random), number(random), 0),
                            new ReferencePoint(number(random), number(random), positive(random))),
                    random.nextBoolean(),
                    unit));
        }
        return new Channel(
                column,
                any(random, NAMES) + " " + column,
                scaling,
                Recipe.parse(any(random, RECIPES)),
                random.nextBoolean(),
                unit.equals("°C") && random.nextBoolean() ? "°F" : "",
                sensor,
                limits,
                proofs);
    }

    private static ReaderSetup reader(Random random, ReaderKind kind, List<String> columns) {
        Map<String, String> settings = new LinkedHashMap<>();
        for (Setting setting : kind.settings()) {
            // A pulse says what it is measured by in any case: earlier versions always wrote it.
            if (setting.shape() == Setting.Shape.CHOICE) {
                settings.put(setting.key(), any(random, setting.choices()));
            } else if (random.nextBoolean() && !setting.usual().isEmpty()) {
                settings.put(setting.key(), setting.usual());
            }
        }
        return new ReaderSetup(kind.name(), columns.subList(0, kind.fewestPorts()), settings);
    }

    private static Rig rig(long seed) {
        Random random = new Random(seed);
        Rig rig = Rig.blank(any(random, NAMES), "sim:deck")
                .withLink(new SourceSetup(
                        any(random, List.of("serial:/dev/ttyS3@57600,7E1", "tcp:10.0.0.7:7070", "udp:7071", "stdin")),
                        random.nextBoolean() ? Double.NaN : Math.min(1e8, positive(random)),
                        random.nextInt(9),
                        random.nextBoolean() ? List.of() : List.of("heat 40", "\u00e4h \"q\""),
                        random.nextBoolean() ? List.of() : List.of("still alive #")));
        rig = rig.withFormat(format(any(random, new ArrayList<>(DIALECTS.keySet()))));
        for (int i = random.nextInt(3); i > 0; i--) {
            rig = rig.joined("other", SourceSetup.at("sim:hull")).withSource(1, s -> s.withFormat(format("comma")));
        }
        List<String> columns = new ArrayList<>();
        List<Channel> channels = new ArrayList<>();
        // Now and then as many as the kind with most ports takes.
        int count = seed % 15 == 0 ? 12 : 3 + random.nextInt(5);
        for (int i = 0; i < count; i++) {
            columns.add("c" + i);
            channels.add(channel(random, "c" + i));
        }
        rig = rig.withChannels(channels);
        for (ReaderKind kind : ReaderKinds.all()) {
            if (kind.fewestPorts() <= count && random.nextInt(3) == 0) {
                ReaderSetup setup = reader(random, kind, columns);
                rig = rig.withReader(setup);
                String scalar = kind.scalars()
                        .get(random.nextInt(kind.scalars().size()))
                        .key();
                rig = rig.withBand(new BandSetup(setup.id(), scalar, new Band(-5 * positive(random), 7, 0.01)));
            }
        }
        Set<Caution> read = EnumSet.noneOf(Caution.class);
        for (Caution caution : Caution.values()) {
            if (random.nextInt(4) == 0) {
                read.add(caution);
            }
        }
        for (Caution caution : read) {
            rig = rig.acknowledging(caution);
        }
        return random.nextInt(4) == 0 ? rig : rig.withAct(act(random, columns));
    }

    private static Watch watch(Random random, List<String> columns) {
        return random.nextBoolean()
                ? new Watch.Column(any(random, columns))
                : new Watch.Number(
                        "level",
                        any(random, columns),
                        random.nextBoolean() ? Map.of() : Map.of("bands", "1,2"),
                        any(random, List.of("mean", "min", "noise")),
                        random.nextBoolean() ? 10 : positive(random));
    }

    private static Condition condition(Random random) {
        double low = number(random);
        double high = low + 1 + Math.abs(low);
        return switch (random.nextInt(7)) {
            case 0 -> new Condition.Above(low);
            case 1 -> new Condition.Below(low);
            case 2 -> new Condition.Inside(low, high);
            case 3 -> new Condition.Outside(low, high);
            case 4 -> new Condition.Rising(low, positive(random));
            case 5 -> new Condition.Falling(low, positive(random));
            default -> new Condition.Silent(positive(random));
        };
    }

    /** Rules of every kind with what they do, outputs of both, profiles. */
    private static ActSetup act(Random random, List<String> columns) {
        ActSetup act = ActSetup.NONE;
        for (int r = 0; r < 2 + random.nextInt(4); r++) {
            Condition when = condition(random);
            boolean silent = when instanceof Condition.Silent;
            String name = any(random, NAMES) + " " + r;
            act = act.withRule(new Rule.OnSamples(
                    name,
                    watch(random, columns),
                    when,
                    random.nextBoolean() ? 0 : positive(random),
                    new Rule.Holds(
                            silent || random.nextBoolean() ? 0 : positive(random),
                            random.nextBoolean() ? 0 : positive(random),
                            random.nextBoolean() ? 0 : positive(random),
                            random.nextBoolean())));
            for (Deed deed : Deed.values()) {
                act = act.withDeed(name, deed, random.nextInt(3) == 0);
            }
            act = act.withPercent(name, random.nextInt(3) == 0);
        }
        List<String> names = act.book().rules().stream().map(Rule::name).toList();
        act = act.withRule(new Rule.OnSamples(
                        "twice",
                        new Watch.Number("hits", columns.get(0), Map.of(), "", 10),
                        new Condition.Events(2, positive(random)),
                        0,
                        Rule.Holds.NONE))
                .withRule(new Rule.InBands("stage", watch(random, columns), new double[] {-1, 0.5, 7}, 0.25, 2))
                .withRule(new Rule.Made("both", any(random, List.of(Rule.Together.ALL, Rule.Together.ANY)), names, 0))
                .withRule(new Rule.Made("neither", Rule.Together.NOT, List.of("both"), 0))
                .withRule(new Rule.Made("soon", Rule.Together.THEN, names.subList(0, 2), positive(random)));
        OutputUse use =
                new OutputUse("", random.nextBoolean(), any(random, Arrays.asList(Caution.HEAT, Caution.MOVING, null)));
        act = act.withOutput(
                        new Output.ByRule(
                                "lamp \u00e4",
                                "off",
                                "both",
                                "on \"now\"",
                                "off",
                                random.nextBoolean() ? Double.POSITIVE_INFINITY : positive(random)),
                        use)
                .withOutput(
                        new Output.ByValue(
                                "dial",
                                "dial 0",
                                watch(random, columns),
                                random.nextBoolean() ? new double[0][] : new double[][] {{-1, 0}, {2.5, 100}},
                                random.nextBoolean() ? 0 : positive(random),
                                random.nextBoolean() ? Double.POSITIVE_INFINITY : positive(random),
                                random.nextBoolean() ? 0 : positive(random),
                                positive(random),
                                "dial {value}"),
                        OutputUse.DRY)
                .withPercent("dial", random.nextBoolean());
        for (String who : List.of("the helm", "the crew")) {
            if (random.nextBoolean()) {
                act = act.withProfile(
                        new Profile(who, List.of(new Profile.Span(watch(random, columns), number(random), 2e13))));
            }
        }
        return random.nextBoolean() ? act : act.choosing("");
    }

    @Test
    void threeHundredRigsOfAllThereIsComeBackTheSame() throws Exception {
        for (long seed = 0; seed < 300; seed++) {
            Rig rig = rig(seed);
            String text = RigJson.write(rig);
            Rig back = RigJson.read(text, "seed " + seed);
            assertThat(back).as("seed %d", seed).isEqualTo(rig);
            assertThat(RigJson.write(back)).isEqualTo(text);
        }
    }

    /** Of each dialect some lines as boards write them. */
    private static final Map<String, String> DIALECTS = Map.of(
            "comma", "t_ms,a,b\n0,1,2.5\n10,2,2.5\n20,4,2.75\n30,7,2.5\n40,1,3.5\n",
            "semicolon", "12,5;3;7\n12,75;4;7\n13,5;3;8\n12,25;9;7\n13,0;3;9\n",
            "labels", "T=21.5 C H=40 %\nT=21.6 C H=41 %\nT=21.5 C H=40 %\nT=21.9 C H=42 %\n",
            "json", "{\"t\":1,\"air\":{\"C\":20.5}}\n{\"t\":2,\"air\":{\"C\":20.75}}\n{\"t\":3,\"air\":{\"C\":21}}\n",
            "sentence",
                    "the locker is at 12.5 degrees now\nthe locker is at 12.25 degrees now\nthe locker is at 13 degrees now\n");

    private static StreamFormat format(String dialect) {
        byte[] bytes = DIALECTS.get(dialect).repeat(4).getBytes(StandardCharsets.UTF_8);
        return Recogniser.recognise(bytes, bytes.length).get(0).format();
    }

    @ParameterizedTest
    @ValueSource(strings = {"comma", "semicolon", "labels", "json", "sentence"})
    void aFormatThatIsSharedReadsTheSameBytesTheSameWay(String dialect) throws Exception {
        StreamFormat format = format(dialect);
        StreamFormat back = FormatJson.read(FormatJson.write(format), dialect);
        assertThat(back).isEqualTo(format);
        byte[] bytes = DIALECTS.get(dialect).repeat(3).getBytes(StandardCharsets.UTF_8);
        assertThat(Recogniser.propose(back, bytes, bytes.length).rows())
                .isEqualTo(Recogniser.propose(format, bytes, bytes.length).rows())
                .isGreaterThan(6);
    }

    @Test
    void everySensorKindIsAFileToShare() throws Exception {
        for (SensorKind kind : SensorKind.all()) {
            assertThat(KindJson.read(KindJson.write(kind), kind.name())).isEqualTo(kind);
        }
        assertThat(SensorKind.all()).extracting(SensorKind::name).doesNotHaveDuplicates();
    }

    /** Takes each value of the tree in turn and puts something else there. */
    private static int spoil(JsonNode root, JsonNode node, List<String> spoilt, JsonNode by) throws Exception {
        int n = 0;
        if (node instanceof ObjectNode object) {
            for (String key : new ArrayList<>(names(object))) {
                JsonNode was = object.get(key);
                object.set(key, by);
                spoilt.add(JSON.writeValueAsString(root));
                object.set(key, was);
                n += 1 + spoil(root, was, spoilt, by);
            }
        } else if (node instanceof ArrayNode array) {
            for (int i = 0; i < array.size(); i++) {
                JsonNode was = array.get(i);
                array.set(i, by);
                spoilt.add(JSON.writeValueAsString(root));
                array.set(i, was);
                n += 1 + spoil(root, was, spoilt, by);
            }
        }
        return n;
    }

    private static List<String> names(ObjectNode object) {
        List<String> names = new ArrayList<>();
        object.fieldNames().forEachRemaining(names::add);
        return names;
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '!',
            value = {
                "\"scale\"!\"scael\"!\"scael\" is no key of it",
                "\"address\"!\"adress\"!\"source.adress\" is no key of it",
                "\"name\"!\"zesty_rig\"!Duplicate field",
                "\"column\" : \"bilge\"!\"column\" : \"blige\"!a recipe for the column 'bilge'",
                "7.0!-7.0!a warm-up takes 0 to 3600 s, was -7"
            })
    void aSlipOfThePenInARigIsNamedWithItsPlace(String was, String is, String said) throws Exception {
        String text = RigJson.write(Rig.blank("slip", "sim:deck")
                .withLink(SourceSetup.at("sim:deck").withWarmUp(7))
                .withChannels(
                        List.of(new Channel("bilge", "bilge", Scaling.asItCame(""), Recipe.parse("mean:3"), true))));
        assertThat(text).contains(was);
        assertThatThrownBy(() -> RigJson.read(text.replaceFirst(was, is), "friend.json"))
                .isInstanceOf(TakeException.class)
                .hasMessageContaining("friend.json")
                .hasMessageContaining(said);
        assertThatThrownBy(() -> RigJson.read(text + " and more", "friend.json"))
                .isInstanceOf(TakeException.class);
    }

    @ParameterizedTest
    @ValueSource(strings = {"null", "\"rubbish\"", "-1", "[]", "{}", "1e999", "true"})
    void aRigWithAnyPartSpoiltIsNamedOrReadsAsARig(String by) throws Exception {
        JsonNode value = JSON.readTree(by);
        int tried = 0;
        int refused = 0;
        for (long seed : new long[] {3, 101}) {
            JsonNode root = JSON.readTree(RigJson.write(rig(seed)));
            List<String> spoilt = new ArrayList<>();
            tried += spoil(root, root, spoilt, value);
            for (String text : spoilt) {
                try {
                    RigJson.read(text, "friend.json");
                } catch (TakeException e) {
                    refused++;
                    assertThat(e.getMessage())
                            .contains("friend.json")
                            .doesNotContain("Exception")
                            .doesNotContain("jackson");
                }
            }
        }
        assertThat(tried).isGreaterThan(200);
        // What makes sense elsewhere may make sense here; most of it does not.
        assertThat(refused).isGreaterThan(tried / 10);
        assertThatThrownBy(() -> RigJson.read("{\"zesty_rig\": 99}", "new.json"))
                .isInstanceOf(TakeException.class)
                .hasMessageContaining("new.json");
    }
}
