package zesty.signal.core.rig;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Settings;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.text.Messages;

/**
 * A reader as the maker set it up.
 *
 * @param kind the name of its kind
 * @param columns the columns of the channels it reads, one a port in their order; empty where it is only a choice for
 *     channels to come
 * @param settings what was set, by key; the rest is as usual
 */
public record ReaderSetup(String kind, List<String> columns, Map<String, String> settings) {
    /** @throws IllegalArgumentException when there is no such kind, or it does not take that, saying what it takes */
    public ReaderSetup {
        Objects.requireNonNull(kind, "kind");
        columns = List.copyOf(columns);
        ReaderKind known = ReaderKinds.of(kind);
        settings = Map.copyOf(Settings.of(known, settings).given());
        int ports = known.ports().size();
        if (!columns.isEmpty() && (columns.size() < known.fewestPorts() || columns.size() > ports)) {
            throw new IllegalArgumentException(Messages.of(
                    "rig.reads-not",
                    kind,
                    (known.fewestPorts() == ports ? "" : Messages.of("rig.to", known.fewestPorts())),
                    ports,
                    (ports == 1 ? Messages.of("rig.column") : Messages.of("rig.columns")),
                    columns.size()));
        }
    }

    /** A reader of one channel. */
    public static ReaderSetup on(String column, String kind, Map<String, String> settings) {
        return new ReaderSetup(kind, List.of(column), settings);
    }

    /** @return what names it in its rig: its kind and its columns */
    public String id() {
        return kind + "(" + String.join(",", columns) + ")";
    }

    public ReaderKind readerKind() {
        return ReaderKinds.of(kind);
    }

    /** @return its settings, checked, with the usual values for the rest */
    public Settings checked() {
        return Settings.of(readerKind(), settings);
    }

    /** @return the same reader of other columns */
    public ReaderSetup onColumns(List<String> others) {
        return new ReaderSetup(kind, others, settings);
    }

    /** @return the same reader with one setting changed */
    public ReaderSetup with(String key, String value) {
        Map<String, String> more = new TreeMap<>(settings);
        more.put(key, value);
        return new ReaderSetup(kind, columns, more);
    }
}
