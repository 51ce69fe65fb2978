package zesty.signal.takes;

import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import zesty.signal.core.decode.Column;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Source;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.Packed;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.text.Messages;

/**
 * Writes a take while it is being recorded. What was committed survives the end of the process; call {@link #commit()}
 * at least once a second. One thread. After an exception nothing more can be written, and what was committed stands. Longer than others: each thing that a take holds is written here, under one transaction.
 */
public final class TakeWriter implements AutoCloseable {
    private static final String MISSING_FILE = Messages.of("takes.the-take-s-file-or-folder-is-gone");

    private final Path file;
    private final Connection connection;
    private final Rig rig;
    private final PreparedStatement insertBlock;
    private final PreparedStatement insertValues;
    private final PreparedStatement insertGap;
    private final MarkWriter marks;
    private final PreparedStatement insertPyramid;
    private final FrameTable frames;
    private final List<PyramidBuilder> pyramids = new ArrayList<>();
    private final List<SourceShare> shares;
    private final Tally tally;
    private double firstSeconds = Double.NaN;
    private double lastSeconds;
    private boolean broken;

    /** Those of this process that are being written: one whose end the disk did not take is none any more. */
    private static final Set<Path> WRITTEN = ConcurrentHashMap.newKeySet();

    private TakeWriter(Path file, Connection connection, Rig rig) throws SQLException {
        this.file = file;
        this.connection = connection;
        this.rig = rig;
        shares = SourceShare.of(rig);
        tally = new Tally(connection);
        boolean several = shares.size() > 1;
        connection.setAutoCommit(false);
        insertBlock = connection.prepareStatement("INSERT INTO block (first_row, rows, first_seconds, "
                + (several
                        ? "period_seconds, check_sum, source) VALUES (?, ?, ?, ?, ?, ?)"
                        : "period_seconds, check_sum) VALUES (?, ?, ?, ?, ?)"));
        insertValues = connection.prepareStatement("INSERT INTO block_values VALUES (?, ?, ?, ?, ?, ?, ?)");
        insertGap = connection.prepareStatement("INSERT INTO gap (start_seconds, end_seconds, "
                + (several
                        ? "missing, check_sum, source) VALUES (?, ?, ?, ?, ?)"
                        : "missing, check_sum) VALUES (?, ?, ?, ?)"));
        marks = new MarkWriter(connection, tally);
        frames = new FrameTable(connection);
        insertPyramid = connection.prepareStatement(PyramidBuilder.insert(true));
        int columns = shares.stream().mapToInt(share -> share.columns).sum();
        for (int c = 1; c <= columns; c++) {
            pyramids.add(new PyramidBuilder(c));
        }
    }

    /** @return the columns of a source that the take has, in their order */
    public List<Column> columns(int source) {
        return SourceShare.kept(rig, rig.sources().get(source));
    }

    /**
     * Begins a take.
     *
     * @param file must not exist
     * @param rig in force; a source whose format it does not name is left out
     * @param started when, by the computer's calendar
     * @throws TakeException when the file exists or cannot be made
     */
    public static TakeWriter create(Path file, String title, Rig rig, Instant started) throws TakeException {
        try {
            Files.createDirectories(file.toAbsolutePath().getParent());
            // Of two that begin at once one makes the file, and the other hears of it here.
            Files.createFile(file);
        } catch (FileAlreadyExistsException e) {
            throw new TakeException(Messages.of("takes.is-there-already-choose-another", file), e);
        } catch (IOException e) {
            throw new TakeException(Messages.of("takes.cannot-be-written", file, DiskWords.of(e)), e);
        }
        try {
            Connection connection = TakeSchema.connect(file);
            try {
                TakeSchema.create(connection, rig.sources().size() > 1);
                TakeWriter writer = new TakeWriter(file, connection, rig);
                writer.describe(title, rig, started);
                return writer;
            } catch (SQLException | TakeException e) {
                WRITTEN.remove(file.toAbsolutePath().normalize());
                connection.close();
                Files.deleteIfExists(file);
                throw e;
            }
        } catch (SQLException | IOException e) {
            if (e instanceof TakeException said) {
                throw said;
            }
            throw new TakeException(Messages.of("takes.cannot-be-written", file, DiskWords.of(e)), e);
        }
    }

