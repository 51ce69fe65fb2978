package zesty.signal.core.rig;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import zesty.signal.core.act.Band;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.decode.Role;
import zesty.signal.core.picture.PictureMend;
import zesty.signal.core.picture.PictureSetup;
import zesty.signal.core.scale.Scaling;

/** Whatever is changed can be carried onto another rig and taken back, and leaves all else as it is there. */
class RigChangeTest {
    private static Rig rig() {
        List<Column> columns = Stream.of("heel", "trim", "pull", "volts", "depth")
                .map(name -> new Column(name, "V", Role.VALUE, true))
                .toList();
        DelimitedFormat format = new DelimitedFormat(',', false, false, "", columns, null);
        return Rig.blank("Wren", "sim:deck")
                .joined("mast", SourceSetup.at("sim:masthead"))
                .fittedTo(format)
                .fittedTo(1, new DelimitedFormat(',', false, false, "", columns.subList(0, 2), null))
                .withReader(ReaderSetup.on("pull", "muscle", Map.of()))
                .withReader(ReaderSetup.on("heel", "level", Map.of()))
                .withBand(new BandSetup("level(heel)", "mean", new Band(0, 3, 1)));
    }

    private static UnaryOperator<Rig> channel(String column, UnaryOperator<Channel> change) {
        return rig -> rig.withChannel(column, change);
    }

    /** Changes of parts that have nothing to do with each other: their order does not matter. */
    private static List<UnaryOperator<Rig>> apart() {
        return List.of(
                rig -> rig.withName("Tern"),
                channel("heel", c -> c.withName("Heel")),
                channel("trim", c -> c.withRecipe(Recipe.parse("mean:5"))),
                channel("mast/heel", c -> c.withShown(false)),
                channel("volts", c -> c.withScaling(new Scaling(null, 2, 1, "V"))),
                rig -> rig.withReader(ReaderSetup.on("depth", "level", Map.of())),
                rig -> rig.withoutReader("muscle(pull)"),
                rig -> rig.withBand(new BandSetup("level(heel)", "slope_per_s", new Band(-1, 1, 0))),
                rig -> rig.withoutBand("level(heel)", "mean"),
                rig -> rig.withReader(new ReaderSetup("level", List.of("heel"), Map.of("hysteresis", "2"))),
                rig -> rig.acknowledging(Caution.BODY),
                rig -> rig.acknowledging(Caution.HEIGHT),
                rig -> rig.withSource(0, one -> one.withSetup(one.setup().withWarmUp(2))),
                rig -> rig.withSource(1, one -> one.withSetup(one.setup().withStatedRate(40))),
                rig -> rig.withRecording(rig.recording().withMarkers(List.of("gust"))));
    }

    private static Rig changed(Rig rig, List<UnaryOperator<Rig>> changes) {
        Rig now = rig;
        for (UnaryOperator<Rig> change : changes) {
            now = change.apply(now);
        }
        return now;
    }

    @Test
    void whatIsChangedIsCarriedOverAndTakenBack() {
        Random random = new Random(11);
        for (int i = 0; i < 300; i++) {
            List<UnaryOperator<Rig>> all = new ArrayList<>(apart());
            Collections.shuffle(all, random);
            int mine = 1 + random.nextInt(all.size() - 1);
            Rig before = rig();
            Rig own = changed(before, all.subList(0, mine));
            Rig theirs = changed(before, all.subList(mine, all.size()));
            RigChange change = RigChange.between(before, own);
            assertThat(change.isNothing()).isFalse();
            assertThat(change.onto(before)).isEqualTo(own);
            assertThat(change.reversed().onto(own)).isEqualTo(before);
            Rig both = change.onto(theirs);
            assertThat(sorted(both)).isEqualTo(sorted(changed(theirs, all.subList(0, mine))));
            assertThat(sorted(change.reversed().onto(both))).isEqualTo(sorted(theirs));
        }
        assertThat(RigChange.between(rig(), rig()).isNothing()).isTrue();
    }

