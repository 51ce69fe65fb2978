package zesty.signal.engine;

import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;
import zesty.signal.core.decode.Stations;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Block;

/**
 * The stations that turn up in what is recorded: the take's rig has channels for each that has a row in it, however far the lanes are
 * behind. Recorder's thread.
 */
final class TakeStations {
    /** What a source's stations are called. Any thread. */
    @FunctionalInterface
    interface Names {
        /** @return empty where a station is called by its number */
        String of(int source, double station);
    }

    private final Names names;
    private final Map<Integer, Set<Double>> seen = new HashMap<>();
    private Rig rig;

    /** @param rig what is recorded, with the stations that are known by now */
    TakeStations(Rig rig, Names names) {
        this.rig = rig;
        this.names = names;
    }

    /**
     * @param columns of the rows, those that the take keeps of the source
     * @return the rig with the stations that the rows bring; null where they bring none
     */
    Rig with(int source, List<Column> columns, Block rows) {
        int column = columns.stream().map(Column::role).toList().indexOf(Role.STATION);
        if (column < 0 || rows.rows() == 0) {
            return null;
        }
        Set<Double> known = seen.computeIfAbsent(source, key -> new HashSet<>());
        double[] stations = rows.columns()[column];
        if (Arrays.stream(stations, 0, rows.rows()).allMatch(one -> one != one || known.contains(one))) {
            return null;
        }
        List<Column> sent = rig.sources().get(source).format().columns();
        for (Map.Entry<Double, Block> part : Stations.part(rows, column).entrySet()) {
            if (known.size() < Feed.MOST_STATIONS && known.add(part.getKey())) {
                rig = rig.withStation(
                        source,
                        part.getKey(),
                        names.of(source, part.getKey()),
                        c -> sends(part.getValue(), columns.indexOf(sent.get(c))));
            }
        }
        return rig;
    }

    private static boolean sends(Block rows, int column) {
        return column >= 0
                && Arrays.stream(rows.columns()[column], 0, rows.rows()).anyMatch(v -> v == v);
    }
}