    /** @return whether this process is writing the take at this moment. Any thread */
    static boolean writes(Path file) {
        return WRITTEN.contains(file.toAbsolutePath().normalize());
    }

    private void describe(String title, Rig rig, Instant started) throws SQLException, TakeException {
        WRITTEN.add(file.toAbsolutePath().normalize());
        put("title", title);
        put("started", started.toString());
        put("state", "recording");
        put("process", ProcessMark.own());
        put("rig", RigJson.write(rig));
        try (PreparedStatement insert = connection.prepareStatement("INSERT INTO channel_column VALUES (?, ?, ?, ?)")) {
            int id = 1;
            for (Source source : rig.sources()) {
                for (Column column : SourceShare.kept(rig, source)) {
                    String name = source.prefix() + column.name();
                    insert.setInt(1, id);
                    insert.setString(2, name);
                    insert.setString(3, column.unit());
                    insert.setLong(4, Checks.of(id++, name, column.unit()));
                    insert.executeUpdate();
                }
            }
        }
        if (shares.size() > 1) {
            try (PreparedStatement insert = connection.prepareStatement("INSERT INTO source VALUES (?, ?, ?, ?, ?)")) {
                for (SourceShare share : shares) {
                    insert.setInt(1, share.source);
                    insert.setString(2, rig.sources().get(share.source).name());
                    insert.setInt(3, share.firstColumn + 1);
                    insert.setInt(4, share.columns);
                    insert.setLong(
                            5,
                            Checks.of(
                                    share.source,
                                    rig.sources().get(share.source).name(),
                                    share.firstColumn + 1,
                                    share.columns));
                    insert.executeUpdate();
                }
            }
        }
        for (String table : List.of("channel_column", "block", "gap", "mark")) {
            tally.renew(table);
        }
        if (shares.size() > 1) {
            tally.renew("source");
        }
        for (SourceShare share : shares) {
            tally.rows(share.source, 0);
        }
        tally.write();
        connection.commit();
    }

    private void put(String key, String value) throws SQLException {
        TakeFacts.put(connection, true, key, value);
    }

    /** Keeps the rig with what has turned up since the take began, such as a station. @throws TakeException when it will not go */
    public void rig(Rig now) throws TakeException {
        String text = RigJson.write(now);
        guarded(() -> put("rig", text));
    }

    /** @return whether the take has columns of that source */
    public boolean holds(int source) {
        return source < shares.size() && shares.get(source).columns > 0;
    }

    /** Adds a block of the first source. @throws TakeException when it will not go */
    public void append(Block block) throws TakeException {
        append(0, block);
    }

