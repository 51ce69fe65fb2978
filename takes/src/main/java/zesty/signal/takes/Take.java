package zesty.signal.takes;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.picture.FrameSeries;
import zesty.signal.core.read.HandEdit;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Source;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.text.Messages;

/**
 * A stored take, open for reading. A take whose recording broke off is mended when it is opened, and says so; where its
 * folder may only be read, a copy is. What of it does not check is left out, piece by piece, and told by {@link #damage}.
 * One thread. Longer than others: all that a take can be asked is asked here, in a line each; its file, its notes and its data answer.
 */
public final class Take implements AutoCloseable {
    /** Rows in each of {@link #cells}. */
    public static final int CELL = TakeSchema.CELL;

    private final TakeFile file;
    private final TakeNotes notes;
    private final TakeData data;
    private TakeFrames frames;

    private Take(TakeFile file) {
        this.file = file;
        notes = new TakeNotes(file);
        data = new TakeData(file);
    }

    /**
     * Opens a take, and mends it if its recording broke off.
     *
     * @throws TakeException when it is no take, of a later version, still being recorded by another process, or damaged
     *     so that nothing of it can be read
     */
    public static Take open(Path file) throws TakeException {
        Path folder = file.toAbsolutePath().getParent();
        boolean writable = Files.isWritable(file) && Files.isWritable(folder);
        try {
            return open(file, writable);
        } catch (TakeException e) {
            if (!writable || !DiskWords.isFull(e.getCause())) {
                throw e;
            }
            return inACopy(file, e);
        }
    }

    /** Where the disk is full it cannot be mended in its place, but read from a copy, if there is room for that elsewhere. */
    private static Take inACopy(Path file, TakeException full) throws TakeException {
        try {
            return open(file, false);
        } catch (TakeException e) {
            full.addSuppressed(e);
            throw full;
        }
    }

    /** @param writable whether the take and its folder may be written to */
    static Take open(Path path, boolean writable) throws TakeException {
        Take take = null;
        try {
            take = new Take(TakeFile.open(path, writable));
            take.mend();
            return take;
        } catch (SQLException e) {
            closeQuietly(take);
            throw new TakeException(Messages.of("takes.is-no-take-or-cannot-be-read", path, DiskWords.of(e)), e);
        } catch (IOException e) {
            closeQuietly(take);
            throw e instanceof TakeException said
                    ? said
                    : new TakeException(Messages.of("takes.cannot-be-opened", path, DiskWords.of(e)), e);
        }
    }

    private void mend() throws TakeException, SQLException {
        if (!notes.fact("state").equals("recording")) {
            return;
        }
        String process = notes.fact("process");
        boolean written = ProcessMark.isOwn(process) ? TakeWriter.writes(file.path()) : ProcessMark.runs(process);
        if (written) {
            throw new TakeException(Messages.of("takes.is-still-being-recorded-stop-the", file.path()));
        }
        new TakeRepair(file.connection(), file.checked()).mend(this);
        notes.load();
        data.load();
    }

    private static void closeQuietly(Take take) {
        try {
            if (take != null) {
                take.close();
            }
        } catch (TakeException e) {
            // The first error is the one to tell.
        }
    }

    /** @return what does not check, as far as it was read by now, in words; empty where all does */
    public List<String> damage() {
        return file.damage().words();
    }

    /** Reads all of it once, so that {@link #damage} tells everything. */
    public void verify() {
        data.verify();
        for (int source = 0; source < data.sources(); source++) {
            for (long row = 0; frameSize(source) != null && row < data.rows(source); row++) {
                frame(source, row);
            }
        }
        notes.marks();
        decisions();
    }

    /** @return whether it can only be read, since its folder may not be written to */
    public boolean readOnly() {
        return file.readOnly();
    }

    public Path file() {
        return file.path();
    }

    public String title() {
        return notes.fact("title");
    }

