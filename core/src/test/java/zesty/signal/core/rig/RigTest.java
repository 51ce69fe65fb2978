package zesty.signal.core.rig;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import zesty.signal.core.act.Band;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.decode.Role;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.prove.Check;
import zesty.signal.core.prove.FitModel;
import zesty.signal.core.prove.Proof;
import zesty.signal.core.prove.ReferencePoint;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Formula;
import zesty.signal.core.scale.Line;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.scale.Thermistor;

/** What a rig holds together: sources, stations, channels, sensors, cautions and proofs. */
class RigTest {
    private static StreamFormat format(String... names) {
        List<Column> columns = new ArrayList<>();
        for (String name : names) {
            boolean station = name.startsWith("#");
            columns.add(new Column(station ? name.substring(1) : name, "V", station ? Role.STATION : Role.VALUE, true));
        }
        return new DelimitedFormat(',', false, false, "", columns, null);
    }

    private static List<String> columns(Rig rig) {
        return rig.channels().stream().map(Channel::column).toList();
    }

    @Test
    void eachSourceKeepsItsColumnsToItself() {
        Rig rig = Rig.blank("r", "sim:deck")
                .joined("mast/head", SourceSetup.at("sim:masthead"))
                .joined("mast head", SourceSetup.at("sim:hull"))
                .joined("", SourceSetup.at("sim:hoist"));
        assertThat(rig.sources()).extracting(Source::name).containsExactly("", "mast head", "mast head 2", "source");
        rig = rig.fittedTo(format("wind", "vane"))
                .fittedTo(1, format("wind", "cups"))
                .fittedTo(2, format("ax"));
        assertThat(columns(rig)).containsExactly("wind", "vane", "mast head/wind", "mast head/cups", "mast head 2/ax");
        assertThat(rig.channels())
                .extracting(Channel::name)
                .containsExactly("wind", "vane", "mast head wind", "cups", "ax");
        assertThat(rig.sourceOf("mast head 2/ax")).isEqualTo(2);
        assertThat(rig.ownName("mast head/wind")).isEqualTo("wind");
        assertThat(rig.sourceOf("wind")).isZero();
        assertThat(rig.formatOf("mast head/cups").columns()).hasSize(2);

        // Another format of one source takes away its own channels alone.
        Rig other = rig.withChannel("mast head/cups", c -> c.withName("Cups")).fittedTo(1, format("cups", "gust"));
        assertThat(columns(other))
                .containsExactly("wind", "vane", "mast head/cups", "mast head/gust", "mast head 2/ax");
        assertThat(other.channels().get(2).name()).isEqualTo("Cups");
        Rig without = other.without(1);
        assertThat(columns(without)).containsExactly("wind", "vane", "mast head 2/ax");
        assertThat(without.sourceOf("mast head 2/ax")).isEqualTo(1);
        assertThatThrownBy(() -> without.without(0)).hasMessageContaining("keeps its first source");
        Rig full = rig;
        for (int i = full.sources().size(); i < Rig.MOST_SOURCES; i++) {
            full = full.joined("more", SourceSetup.at("sim:hoist"));
        }
        Rig eight = full;
        assertThatThrownBy(() -> eight.joined("ninth", SourceSetup.at("sim:hoist")))
                .hasMessage("a rig has 1 to 8 sources, was to have 9");
    }

    @Test
    void aStationThatTurnsUpBringsChannelsOfItsOwn() {
        Rig rig = Rig.blank("r", "sim:deck")
                .fittedTo(format("level"))
                .joined("battery", SourceSetup.at("sim:battery"))
                .fittedTo(1, format("#station", "volts", "amps"));
        assertThat(columns(rig)).containsExactly("level");
        rig = rig.withStation(1, 4).withStation(1, 2).withStation(1, 4);
        assertThat(columns(rig))
                .containsExactly("level", "battery/volts 4", "battery/amps 4", "battery/volts 2", "battery/amps 2");
        assertThat(rig.channels()).filteredOn(Channel::shown).hasSize(3);
        Formula power = new Formula("x * amps", Map.of(), "W", List.of("amps"));
        Rig worked = rig.withChannel("battery/volts 2", c -> c.withScaling(new Scaling(null, power, List.of(), "W")))
                .withChannel("battery/amps 2", c -> c.withScaling(new Scaling(null, 10, 0, "A")));
        Channel volts = worked.channels().get(3);
        assertThat(ExtraInputs.offered(worked, volts)).containsExactly("amps");
        ExtraInputs extraInputs = ExtraInputs.of(worked, volts);
        assertThat(extraInputs.columns()).containsExactly(2);
        // The other column of the same station, by its own chain.
        double[][] stream = {{2, 2}, {12, 13}, {0.5, 0.25}};
        assertThat(extraInputs.values(i -> stream[i], 0, 2)[0]).containsExactly(5, 2.5);
        assertThat(extraInputs.values(i -> stream[i], 1, 1)[0]).containsExactly(2.5);
        Scaling missing = new Scaling(null, new Formula("x * heat", Map.of(), "", List.of("heat")), List.of(), "");
        assertThatThrownBy(() -> ExtraInputs.of(worked, volts.withScaling(missing)))
                .hasMessage("there is no column 'heat' beside it; there are [amps]");
        Channel amps = worked.channels().get(4);
        Scaling round = new Scaling(null, new Formula("x + volts", Map.of(), "", List.of("volts")), List.of(), "");
        assertThatThrownBy(() -> ExtraInputs.of(worked, amps.withScaling(round)))
                .hasMessageContaining("'volts' is itself worked out of other columns");
    }