    /**
     * Adds a block of a source; its times are counted from the first row of the take.
     *
     * @throws TakeException when it will not go
     */
    public void append(int source, Block block) throws TakeException {
        SourceShare share = shares.get(source);
        if (block.columns().length != share.columns) {
            throw new IllegalArgumentException(
                    Messages.of("takes.the-take-has-columns-of-it-the", share.columns, block.columns().length));
        }
        if (block.rows() == 0) {
            return;
        }
        if (Double.isNaN(firstSeconds)) {
            firstSeconds = block.time().secondsAt(0);
        }
        guarded(() -> {
            insertBlock.setLong(1, share.rows);
            insertBlock.setInt(2, block.rows());
            double first = block.time().secondsAt(0) - firstSeconds;
            Double period = block.time() instanceof TimeBase.Steady steady ? steady.periodSeconds() : null;
            insertBlock.setDouble(3, first);
            if (period != null) {
                insertBlock.setDouble(4, period);
            } else {
                insertBlock.setNull(4, java.sql.Types.REAL);
                double[] seconds = new double[block.rows()];
                double before = Double.NEGATIVE_INFINITY;
                for (int row = 0; row < seconds.length; row++) {
                    // Whoever dates rows lets no time fall; if one did, it would read as damage and cost its rows.
                    before = Math.max(before, sinceFirst(block.time().secondsAt(row)));
                    seconds[row] = before;
                }
                values(share, TakeSchema.timesOf(source), Packed.of(seconds, seconds.length));
            }
            long check = Checks.of(source, share.rows, block.rows(), first, period);
            insertBlock.setLong(5, check);
            tally.add("block", check);
            if (shares.size() > 1) {
                insertBlock.setInt(6, source);
            }
            insertBlock.executeUpdate();
            for (int c = 0; c < share.columns; c++) {
                values(share, share.firstColumn + c + 1, Packed.of(block.columns()[c], block.rows()));
                pyramids.get(share.firstColumn + c).add(block.columns()[c], block.rows(), insertPyramid);
            }
            for (Gap gap : block.gaps()) {
                // What was missing before a source's first row in the take is not of the take; another source may have
                // begun earlier.
                if (share.rows > 0 || gap.startSeconds() >= block.time().secondsAt(0)) {
                    double start = sinceFirst(gap.startSeconds());
                    double end = sinceFirst(gap.endSeconds());
                    insertGap.setDouble(1, start);
                    insertGap.setDouble(2, end);
                    insertGap.setLong(3, gap.missing());
                    long own = Checks.of(source, start, end, gap.missing());
                    insertGap.setLong(4, own);
                    tally.add("gap", own);
                    if (shares.size() > 1) {
                        insertGap.setInt(5, source);
                    }
                    insertGap.executeUpdate();
                }
            }
            for (int row = 0; block.frames() != null && row < block.rows(); row++) {
                if (block.frames()[row] != null) {
                    long own = frames.add(source, share.rows + row, share.frameWidth, block.frames()[row]);
                    tally.add(FrameTable.NAME, own);
                }
            }
            share.rows += block.rows();
            tally.rows(source, share.rows);
            lastSeconds = Math.max(lastSeconds, block.lastSeconds() - firstSeconds);
        });
    }

    /** A board's clock counts whole microseconds at the finest: the difference is rounded back onto them. */
    private double sinceFirst(double seconds) {
        double difference = seconds - firstSeconds;
        double micros = Math.rint(difference * 1e6);
        return Math.abs(difference * 1e6 - micros) < 1e-3 ? micros / 1e6 : difference;
    }

    private void values(SourceShare share, int column, Packed packed) throws SQLException {
        insertValues.setLong(1, share.rows);
        insertValues.setInt(2, column);
        insertValues.setInt(3, packed.width());
        insertValues.setDouble(4, packed.divisor());
        insertValues.setLong(5, packed.base());
        insertValues.setBytes(6, packed.data());
        insertValues.setLong(7, TakeRows.check(packed, share.rows, column));
        insertValues.executeUpdate();
    }

    /** Adds a mark, at seconds of the running trail. @return its number, by which {@link #markEnd} knows it */
    public long mark(double seconds, String text) throws TakeException {
        double at = since(seconds);
        long[] id = new long[1];
        guarded(() -> id[0] = marks.add(at, text));
        return id[0];
    }

    /** Adds a mark, a span with its end, at seconds of the running trail. */
    public void mark(Mark mark) throws TakeException {
        long id = mark(mark.seconds(), mark.text());
        if (mark.isSpan()) {
            markEnd(id, mark.untilSeconds());
        }
    }

    /**
     * Changes a mark that was written, at seconds of the running trail.
     *
     * @param now null to take it out
     * @return whether there is one of that text about that time
     */
    public boolean changeMark(Mark was, Mark now) throws TakeException {
        boolean[] done = new boolean[1];
        guarded(() -> done[0] = marks.change(since(was), now == null ? null : since(now)));
        return done[0];
    }

    private Mark since(Mark mark) {
        return new Mark(since(mark.seconds()), mark.isSpan() ? since(mark.untilSeconds()) : Double.NaN, mark.text());
    }

