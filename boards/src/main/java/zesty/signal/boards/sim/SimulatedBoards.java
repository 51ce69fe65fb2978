package zesty.signal.boards.sim;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Supplier;
import zesty.signal.core.text.Messages;

/** The boards that ship with the product. A name may be followed by faults, each after a plus sign:
 * hull+noise; deck and chest also by what makes their pulse hard to read: deck+wander+hum, and the forearm by what makes its
 * muscle hard to read. */
public final class SimulatedBoards {
    /** A board that sends what a plan asks for; it stands in no list, since it is none without a plan. */
    private static final String PLANNED = "planned";

    private static final List<Entry> ALL = List.of(
            new Entry("deck", Messages.of("sim.the-dinghy-s-deck-board-pulse")),
            new Entry("chest", Messages.of("sim.electrodes-on-the-helm-s-chest")),
            new Entry("hull", Messages.of("sim.acceleration-at-the-rudder-stock")),
            new Entry("forearm", Messages.of("sim.the-sheet-hand-s-forearm-raw-24")),
            new Entry("forearm-envelope", Messages.of("sim.the-same-from-a-module-that-makes")),
            new Entry("motion", Messages.of("sim.nine-axes-at-the-mast-foot-comma")),
            new Entry("elbow", Messages.of("sim.two-motion-units-on-the-sheet-hand")),
            new Entry("shaft", Messages.of("sim.vibration-at-the-outboard-s-shaft")),
            new Entry("masthead", Messages.of("sim.wind-cups-and-vane-labelled-lines")),
            new Entry("masthead-edges", Messages.of("sim.the-moment-of-each-pulse-of-the")),
            new Entry("battery", Messages.of("sim.six-batteries-in-turn-one-weak-one")),
            new Entry("buoy", Messages.of("sim.the-mark-buoy-s-battery-sleeps")),
            new Entry("locker", Messages.of("sim.the-chain-locker-s-temperature-in")),
            new Entry("cupboard", Messages.of("sim.the-drying-cupboard-takes-heat-0")),
            new Entry("gripper", Messages.of("sim.a-gripper-with-a-cork-takes-grip-0")),
            new Entry("sounder", Messages.of("sim.depth-by-echo-in-microseconds-10-s")),
            new Entry("halyard", Messages.of("sim.knocks-on-the-mast-16-bit-frames")),
            new Entry("hoist", Messages.of("sim.the-hoist-s-load-hexadecimal")),
            new Entry("cowling", Messages.of("sim.heat-picture-of-the-outboard-24-32")),
            new Entry("whistle", Messages.of("sim.sound-at-the-race-officer-s-escape")),
            new Entry("barometer", Messages.of("sim.a-pressure-chip-s-registers-and")));

    private SimulatedBoards() {}

    /** A board's name and one line about it. */
    public record Entry(String name, String about) {}

    /** @return all of them */
    public static List<Entry> all() {
        return ALL;
    }

    /** @return how bad a board's signal can be made: by the word behind a plus sign, what it does; in order */
    public static Map<String, String> modes(String board) {
        Map<String, String> modes = new LinkedHashMap<>();
        PulseMode.of(board).forEach(mode -> modes.put(mode.word(), mode.about()));
        MuscleMode.of(board).forEach(mode -> modes.put(mode.word(), mode.about()));
        ThingMode.of(board).forEach(mode -> modes.put(mode.word(), mode.about()));
        return modes;
    }

    /**
     * @param words the board's name, and faults after plus signs
     * @throws IllegalArgumentException when there is no board or no fault of that name, saying which there are
     */
    public static SimulatedBoard create(String words, long seed) {
        String[] parts = words.split("\\+", -1);
        Set<Fault> faults = EnumSet.noneOf(Fault.class);
        Set<PulseMode> modes = EnumSet.noneOf(PulseMode.class);
        Set<ThingMode> things = EnumSet.noneOf(ThingMode.class);
        Set<MuscleMode> muscle = EnumSet.noneOf(MuscleMode.class);
        List<String> behind = Arrays.asList(parts).subList(1, parts.length);
        if (parts[0].equals(PLANNED)) {
            return planned(behind, seed);
        }
        for (String word : behind) {
            PulseMode mode = PulseMode.called(parts[0], word);
            MuscleMode effort = MuscleMode.called(parts[0], word);
            ThingMode thing = ThingMode.called(parts[0], word);
            if (thing != null) {
                things.add(thing);
            } else if (mode != null) {
                modes.add(mode);
            } else if (effort != null) {
                muscle.add(effort);
            } else {
                faults.add(Fault.called(word, parts[0]));
            }
        }
        Setup setup = new Setup(seed, faults.contains(Fault.CLIPPED), modes, muscle, things);
        Function<Setup, SimulatedBoard> maker = maker(parts[0]);
        Supplier<SimulatedBoard> fresh = () -> maker.apply(setup);
        return faults.isEmpty() ? fresh.get() : new FaultyBoard(fresh, faults, seed);
    }

    /**
     * @param noise and {@code swing} in counts. @param tones of lamps and motors in Hz; the first one is there
     * @return the words of a board that sends what is planned
     */
    public static String planned(
            double rateHz,
            int channels,
            int bits,
            double noise,
            double swing,
            double highestHz,
            List<Double> tones,
            boolean pulse,
            boolean packets) {
        return PlannedBoard.words(rateHz, channels, bits, noise, swing, highestHz, tones, pulse, packets);
    }

    private static SimulatedBoard planned(List<String> words, long seed) {
        Set<Fault> faults = EnumSet.noneOf(Fault.class);
        List<String> asked = new ArrayList<>();
        for (String word : words) {
            if (Arrays.stream(Fault.values()).anyMatch(fault -> fault.word().equals(word))) {
                faults.add(Fault.called(word, PLANNED));
            } else {
                asked.add(word);
            }
        }
        Supplier<SimulatedBoard> fresh = () ->
                PlannedBoard.of(new Setup(seed, faults.contains(Fault.CLIPPED), Set.of(), Set.of(), Set.of()), asked);
        return faults.isEmpty() ? fresh.get() : new FaultyBoard(fresh, faults, seed);
    }

    private static Function<Setup, SimulatedBoard> maker(String name) {
        return switch (name) {
            case "deck" ->
                setup -> new DeckBoard(DeckBoard.Settings.usual(setup.seed()), setup.clipped(), setup.modes());
            case "chest" -> ChestBoard::new;
            case "hull" -> HullBoard::new;
            case "forearm" -> ForearmBoard::new;
            case "forearm-envelope" -> ForearmEnvelopeBoard::new;
            case "motion" -> MotionBoard::new;
            case "elbow" -> ElbowBoard::new;
            case "shaft" -> ShaftBoard::new;
            case "masthead" -> MastheadBoard::new;
            case "masthead-edges" -> MastheadEdgesBoard::new;
            case "battery" -> BatteryBoard::new;
            case "buoy" -> BuoyBoard::new;
            case "locker" -> LockerBoard::new;
            case "cupboard" -> CupboardBoard::new;
            case "gripper" -> GripperBoard::new;
            case "sounder" -> SounderBoard::new;
            case "halyard" -> HalyardBoard::new;
            case "hoist" -> HoistBoard::new;
            case "cowling" -> CowlingBoard::new;
            case "whistle" -> WhistleBoard::new;
            case "barometer" -> BarometerBoard::new;
            default ->
                throw new IllegalArgumentException("no simulated board is called '" + name + "'; there are "
                        + String.join(", ", ALL.stream().map(Entry::name).toList()));
        };
    }
}