    @Test
    void cautionsAreDueOnceAndTheBodysComesFirst() {
        Rig made = Rig.blank("r", "sim:deck").fittedTo(format("pulse", "amps", "plain"));
        SensorKind muscle = kind("muscle, raw");
        SensorKind shunt = kind("current, shunt with amplifier");
        made = made.withChannel("pulse", c -> c.withSensor(muscle.sensor()))
                .withChannel("amps", c -> c.withSensor(shunt.sensor()));
        assertThat(made.cautions()).containsExactly(Caution.BODY, Caution.CURRENT);
        assertThat(made.channels()).noneMatch(made::waits);
        Rig real = made.withSource("serial:/dev/ttyX@9600");
        assertThat(real.channels())
                .filteredOn(real::waits)
                .extracting(Channel::column)
                .containsExactly("pulse");
        Rig read = real.acknowledging(Caution.BODY);
        assertThat(read.cautions()).containsExactly(Caution.CURRENT);
        assertThat(read.channels()).noneMatch(read::waits);
        assertThat(read.acknowledging(Caution.CURRENT).cautions()).isEmpty();
        // A pulse that is read is a body's, whatever the sensor is said to be.
        Rig reading = Rig.blank("r", "tcp:board:7070")
                .fittedTo(format("x"))
                .withReader(ReaderSetup.on("x", "pulse", Map.of()));
        assertThat(reading.cautions()).containsExactly(Caution.BODY);
        assertThat(reading.withSource("file:x.txt").cautions()).isEmpty();
    }