    public String notes() {
        return notes.fact("notes");
    }

    /** @return what was mended and what may be missing, in words; empty when nothing was */
    public String mended() {
        return notes.fact("mended");
    }

    /** @return when the recording began, by the calendar of the computer that made it */
    public Instant started() {
        return notes.started();
    }

    /** @return the rig in force when it was recorded. @throws TakeException when it does not read */
    public Rig rig() throws TakeException {
        return notes.rig();
    }

    /**
     * @return the rig it was recorded with, of the columns that were recorded; where it does not read, one that takes every
     *     column as it came
     */
    public Rig rigOrPlain() {
        try {
            return ofRecorded(rig());
        } catch (TakeException e) {
            file.damage().tell(Messages.of("takes.its-rig-cannot-be-read-so-its-raw"));
        }
        Rig plain = Rig.blank(title(), "stdin");
        for (int s = 0; s < sources(); s++) {
            String prefix = s == 0 ? "" : sourceName(s) + "/";
            List<Column> own = new ArrayList<>();
            for (Column column : data.columnsOf(s)) {
                own.add(new Column(
                        column.name().substring(column.name().startsWith(prefix) ? prefix.length() : 0),
                        column.unit()));
            }
            plain = s == 0 ? plain : plain.joined(sourceName(s), SourceSetup.at("stdin"));
            plain = own.isEmpty() ? plain : plain.fittedTo(s, new DelimitedFormat(',', false, false, "", own, null));
        }
        return plain;
    }

    /** What was not recorded is not in the stream that is worked out again. */
    private Rig ofRecorded(Rig rig) {
        Rig recorded = rig;
        for (int s = 0; s < rig.sources().size() && !rig.recording().leftOut().isEmpty(); s++) {
            Source source = rig.sources().get(s);
            List<Column> kept = source.format() == null ? List.of() : SourceShare.kept(rig, source);
            if (source.format() != null
                    && !(source.format() instanceof PictureFormat)
                    && kept.size() < source.format().columns().size()) {
                recorded = recorded.fittedTo(
                        s,
                        new DelimitedFormat(
                                ',', false, false, "", kept, source.format().clock()));
            }
        }
        return recorded;
    }

    public List<Mark> marks() {
        return notes.marks();
    }

    /** @return what was decided and sent while it was recorded, in its order */
    public List<Decision> decisions() {
        return DecisionTable.read(file);
    }

    /** Puts marks in the place of those there are, all of them or none; samples are never touched. */
    public void marks(List<Mark> now) throws TakeException {
        notes.marks(now, seconds());
    }

    /** @return the changes made by hand to the events of its readers, by the reader, in the order they were made */
    public Map<String, List<HandEdit>> edits() {
        return notes.edits();
    }

    /** Keeps the changes made by hand to the events of a reader, in the place of those before. */
    public void edit(String reader, List<HandEdit> edits) throws TakeException {
        notes.edit(reader, edits);
    }

    /** @return its tags, in the order they were put on */
    public List<String> tags() {
        return notes.tags();
    }

    /**
     * Writes into its logbook, all of it or nothing; samples are never touched.
     *
     * @throws TakeException when something of it makes no sense, saying what would, or cannot be written
     */
    public void write(LogEntry entry) throws TakeException {
        notes.write(entry, seconds());
    }

    /** Puts other notes in the place of those there are; samples are never touched. */
    public void notes(String text) throws TakeException {
        notes.notes(text);
    }

    /** Changes the title. */
    public void rename(String title) throws TakeException {
        notes.write(LogEntry.titled(title), seconds());
    }

    /** @return index of the source that a column is of */
    public int sourceOf(int column) {
        return data.sourceOf(column);
    }

    /** @return how many sources it was recorded from */
    public int sources() {
        return data.sources();
    }

    /** @return what a source was called; empty for the first */
    public String sourceName(int source) {
        return data.sourceName(source);
    }