    /** Readers and bands in one order: which of two came first is no matter here. */
    private static Rig sorted(Rig rig) {
        List<ReaderSetup> readers = new ArrayList<>(rig.readers());
        readers.sort(java.util.Comparator.comparing(ReaderSetup::id));
        List<BandSetup> bands = new ArrayList<>(rig.bands());
        bands.sort(java.util.Comparator.comparing(band -> band.reader() + band.scalar()));
        return rig.withReaders(readers, bands);
    }

    /** The order of the lanes goes over to a rig that has a lane more and one less, and lies there as it was drawn. */
    @Test
    void theOrderOfTheLanesGoesOver() {
        Rig before = rig();
        List<Channel> turned = new ArrayList<>(before.channels());
        Collections.swap(turned, 0, 3);
        Rig other = before.withChannels(before.channels().stream()
                .filter(one -> !one.column().equals("trim"))
                .toList());
        RigChange change = RigChange.between(before, before.withChannels(turned));
        assertThat(change.onto(other).channels().stream().map(Channel::column))
                .containsExactly("volts", "pull", "heel", "depth", "mast/heel", "mast/trim");
        assertThat(RigChange.between(other, before).onto(other).channels()).isEqualTo(before.channels());
        assertThat(RigChange.between(before, other).onto(before).channels()).isEqualTo(other.channels());
        Rig strange = before.withChannels(turned.subList(0, 1));
        assertThat(change.onto(strange).channels()).isEqualTo(strange.channels());
    }

    @Test
    void theRecordingHearsOfCleaningScalingAndChecksByTheirNames() {
        Rig before = rig();
        assertThat(words(before, channel("trim", c -> c.withRecipe(Recipe.parse("mean:5")))))
                .isEqualTo("cleaning of trim");
        assertThat(words(before, channel("trim", c -> c.withScaling(new Scaling(null, 2, 0, "V")))))
                .isEqualTo("scaling of trim");
        assertThat(words(before, channel("trim", c -> c.withSensor(new Sensor("thermistor", -40, 100, "", null)))))
                .isEqualTo("the sensor of trim");
    }

    private static String words(Rig before, UnaryOperator<Rig> change) {
        return RigChange.between(before, change.apply(before)).words();
    }

    @Test
    void aSourceThatGoesTakesWhatIsReadOfItAlong() {
        Rig rig = rig().withReader(ReaderSetup.on("mast/heel", "level", Map.of()))
                .withBand(new BandSetup("level(mast/heel)", "mean", new Band(0, 1, 0)));
        Rig without = rig.without(1);
        assertThat(without.readers()).isEqualTo(rig().readers());
        assertThat(without.bands()).isEqualTo(rig().bands());
        assertThat(rig.readersOn("heel")).extracting(ReaderSetup::id).containsExactly("level(heel)");
        assertThat(rig.readersOn("volts")).isEmpty();
        Band other = new Band(1, 2, 0);
        assertThat(rig.withBand(new BandSetup("level(heel)", "mean", other)).bandsOn("level(heel)"))
                .extracting(BandSetup::band)
                .containsExactly(other);
        assertThat(rig.withoutBand("level(heel)", "mean").bands())
                .extracting(BandSetup::reader)
                .containsExactly("level(mast/heel)");
    }

    /** What a surface sends is a temperature: numbers without a unit become °C once its emissivity is known. */
    @Test
    void aPictureOfAKnownSurfaceIsInDegrees() {
        Rig rig = Rig.blank("Wren", "sim:heat").fittedTo(PictureFormat.of(2, 3, ',', false, true, ""));
        Rig black = rig.withPicture(0, setup -> setup.withMend(PictureMend.NONE));
        assertThat(black.channels()).extracting(one -> one.scaling().unit()).doesNotContain("°C");
        Rig metal = rig.withPicture(0, setup -> setup.withMend(PictureMend.NONE.withSurface(0.9, 20)));
        assertThat(metal.channels())
                .isNotEmpty()
                .extracting(one -> one.scaling().unit())
                .containsOnly("°C");
        assertThat(((PictureFormat) metal.sources().get(0).format())
                        .setup()
                        .mend()
                        .emissivity())
                .isEqualTo(0.9);
        assertThat(rig().withPicture(0, setup -> PictureSetup.NONE)).isEqualTo(rig());
    }

