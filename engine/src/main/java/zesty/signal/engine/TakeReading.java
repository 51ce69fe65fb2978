package zesty.signal.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.Reading;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/** One answer out of a take, without all else that is in it. */
public final class TakeReading {
    private TakeReading() {}

    /**
     * Reads one answer out of a take, of channels scaled and cleaned as its rig says.
     *
     * @param columns of the channels to read, or the names that the maker gave these
     * @throws ReaderException when that cannot be read, saying what would do
     */
    public static Reading read(Take take, String kind, List<String> columns, Map<String, String> settings)
            throws TakeException {
        return read(take, kind, columns, settings, Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY);
    }

    /** @param from begin and {@code to} end of what it is to speak of, in s from the take's first sample, both held */
    public static Reading read(
            Take take, String kind, List<String> columns, Map<String, String> settings, double from, double to)
            throws TakeException {
        return read(take, kind, columns, settings, List.of(new double[] {from, to}))
                .get(0);
    }

    /**
     * As {@link #read(Take, String, List, Map, double, double)}, of several parts; the take is gone through for each, but
     * read from the disk once.
     *
     * @param parts begin and end of each
     * @return one answer a part
     */
    static List<Reading> read(
            Take take, String kind, List<String> columns, Map<String, String> settings, List<double[]> parts)
            throws TakeException {
        Rig rig = take.rigOrPlain();
        for (int s = 0; s < rig.sources().size(); s++) {
            rig = take.rows(s) > 1 ? rig.fittedTo(s, rig.sources().get(s).format()) : rig;
        }
        int source = -1;
        List<String> own = new ArrayList<>();
        for (String column : columns) {
            String found = columnOf(take, rig, column);
            if (source >= 0 && rig.sourceOf(found) != source) {
                throw new ReaderException(Messages.of(
                        "engine.the-columns-of-one-reader-come", String.join(Messages.of("engine.and"), columns)));
            }
            source = rig.sourceOf(found);
            own.add(found);
        }
        ReaderSetup setup = new ReaderSetup(
                kind, own, MarkedAt.resolved(settings, take.marks(), take.file().toString()));
        TakeLines lines = TakeLines.of(take, source, rig, TakeLines.Pages.upTo(TakeLines.MOST_HELD), Progress.untold());
        for (StoredLine line : lines.lines()) {
            List<Reading> found = new ArrayList<>();
            for (double[] part : parts) {
                StoredReaders readers = StoredReaders.NONE.reading(lines.rig(), line, setup, part[0], part[1]);
                if (readers.has(setup)) {
                    ReaderSnapshot seen = readers.seen(setup, take.edits().getOrDefault(setup.id(), List.of()));
                    String trouble = readers.cleaningTrouble(setup);
                    if (!trouble.isEmpty() || seen.reading() == null) {
                        throw new ReaderException(trouble.isEmpty() ? seen.trouble() : trouble);
                    }
                    found.add(seen.reading());
                }
            }
            if (found.size() == parts.size()) {
                return found;
            }
        }
        throw new ReaderException(Messages.of(
                "engine.the-columns-of-one-reader-come-2", String.join(Messages.of("engine.and"), columns)));
    }

    private static String columnOf(Take take, Rig rig, String asked) {
        return rig.channels().stream()
                .filter(c -> c.column().equals(asked) || c.name().equals(asked))
                .map(Channel::column)
                .findFirst()
                .orElseThrow(() -> new ReaderException(Messages.of(
                        "engine.has-no-column-it-has",
                        take.file(),
                        asked,
                        String.join(
                                ", ",
                                rig.channels().stream().map(Channel::column).toList()))));
    }
}