    /** @return index of a source's first column */
    public int firstColumn(int source) {
        return data.firstColumn(source);
    }

    public List<Column> columns() {
        return data.columns();
    }

    /** @return rows of all sources together */
    public long rows() {
        return data.rows();
    }

    /** @return rows of a source */
    public long rows(int source) {
        return data.rows(source);
    }

    /** @return from the first row to the last, in s */
    public double seconds() {
        return data.seconds();
    }

    /** @return the values of a column, as they arrived; NaN where one is missing. Holds 8 bytes a row in memory */
    public double[] column(int index) throws TakeException {
        return data.column(index);
    }

    /** @return into how many pieces the rows of a source were written */
    public int pieces(int source) {
        return data.pieces(source);
    }

    /** @return index of a piece's first row among the rows of its source */
    public long rowOf(int source, int piece) {
        return data.rowOf(source, piece);
    }

    /** @return the time of a piece's first row, in s from the take's first */
    public double firstSeconds(int source, int piece) {
        return data.firstSeconds(source, piece);
    }

    /** @return seconds from row to row within a piece; NaN where each row has a time of its own */
    public double periodSeconds(int source, int piece) {
        return data.periodSeconds(source, piece);
    }

    /** @return the values of a column in one piece; NaN where one is missing */
    public double[] values(int column, int piece) {
        return data.values(column, piece);
    }

    /** @return the times of one piece of a source, in s from the take's first row */
    public double[] times(int source, int piece) {
        return data.times(source, piece);
    }

    /** @return the time of each row of the first source, in s from the take's first */
    public double[] times() throws TakeException {
        return data.times();
    }

    /** @return the time of each row of a source, in s from the take's first */
    public double[] times(int source) throws TakeException {
        return data.times(source);
    }

    /** @return the gaps of the first source */
    public List<Gap> gaps() {
        return gaps(0);
    }

    /** @return the gaps of a source, with those that damage has made */
    public List<Gap> gaps(int source) {
        return data.gaps(source);
    }

    /** @return lowest and highest of each cell of a column, in turn: at most so many cells, of a long take few of them */
    public double[] overview(int column, int mostCells) throws TakeException {
        return data.overview(column, mostCells);
    }

    /**
     * @return lowest and highest of each {@link #CELL} rows of a column, in turn, as they were kept while it was recorded:
     *     NaN where they were not or do not check; empty where rows are lost, for then it is not known whose they are
     */
    public double[] cells(int column) {
        return data.cells(column);
    }

    private TakeFrames frames() {
        if (frames == null) {
            frames = new TakeFrames(file, data);
        }
        return frames;
    }

    /** @return width and height of the pictures of a source; null where it has none */
    public int[] frameSize(int source) {
        return frames().size(source);
    }

    /** @return whether each pixel of a source's pictures is a column as well, as in older takes */
    public boolean pixelsAreColumns(int source) {
        return frames().asColumns(source);
    }

    /** @return the picture of a row of a source, row by row from the top; null where it is missing or does not check */
    public double[] frame(int source, long row) {
        return frames().frame(source, row);
    }

    /** @return the pictures of a whole source with their times; null where it has none. Missing ones are left out */
    public FrameSeries frameSeries(int source) throws TakeException {
        int[] size = frameSize(source);
        if (size == null) {
            return null;
        }
        double[] seconds = times(source);
        double[][] all = new double[seconds.length][];
        double[] when = new double[seconds.length];
        int n = 0;
        for (int row = 0; row < seconds.length; row++) {
            all[n] = frame(source, row);
            when[n] = seconds[row];
            n += all[n] == null ? 0 : 1;
        }
        return new FrameSeries(size[0], size[1], Arrays.copyOf(when, n), Arrays.copyOf(all, n));
    }

    @Override
    public void close() throws TakeException {
        if (frames != null) {
            frames.close();
        }
        data.close();
        file.close();
    }
}