    @Test
    void smallPartsSayWhatTheyAre() {
        assertThat(Protocol.parse("rest 45 s").length()).isEqualTo("45 s");
        assertThat(Protocol.parse("rest 45 s, pull 75 s").length()).isEqualTo("2 min");
        assertThat(Protocol.parse("rest 45 s, pull 2 min").length()).isEqualTo("2 min 45 s");
        assertThat(Protocol.parse("rest 1 min").length()).isEqualTo("1 min");
        assertThat(Protocol.parse(" ")).isEqualTo(Protocol.NONE);
        assertThat(Protocol.NONE.isNone()).isTrue();
        assertThat(Protocol.parse("rest 1 s").isNone()).isFalse();
        assertThat(Sensor.UNKNOWN.isUnknown()).isTrue();
        for (Sensor one : List.of(
                new Sensor("a", Double.NaN, Double.NaN, "", null),
                new Sensor("", 1, Double.NaN, "", null),
                new Sensor("", Double.NaN, 1, "", null),
                new Sensor("", Double.NaN, Double.NaN, "trap", null),
                new Sensor("", Double.NaN, Double.NaN, "", Caution.BODY))) {
            assertThat(one.isUnknown()).isFalse();
        }
        Sensor bounded = new Sensor("a", 1, 3, "", null);
        assertThat(bounded.oddity(1, "V") + bounded.oddity(3, "V") + bounded.oddity(Double.NaN, "V"))
                .isEmpty();
        assertThat(bounded.oddity(3.1, "V")).contains("3.1 V");
        Limits limits = new Limits(1, 3);
        assertThat(limits.beyond(1) || limits.beyond(3)).isFalse();
        assertThat(limits.words(0.5, "V")).isEqualTo("0.5 V is below its limit of 1 V");
        assertThat(limits.words(3.5, "")).isEqualTo("3.5 is above its limit of 3");
        assertThat(new Limits(1, Double.NaN).none() || new Limits(Double.NaN, 1).none())
                .isFalse();
        RecordingSetup none = RecordingSetup.NONE;
        assertThat(none.isNone()).isTrue();
        assertThat(none.withMarkers(List.of("a")).isNone()
                        || none.withProtocol(Protocol.parse("rest 1 s")).isNone()
                        || none.withLeftOut(List.of("b")).isNone())
                .isFalse();
        assertThat(none.withMarkers(List.of("a"))
                        .withProtocol(Protocol.parse("rest 1 s"))
                        .withLeftOut(List.of("b")))
                .isEqualTo(new RecordingSetup(List.of("a"), Protocol.parse("rest 1 s"), List.of("b")));
        assertThat(SourceSetup.at("sim:deck")
                        .withStatedRate(40)
                        .withOrders(List.of("go"))
                        .withPassOver(List.of("#")))
                .isEqualTo(new SourceSetup("sim:deck", 40, 0, List.of("go"), List.of("#")));
        assertThat(OutputUse.DRY.withSource("mast").withWatchdog("watch").withCaution(Caution.HEAT))
                .isEqualTo(new OutputUse("mast", false, Caution.HEAT, "watch"));
        Channel shown = new Channel("v", "v", new Scaling(null, 1, 0, "V"), Recipe.parse(""), true).withShownIn("mV");
        assertThat(shown.unit()).isEqualTo("mV");
        assertThat(shown.display().apply(2)).isEqualTo(2000);
        assertThat(shown.withShownIn("").unit()).isEqualTo("V");
        assertThat(shown.withShownIn("").display().isSame()).isTrue();
    }
}
