package zesty.signal.engine;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntPredicate;
import zesty.signal.core.decode.Role;
import zesty.signal.core.decode.Stations;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Block;

/**
 * One source of a running trail: its reader, and the streams made of its rows. What is not said otherwise is for the
 * trail's thread only.
 */
final class Feed {
    private static final int EARLY_BLOCKS = 200;
    private static final double NO_RATE_HZ = 100;
    static final int MOST_STATIONS = 128;

    /** Rows on their way to the trail. */
    record Data(Block block, double rateHz, double rateUncertainty, long arrivalNanos) {}

    private final String name;
    private final SourceReader reader;
    private final SampleStream.RowsCame rowsCame;
    private StreamFormat format;
    private int stationColumn = -1;
    private final Map<Double, SampleStream> streams = new LinkedHashMap<>();
    private final List<Data> early = new ArrayList<>();

    /**
     * @param name of the source in the rig, by which the feed finds it however many come and go
     * @param rowsCame hears of rows on the trail's thread
     */
    Feed(String name, SourceReader reader, SampleStream.RowsCame rowsCame) {
        this.rowsCame = rowsCame;
        this.name = name;
        this.reader = reader;
    }

    /** Any thread. @return the name of its source in the rig */
    String name() {
        return name;
    }

    /** Any thread. */
    SourceReader reader() {
        return reader;
    }

    /** Any thread. @return index of its source in the rig; −1 when the rig has it no more */
    int indexIn(Rig rig) {
        for (int i = 0; i < rig.sources().size(); i++) {
            if (rig.sources().get(i).name().equals(name)) {
                return i;
            }
        }
        return -1;
    }

    void format(StreamFormat found) {
        format = found;
        stationColumn = found.indexOf(Role.STATION);
        streams.clear();
        early.clear();
    }

    Collection<SampleStream> streams() {
        return streams.values();
    }

    /** @param stationCame is told of a station not seen before, and gives the rig with it */
    void accept(Data data, Rig rig, StationCame stationCame) {
        if (format == null) {
            return;
        }
        if (stationColumn >= 0) {
            ofStations(data, rig, stationCame);
            return;
        }
        SampleStream stream = streams.computeIfAbsent(Double.NaN, station -> newStream(station, rig));
        if (!stream.pace().known()) {
            if (Double.isNaN(data.rateHz()) && early.size() < EARLY_BLOCKS) {
                early.add(data);
                return;
            }
            // A clock that stands still gives no rate; the samples are shown all the same.
            List<Block> atHand = new ArrayList<>(early.stream().map(Data::block).toList());
            atHand.add(data.block());
            stream.begin(Double.isNaN(data.rateHz()) ? NO_RATE_HZ : data.rateHz(), rig, Block.join(atHand));
            for (Data before : early) {
                stream.accept(before.block(), before.arrivalNanos());
            }
            early.clear();
        }
        // Edges come as often as what they count turns: that is no rate.
        boolean edges = format.indexOf(Role.EDGE) >= 0;
        if (format.clock() == null
                ? stream.pace().rateIsOther(data.rateHz())
                : !edges && stream.pace().paceIsOther(data.rateHz())) {
            // What came before was squeezed together by a buffer: its times mean nothing, so the lanes begin anew. Or
            // the
            // board goes on at another pace: filters and readers of the old one would be wrong.
            stream = newStream(Double.NaN, rig);
            streams.put(Double.NaN, stream);
            stream.begin(data.rateHz(), rig, data.block());
        }
        stream.accept(data.block(), data.arrivalNanos());
        stream.pace().measured(data.rateHz(), data.rateUncertainty());
        if (!edges) {
            stream.refine();
        }
    }

    /** A station not seen before. @param name what it is called; empty for its number. @param sent which columns come from it */
    record Station(double number, String name, IntPredicate sent) {}

    /** Adds a station of a source to the rig in force. */
    @FunctionalInterface
    interface StationCame {
        Rig of(Station station);
    }

    private static boolean sent(Block rows, int column) {
        return Arrays.stream(rows.columns()[column], 0, rows.rows()).anyMatch(v -> v == v);
    }

    private SampleStream newStream(double station, Rig rig) {
        int index = Math.max(0, indexIn(rig));
        return new SampleStream(
                name, station, format, rig.sources().get(index).setup().warmUpSeconds(), rowsCame);
    }

    private void ofStations(Data data, Rig before, StationCame stationCame) {
        Rig rig = before;
        for (Map.Entry<Double, Block> part :
                Stations.part(data.block(), stationColumn).entrySet()) {
            double station = part.getKey();
            if (!streams.containsKey(station)) {
                if (streams.size() == MOST_STATIONS) {
                    continue;
                }
                Block rows = part.getValue();
                rig = stationCame.of(new Station(station, reader.stationName(station), column -> sent(rows, column)));
                streams.put(station, newStream(station, rig));
            }
            double pace = streams.get(station).pace().otherByTimesHz();
            if (pace == pace) {
                streams.put(station, newStream(station, rig));
                streams.get(station).begin(pace, rig, part.getValue());
            }
            streams.get(station).acceptOfStation(part.getValue(), data.arrivalNanos(), rig);
        }
    }
}
