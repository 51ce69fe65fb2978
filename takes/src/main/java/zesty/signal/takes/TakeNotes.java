package zesty.signal.takes;

import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import zesty.signal.core.read.HandEdit;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** What is told of a take beside its samples: title, notes, rig, marks, changes made by hand. One thread. */
final class TakeNotes {
    private static final String TAGS = "tags";

    private final TakeFile file;
    private final Map<String, String> facts = new HashMap<>();

    private final TakeMarks marks;

    TakeNotes(TakeFile file) {
        this.file = file;
        marks = new TakeMarks(file);
        load();
    }

    /** Reads what it says of itself anew. */
    void load() {
        facts.clear();
        file.each("take", "key, value", "", (row, check) -> {
            String key = row.getString(1);
            String value = row.getString(2);
            if (file.right(check, key, value)) {
                facts.put(key, value);
            } else {
                file.damage().tell(Messages.of("takes.its-does-not-check", key));
            }
        });
    }

    /** @return what it says of itself under a key; empty for nothing */
    String fact(String key) {
        return facts.getOrDefault(key, "");
    }

    /** @return when the recording began, by the calendar of the computer that made it */
    Instant started() {
        try {
            return Instant.parse(fact("started"));
        } catch (DateTimeParseException e) {
            return Instant.EPOCH;
        }
    }

    /** @return the rig in force when it was recorded. @throws TakeException when it does not read */
    Rig rig() throws TakeException {
        if (!facts.containsKey("rig")) {
            throw new TakeException(Messages.of("takes.its-rig-cannot-be-read-so-only-the", file.path()));
        }
        return RigJson.read(fact("rig"), Messages.of("takes.its-rig", file.path()));
    }

    List<Mark> marks() {
        return marks.read();
    }

    /**
     * Puts marks in the place of those there are, in one transaction; what does not check of them stays as it is.
     *
     * @param seconds how long the take is: marks lie within
     */
    void marks(List<Mark> now, double seconds) throws TakeException {
        for (Mark mark : now) {
            check(mark, seconds);
        }
        List<Mark> gone = new ArrayList<>(marks.read());
        List<Mark> fresh = new ArrayList<>(now);
        now.forEach(one -> {
            if (gone.remove(one)) {
                fresh.remove(one);
            }
        });
        file.change(Messages.of("takes.its-markers"), () -> {
            marks.remove(gone);
            marks.add(fresh);
        });
    }

    /** @return the changes made by hand to the events of its readers, by the reader, in the order they were made */
    Map<String, List<HandEdit>> edits() {
        Map<String, List<HandEdit>> edits = new HashMap<>();
        try (Statement statement = file.connection().createStatement()) {
            if (!TakeSchema.hasTable(statement, TakeSchema.EDITS)) {
                return edits;
            }
            Tally.Count there = new Tally.Count(0, 0);
            try (ResultSet result =
                    statement.executeQuery("SELECT reader, put_in, seconds FROM hand_edit ORDER BY id")) {
                while (result.next()) {
                    there = there.plus(Checks.of(result.getString(1), result.getInt(2), result.getDouble(3)));
                    edits.computeIfAbsent(result.getString(1), key -> new ArrayList<>())
                            .add(new HandEdit(result.getInt(2) != 0, result.getDouble(3)));
                }
            }
            Tally.Count due = file.counted()
                    ? Tally.read(file.connection(), file.damage()).get(TakeSchema.EDITS)
                    : null;
            if (due != null && !due.equals(there)) {
                file.damage().tell(Messages.of("takes.of-changes-made-by-hand-are-there", due.rows(), there.rows()));
            }
            return edits;
        } catch (SQLException | IllegalArgumentException e) {
            file.damage().tell(Messages.of("takes.a-part-of-the-changes-made-by-hand"));
            return edits;
        }
    }

    /** Keeps the changes made by hand to the events of a reader, in the place of those before. */
    void edit(String reader, List<HandEdit> edits) throws TakeException {
        file.change(Messages.of("takes.a-change-made-by-hand"), () -> {
            try (Statement statement = file.connection().createStatement()) {
                statement.execute(TakeSchema.CREATE_EDITS);
                put(reader, edits);
            }
        });
    }

