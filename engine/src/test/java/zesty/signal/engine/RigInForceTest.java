package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.decode.Role;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.RigChange;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.TimeBase;

/**
 * What the maker decided under all that streams do: boards that speak otherwise for a while, changes made meanwhile, taken
 * back in any order. Compared with a plain list of what was decided.
 */
class RigInForceTest {
    private static final List<String> ALL = List.of("a", "b", "c", "d", "e", "f");

    private static StreamFormat format(List<String> names) {
        return new DelimitedFormat(
                ',',
                false,
                false,
                "",
                names.stream().map(n -> new Column(n, "")).toList(),
                null);
    }

    /** A take whose rows hold a station that the lanes, which are behind, have not come to has channels for it. */
    @Test
    void aTakesStationsAreThoseOfItsRows() {
        StreamFormat sent = new DelimitedFormat(
                ',',
                false,
                false,
                "",
                List.of(
                        new Column("station", "").withRole(Role.STATION),
                        new Column("volts", "V"),
                        new Column("amps", "A")),
                null);
        Rig rig = Rig.blank("r", "sim:battery").fittedTo(sent).withStation(0, 4);
        TakeStations stations = new TakeStations(rig, (source, one) -> one == 7 ? "teal" : "");
        double none = Double.NaN;
        double[][] rows = {{4, 2, none, 7, 2}, {12, 13, 1, none, 11}, {1, none, 1, 5, none}};
        Block block = new Block(new TimeBase.Steady(0, 1), rows, 5, List.of());
        Rig with = stations.with(0, sent.columns(), block);
        assertThat(with.channels())
                .extracting(Channel::column)
                .containsExactly("volts 4", "amps 4", "volts 2", "amps 7");
        assertThat(with.channels().get(3).name()).isEqualTo("teal amps");
        assertThat(stations.with(0, sent.columns(), block)).isNull();
        assertThat(stations.with(0, format(ALL).columns(), block)).isNull();
    }

    @Test
    void nothingThatWasDecidedIsLostWhateverTheBoardSays() {
        for (long seed = 0; seed < 200; seed++) {
            Random random = new Random(seed);
            RigInForce rig = new RigInForce(Rig.blank("r", "sim:deck"));
            rig.found("", format(ALL));
            Map<String, String> named = new HashMap<>();
            Map<String, String> cleaned = new HashMap<>();
            List<String> speaks = ALL;
            for (int step = 0; step < 60; step++) {
                if (random.nextInt(4) == 0) {
                    // The board says some of its columns only, or again all of them.
                    List<String> some = new ArrayList<>(ALL);
                    while (some.size() > 2 && random.nextBoolean()) {
                        some.remove(random.nextInt(some.size()));
                    }
                    speaks = some;
                    rig.found("", format(some));
                    continue;
                }
                String column = speaks.get(random.nextInt(speaks.size()));
                Rig now = rig.get();
                if (random.nextBoolean()) {
                    String name = column + " " + step;
                    named.put(column, name);
                    rig.changed(RigChange.between(now, now.withChannel(column, c -> c.withName(name))));
                } else {
                    String recipe = "mean:" + (1 + random.nextInt(9));
                    cleaned.put(column, recipe);
                    rig.changed(
                            RigChange.between(now, now.withChannel(column, c -> c.withRecipe(Recipe.parse(recipe)))));
                }
                Rig seen = rig.get();
                List<String> expected = speaks;
                assertThat(seen.channels().stream().map(Channel::column).toList())
                        .as("seed %d step %d", seed, step)
                        .isEqualTo(expected);
            }
            rig.found("", format(ALL));
            for (Channel channel : rig.get().channels()) {
                assertThat(channel.name()).isEqualTo(named.getOrDefault(channel.column(), channel.column()));
                assertThat(channel.recipe().text()).isEqualTo(cleaned.getOrDefault(channel.column(), ""));
            }
        }
    }

    @Test
    void whatIsTakenBackInTurnLeavesTheRigAsItWas() {
        for (long seed = 0; seed < 100; seed++) {
            Random random = new Random(seed);
            RigInForce rig = new RigInForce(Rig.blank("r", "sim:deck"));
            rig.found("", format(ALL));
            Rig first = rig.get();
            Deque<RigChange> done = new ArrayDeque<>();
            for (int step = 0; step < 30; step++) {
                Rig now = rig.get();
                String column = ALL.get(random.nextInt(ALL.size()));
                String kind = ReaderKinds.all()
                        .get(random.nextInt(ReaderKinds.all().size()))
                        .name();
                boolean single = ReaderKinds.of(kind).fewestPorts() == 1;
                String name = "n" + step;
                Rig after =
                        switch (random.nextInt(4)) {
                            case 0 -> now.withChannel(column, c -> c.withShown(!c.shown()));
                            case 1 -> now.withChannel(column, c -> c.withName(name));
                            case 2 ->
                                single ? now.withReader(ReaderSetup.on(column, kind, Map.of())) : now.withName(name);
                            default -> now.withName(name);
                        };
                RigChange change = RigChange.between(now, after);
                if (!change.isNothing()) {
                    done.push(change);
                    rig.changed(change);
                }
            }
            while (!done.isEmpty()) {
                rig.changed(done.pop().reversed());
            }
            assertThat(rig.get()).as("seed %d", seed).isEqualTo(first);
        }
    }

    @Test
    void ofSeveralSourcesEachKeepsItsOwn() {
        RigInForce rig = new RigInForce(Rig.blank("r", "sim:deck"));
        rig.found("", format(List.of("a", "b")));
        rig.joined("mast", zesty.signal.core.rig.SourceSetup.at("sim:masthead"));
        rig.found("mast", format(List.of("a", "wind")));
        Rig now = rig.get();
        rig.changed(RigChange.between(now, now.withChannel("mast/wind", c -> c.withName("Wind"))));
        // The first board changes its ways: the second one's lanes stay.
        rig.found("", format(List.of("x")));
        assertThat(rig.get().channels())
                .extracting(Channel::column)
                .containsExactlyInAnyOrder("x", "mast/a", "mast/wind");
        rig.left("mast");
        assertThat(rig.get().channels()).extracting(Channel::column).containsExactly("x");
        rig.joined("mast", zesty.signal.core.rig.SourceSetup.at("sim:masthead"));
        rig.found("mast", format(List.of("wind")));
        assertThat(rig.get().channels()).extracting(Channel::name).containsExactly("x", "wind");
    }
}