    /** Adds what was decided, at seconds of the running trail. */
    public void decided(Decision decision) throws TakeException {
        Decision own = decision.at(since(decision.seconds()));
        guarded(() -> tally.add(DecisionTable.NAME, DecisionTable.add(connection, own)));
    }

    /** Makes a span of a mark: it ends at seconds of the running trail. Once a mark. */
    public void markEnd(long mark, double seconds) throws TakeException {
        double at = since(seconds);
        guarded(() -> marks.end(mark, at));
    }

    /** A moment that nobody knew, as before the first row of a trail, is that of the last row so far. */
    private double since(double seconds) {
        if (Double.isNaN(seconds) || Double.isNaN(firstSeconds)) {
            return lastSeconds;
        }
        return Math.max(0, sinceFirst(seconds));
    }

    /** Makes everything so far safe against the end of the process. @throws TakeException when the disk will not */
    public void commit() throws TakeException {
        if (!Files.exists(file)) {
            broken = true;
            throw new TakeException(file + MISSING_FILE);
        }
        guarded(() -> {
            tally.write();
            connection.commit();
        });
    }

    /** @return rows written so far, of all sources */
    public long rows() {
        return shares.stream().mapToLong(share -> share.rows).sum();
    }

    /** @return seconds from the first row to the last of all */
    public double seconds() {
        return lastSeconds;
    }

    /** @return the take's file */
    public Path file() {
        return file;
    }

    /**
     * Sets the times right of a take of one source whose rows came without a clock, once the rate is known better than it
     * was at the beginning: the rows themselves stay as they are.
     *
     * @param periodSeconds from row to row; NaN to leave the times as they are
     * @param known the take's length so far, in s
     * @return its length now, in s
     */
    public double setRight(double periodSeconds, double known) throws TakeException {
        if (!(periodSeconds > 0) || shares.size() > 1 || rows() < 2) {
            return known;
        }
        double[] length = {known};
        guarded(() -> {
            length[0] = new TakeTimes(connection).setRight(periodSeconds, known);
            for (String table : List.of("block", "gap", "mark")) {
                tally.renew(table);
            }
            marks.renewEnds();
            if (DecisionTable.isThere(connection)) {
                tally.renew(DecisionTable.NAME);
            }
        });
        lastSeconds = length[0];
        return length[0];
    }

    /** Ends the take: its pyramid is completed and it is marked as whole. @throws TakeException when the disk will not */
    public void finish() throws TakeException {
        if (!Files.exists(file)) {
            broken = true;
            throw new TakeException(file + MISSING_FILE);
        }
        guarded(() -> {
            for (PyramidBuilder pyramid : pyramids) {
                pyramid.finish(insertPyramid);
            }
            put("state", "whole");
            tally.write();
            connection.commit();
        });
    }

    @Override
    public void close() throws TakeException {
        WRITTEN.remove(file.toAbsolutePath().normalize());
        // Whatever fails of it, the file is let go: a full disk gets its room back only once nobody holds it.
        try (connection) {
            if (broken) {
                rollBack();
            }
            frames.close();
        } catch (SQLException e) {
            if (!broken) {
                throw new TakeException(Messages.of("takes.could-not-be-closed", file, DiskWords.of(e)), e);
            }
        }
    }

    /** A full disk may have rolled it back already, which is an error to ask for twice. */
    private void rollBack() {
        try {
            connection.rollback();
        } catch (SQLException e) {
            // What was to be undone was never written.
        }
    }

    @FunctionalInterface
    private interface Work {
        void run() throws SQLException;
    }

    private void guarded(Work work) throws TakeException {
        if (broken) {
            throw new TakeException(Messages.of("takes.took-an-error-before-nothing-more", file));
        }
        try {
            work.run();
        } catch (SQLException e) {
            broken = true;
            throw new TakeException(Messages.of("takes.recording-stopped-what-was-written", file, DiskWords.of(e)), e);
        }
    }
}