    private void put(String reader, List<HandEdit> edits) throws SQLException {
        try (PreparedStatement delete = file.connection().prepareStatement("DELETE FROM hand_edit WHERE reader = ?");
                PreparedStatement insert = file.connection()
                        .prepareStatement("INSERT INTO hand_edit (reader, put_in, seconds) VALUES (?, ?, ?)")) {
            delete.setString(1, reader);
            delete.executeUpdate();
            for (HandEdit edit : edits) {
                insert.setString(1, reader);
                insert.setInt(2, edit.in() ? 1 : 0);
                insert.setDouble(3, edit.seconds());
                insert.executeUpdate();
            }
        }
        if (!file.counted()) {
            return;
        }
        Tally.Count all = new Tally.Count(0, 0);
        try (Statement statement = file.connection().createStatement();
                ResultSet result = statement.executeQuery("SELECT reader, put_in, seconds FROM hand_edit")) {
            while (result.next()) {
                all = all.plus(Checks.of(result.getString(1), result.getInt(2), result.getDouble(3)));
            }
        }
        Tally.put(file.connection(), TakeSchema.EDITS, all);
    }

    /** @return its tags, in the order they were put on */
    List<String> tags() {
        String tags = fact(TAGS);
        return tags.isEmpty() ? List.of() : List.of(tags.split("\n"));
    }

    /**
     * Writes into the logbook, in one transaction.
     *
     * @param seconds how long the take is: marks lie within
     * @throws TakeException when something of it makes no sense, saying what would, or cannot be written
     */
    void write(LogEntry entry, double seconds) throws TakeException {
        if (entry.isNothing()) {
            throw new TakeException(Messages.of("takes.there-is-nothing-to-write-give-a"));
        }
        if (entry.title() != null && entry.title().isBlank()) {
            throw new TakeException(Messages.of("takes.a-take-needs-a-name"));
        }
        for (Mark mark : entry.marks()) {
            check(mark, seconds);
        }
        Set<String> tags = new LinkedHashSet<>(tags());
        for (String tag : entry.tags()) {
            if (tag.isEmpty() || tag.indexOf('\n') >= 0) {
                throw new TakeException(Messages.of("takes.a-tag-is-a-word-or-a-few-in-one", tag));
            }
            tags.add(tag);
        }
        for (String tag : entry.untags()) {
            if (!tags.remove(tag)) {
                throw new TakeException(Messages.of("takes.has-no-tag-it-has", file.path(), tag, tags()));
            }
        }
        Map<String, String> changed = new LinkedHashMap<>();
        if (entry.title() != null) {
            changed.put("title", entry.title().strip());
        }
        if (entry.note() != null) {
            String before = fact("notes");
            changed.put(
                    "notes",
                    before.isEmpty()
                            ? entry.note().strip()
                            : before + "\n" + entry.note().strip());
        }
        if (!List.copyOf(tags).equals(tags())) {
            changed.put(TAGS, String.join("\n", tags));
        }
        file.change(Messages.of("takes.what-is-written-into-its-logbook"), () -> {
            for (Map.Entry<String, String> one : changed.entrySet()) {
                TakeFacts.put(file.connection(), file.checked(), one.getKey(), one.getValue());
            }
            marks.add(entry.marks());
        });
        facts.putAll(changed);
    }

    private void check(Mark mark, double seconds) throws TakeException {
        double last = mark.isSpan() ? mark.untilSeconds() : mark.seconds();
        if (!(mark.seconds() >= 0 && last <= seconds)) {
            throw new TakeException(Messages.of(
                    "takes.a-mark-at-s-is-not-within-which",
                    Digits.of(mark.seconds() < 0 ? mark.seconds() : last),
                    file.path(),
                    Digits.fixed(seconds, 3)));
        }
        if (mark.text().isBlank()) {
            throw new TakeException(Messages.of("takes.a-mark-needs-words"));
        }
    }

    /** Puts other notes in the place of those there are, in one transaction. */
    void notes(String text) throws TakeException {
        String notes = text.strip();
        file.change(
                Messages.of("takes.its-notes"), () -> TakeFacts.put(file.connection(), file.checked(), "notes", notes));
        facts.put("notes", notes);
    }
}
