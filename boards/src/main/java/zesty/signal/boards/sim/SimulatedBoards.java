package zesty.signal.boards.sim;

import java.util.List;

/** The boards that ship with the product. */
public final class SimulatedBoards {
    private static final List<Entry> ALL = List.of(
            new Entry("deck", "the dinghy's deck board: pulse, forearm, heel, trim and bilge, 200 lines a second"));

    private SimulatedBoards() {}

    /** A board's name and one line about it. */
    public record Entry(String name, String about) {}

    /** @return all of them */
    public static List<Entry> all() {
        return ALL;
    }

    /** @throws IllegalArgumentException when there is none of that name, saying which there are */
    public static SimulatedBoard create(String name, long seed) {
        if (name.equals("deck")) {
            return new DeckBoard(DeckBoard.Settings.usual(seed));
        }
        throw new IllegalArgumentException("no simulated board is called '" + name + "'; there are "
                + String.join(", ", ALL.stream().map(Entry::name).toList()));
    }
}