    private static SensorKind kind(String name) {
        return SensorKind.all().stream()
                .filter(kind -> kind.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aKindFillsTheChainAndSaysWhatIsOdd() {
        Scaling before = new Scaling(new Converter(12, 3.3, Divisor.HIGHEST_CODE), 1, 0, "V");
        Scaling thermistor = kind("thermistor to ground").on(before);
        assertThat(thermistor.converter()).isEqualTo(before.converter());
        assertThat(((Thermistor) thermistor.conversion()).supplyVolts()).isEqualTo(3.3);
        // Half of the range: as many ohms as the series resistor, which is 25 °C by definition.
        assertThat(thermistor.apply(4095 / 2.0)).isCloseTo(25, within(1e-9));
        assertThat(kind("echo distance, µs").on(before).converter()).isNull();
        assertThat(kind("raw").on(new Scaling(null, 2, 0, "mm"))).isEqualTo(Scaling.asItCame("mm"));
        assertThat(kind("weight, by reference points").on(before).apply(84_200)).isCloseTo(0, within(1e-9));
        Sensor sensor = kind("humidity, in %").sensor();
        assertThat(sensor.oddity(50, "%")).isEmpty();
        assertThat(sensor.oddity(Double.NaN, "%")).isEmpty();
        assertThat(sensor.oddity(131.27, "%"))
                .isEqualTo("It reads 131.3 %, which is not plausible for this kind (0 to 100).");
        assertThat(SensorKind.all()).extracting(SensorKind::name).doesNotHaveDuplicates();
        SensorKind.all().forEach(kind -> assertThat(Recipe.parse(kind.recipe())).isNotNull());
    }

    @Test
    void limitsAreToldInWordsAndOpenEndsAreNoLimits() {
        Limits cell = new Limits(10.5, 14.4);
        assertThat(cell.beyond(10.5)).isFalse();
        assertThat(cell.beyond(14.41)).isTrue();
        assertThat(cell.beyond(Double.NaN)).isFalse();
        assertThat(cell.words(10.2, "V")).isEqualTo("10.2 V is below its limit of 10.5 V");
        assertThat(new Limits(Double.NaN, 5).beyond(-1e9)).isFalse();
        assertThat(Limits.NONE.none()).isTrue();
        assertThatThrownBy(() -> new Limits(5, 5)).hasMessageContaining("the lower limit must be below the upper one");
    }

    @Test
    void theProofBookTellsWhatHasMovedSinceTheLast() {
        List<ReferencePoint> may =
                List.of(new ReferencePoint(0, 1), new ReferencePoint(10, 12), new ReferencePoint(20, 23));
        Proof only = new Proof(1_000_000, FitModel.LINE, may, false, "kg");
        // As it was, the readings miss by 1, 2 and 3.
        assertThat(only.worstMiss()).isEqualTo(3);
        Proof adopted = new Proof(1_000_000, FitModel.LINE, may, true, "kg");
        assertThat(adopted.worstMiss()).isCloseTo(0, within(1e-12));
        // A month on, half a kilogram more is on the scale than it says: beyond the old fit, or beyond what was
        // adopted.
        List<ReferencePoint> june = List.of(new ReferencePoint(0, 1.5), new ReferencePoint(10, 12.5));
        Proof later = new Proof(1_000_000 + 31 * 86_400, FitModel.LINE, june, false, "kg");
        assertThat(later.driftSince(only)).isCloseTo(0.5, within(1e-12));
        List<ReferencePoint> corrected = List.of(new ReferencePoint(1, 1.5), new ReferencePoint(12, 12.5));
        assertThat(new Proof(0, FitModel.LINE, corrected, false, "kg").driftSince(adopted))
                .isCloseTo(0.5, within(1e-12));
        assertThat(later.age(1_000_000 + 33 * 86_400)).isEqualTo("2 days ago");
        Channel channel = new Channel("x", "x", new Scaling(null, new Line(1, 0), List.of(), "kg"), Recipe.NONE, true);
        assertThat(channel.proof()).isNull();
        for (int i = 0; i < 120; i++) {
            channel = channel.proved(new Proof(i, FitModel.LINE, may, false, "kg"));
        }
        assertThat(channel.proofs()).hasSize(100);
        assertThat(channel.proof().epochSeconds()).isEqualTo(119);
    }

    @Test
    void aCheckPassesOnlyWhereTheReferenceLeavesNoDoubt() {
        List<ReferencePoint> points = List.of(
                new ReferencePoint(10.2, 10, 0.1), new ReferencePoint(20.45, 20, 0.1), new ReferencePoint(29.7, 30, 0));
        Check check = new Check(points, 0.5);
        assertThat(check.error(0)).isCloseTo(0.2, within(1e-12));
        assertThat(check.passes(0)).isTrue();
        // 0.45 off by a reference good to 0.1: it may be 0.55.
        assertThat(check.passes(1)).isFalse();
        assertThat(check.passed()).isEqualTo(2);
        assertThat(check.words("°C"))
                .isEqualTo("Fail: 2 of 3 readings within ± 0.5 °C; the worst is off by 0.45 °C at 20 °C.");
        assertThat(new Check(points, 1).words("°C")).startsWith("Pass: all 3 readings within ± 1 °C");
        assertThatThrownBy(() -> new Check(points, 0)).hasMessage("a tolerance is a number above 0, was 0");
    }

    @Test
    void whatTheMakerDecidedOutlivesAStreamThatDoesNotFit() {
        Rig decided = Rig.blank("r", "sim:deck")
                .fittedTo(format("pulse", "heel"))
                .withChannel("pulse", c -> c.withName("Helm pulse"))
                .withReader(ReaderSetup.on("pulse", "pulse", Map.of("kind", "optical")));
        // The board once speaks another way: what is seen has only its columns …
        Rig seen = decided.fittedTo(format("volts"));
        assertThat(columns(seen)).containsExactly("volts");
        assertThat(seen.readers()).isEmpty();
        Rig changed = seen.withChannel("volts", c -> c.withName("Battery")).withName("other");
        // … and a change of what is seen changes that and nothing else of what was decided.
        Rig kept = RigChange.between(seen, changed).onto(decided);
        assertThat(columns(kept)).containsExactly("pulse", "heel", "volts");
        assertThat(kept.channels()).extracting(Channel::name).containsExactly("Helm pulse", "heel", "Battery");
        assertThat(kept.readers()).isEqualTo(decided.readers());
        assertThat(kept.bands()).hasSize(1);
        assertThat(kept.name()).isEqualTo("other");
        assertThat(kept.format()).isEqualTo(decided.format());
        // Taken back it is as before, whatever came in between.
        Rig between = kept.withChannel("heel", c -> c.withShown(false));
        Rig back = RigChange.between(seen, changed).reversed().onto(between);
        assertThat(back.name()).isEqualTo("r");
        assertThat(back.channels().get(1).shown()).isFalse();
        assertThat(back.channels().get(2).name()).isEqualTo("volts");
    }

    @Test
    void aChangeTakenBackBeforeTheFormatWasKnownLeavesTheChannels() {
        Rig blank = Rig.blank("r", "sim:deck");
        RigChange named = RigChange.between(blank, blank.withName("mine"));
        Rig later = named.onto(blank).fittedTo(format("pulse", "heel"));
        assertThat(columns(named.reversed().onto(later))).containsExactly("pulse", "heel");
    }

    @Test
    void lanesStayInTheStreamsOrderWhicheverIsChangedFirst() {
        StreamFormat stream = format("pulse", "forearm", "heel", "trim", "bilge");
        Rig decided = Rig.blank("r", "sim:deck");
        for (String column : List.of("bilge", "heel", "pulse", "trim")) {
            Rig seen = decided.fittedTo(stream);
            assertThat(columns(seen))
                    .as("before %s", column)
                    .containsExactly("pulse", "forearm", "heel", "trim", "bilge");
            Rig changed = seen.withChannel(column, c -> c.withName("my " + column));
            decided = RigChange.between(seen, changed).onto(decided);
        }
        assertThat(columns(decided)).containsExactly("pulse", "heel", "trim", "bilge");
        // Where the maker has moved a lane, a column that comes new stands beside its neighbour there.
        Rig moved = decided.withChannels(List.of(
                decided.channels().get(3),
                decided.channels().get(0),
                decided.channels().get(1)));
        assertThat(columns(moved.fittedTo(stream))).containsExactly("bilge", "pulse", "forearm", "heel", "trim");
    }

    @Test
    void aChangeSaysWhatItChanges() {
        Rig rig = Rig.blank("r", "sim:deck").fittedTo(format("heel", "trim"));
        assertThat(words(rig, rig.withName("s"))).isEqualTo("the rig's name");
        assertThat(words(rig, rig.withChannel("heel", c -> c.withName("Heel")))).isEqualTo("the name of heel");
        assertThat(words(rig, rig.withChannel("heel", c -> c.withShown(false)))).isEqualTo("heel hidden");
        assertThat(words(rig, rig.withChannel("trim", c -> c.withShownIn("mV"))))
                .isEqualTo("the unit of trim");
        assertThat(words(rig, rig.withChannel("trim", c -> c.withLimits(new Limits(1, 2)))))
                .isEqualTo("the limits of trim");
        assertThat(words(rig, rig.withReader(ReaderSetup.on("heel", "pulse", Map.of()))))
                .isEqualTo("what is read and 1 more");
        assertThat(words(rig, rig.acknowledging(Caution.BODY))).isEqualTo("a caution that was read");
        assertThat(words(rig, rig.withSource(0, s -> s.withSetup(s.setup().withWarmUp(3)))))
                .isEqualTo("the source's setup");
        List<Channel> turned = List.of(rig.channels().get(1), rig.channels().get(0));
        assertThat(words(rig, rig.withChannels(turned))).isEqualTo("the order of the lanes");
        assertThat(words(rig, rig.withName("s").withChannel("heel", c -> c.withShown(false))))
                .isEqualTo("the rig's name and 1 more");
    }

    private static String words(Rig before, Rig after) {
        return RigChange.between(before, after).words();
    }

    @Test
    void aRenamedColumnTakesItsReaderAndBandAlong() {
        Rig rig = Rig.blank("r", "sim:deck")
                .fittedTo(format("a", "b"))
                .withReader(ReaderSetup.on("a", "pulse", Map.of("kind", "electrical")));
        rig = rig.withBand(new BandSetup("pulse(a)", "rate_bpm.mean", new Band(50, 90, 1)));
        Rig moved = rig.renamed("a", "heart", "heart");
        assertThat(columns(moved)).containsExactly("heart", "b");
        assertThat(moved.readersOn("heart")).singleElement().satisfies(reader -> assertThat(reader.settings())
                .containsEntry("kind", "electrical"));
        assertThat(moved.bandsOn("pulse(heart)")).singleElement().satisfies(band -> assertThat(band.band())
                .isEqualTo(new Band(50, 90, 1)));
        assertThat(moved.withoutReader("pulse(heart)").bands()).isEmpty();
        assertThatThrownBy(() -> new ReaderSetup("pulse", List.of("a", "b"), Map.of()))
                .hasMessage("pulse reads 1 column, not 2");
    }
}
