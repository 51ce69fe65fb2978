package zesty.signal.engine;

import java.util.LinkedHashMap;
import java.util.Map;
import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.RigChange;
import zesty.signal.core.rig.Source;
import zesty.signal.core.rig.SourceSetup;

/**
 * What the maker decided, whole, and what of it fits the streams of this moment. The second is worked out of the first
 * and of what was found in the streams, and is never written back: a board that once speaks another way loses nothing.
 * Any thread.
 */
final class RigInForce {
    private Rig decided;
    private final Map<String, StreamFormat> found = new LinkedHashMap<>();
    private final Map<String, Map<Double, Feed.Station>> stations = new LinkedHashMap<>();
    private Rig fitted;

    RigInForce(Rig decided) {
        this.decided = decided;
        fitted = decided;
    }

    /** @return the rig as it fits the streams of this moment */
    synchronized Rig get() {
        return fitted;
    }

    /** @return what the maker decided */
    synchronized Rig decided() {
        return decided;
    }

    /** A source's stream turned out to be of that format. A format that was not known before is kept from now on. */
    synchronized void found(String source, StreamFormat format) {
        int index = indexOf(decided, source);
        if (index < 0) {
            return;
        }
        found.put(source, format);
        stations.remove(source);
        if (decided.sources().get(index).format() == null) {
            decided = decided.withSource(index, one -> one.withFormat(format));
        }
        fit();
    }

    /** A station of a source turned up. @return the rig with it */
    synchronized Rig station(String source, Feed.Station station) {
        stations.computeIfAbsent(source, key -> new LinkedHashMap<>()).put(station.number(), station);
        fit();
        return fitted;
    }

    /** @return the rig with the change in force */
    synchronized Rig changed(RigChange change) {
        decided = change.onto(decided);
        fit();
        return fitted;
    }

    /** @return the format that a source is wanted to have by a change that is in force; null when it says none */
    synchronized StreamFormat wanted(String source, RigChange change) {
        Rig wanted = change.onto(fitted);
        int index = indexOf(wanted, source);
        return index < 0 ? null : wanted.sources().get(index).format();
    }

    synchronized Rig joined(String called, SourceSetup setup) {
        decided = decided.joined(called, setup);
        fit();
        return fitted;
    }

    synchronized void left(String source) {
        decided = decided.without(indexOf(decided, source));
        found.remove(source);
        stations.remove(source);
        fit();
    }

    private void fit() {
        Rig now = decided;
        for (int i = 0; i < decided.sources().size(); i++) {
            Source source = decided.sources().get(i);
            StreamFormat format = pictured(found.get(source.name()), source.format());
            if (format == null) {
                // Nothing has come of it: what it will be is what the maker has, channels and all.
                continue;
            }
            now = now.fittedTo(i, format);
            for (Feed.Station one :
                    stations.getOrDefault(source.name(), Map.of()).values()) {
                now = now.withStation(i, one.number(), one.name(), one.sent());
            }
        }
        fitted = now;
    }

    /** What is made of pictures is the maker's, not the stream's. */
    private static StreamFormat pictured(StreamFormat found, StreamFormat decided) {
        return found instanceof PictureFormat is && decided instanceof PictureFormat own && is.sameSize(own)
                ? is.withSetup(own.setup())
                : found;
    }

    private static int indexOf(Rig rig, String source) {
        for (int i = 0; i < rig.sources().size(); i++) {
            if (rig.sources().get(i).name().equals(source)) {
                return i;
            }
        }
        return -1;
    }
}
