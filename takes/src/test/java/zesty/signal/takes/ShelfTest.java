package zesty.signal.takes;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.TimeBase;

/** The shelf and its index: the takes are the truth, whatever the index says, and without a need none is opened again. */
class ShelfTest {
    @TempDir
    Path folder;

    @BeforeEach
    void threeTakes() throws Exception {
        for (int day = 1; day <= 3; day++) {
            Rig rig = Rig.blank("Wren, mooring line", "stdin")
                    .fittedTo(new DelimitedFormat(',', false, false, "pull", List.of(new Column("pull", "N")), null));
            Path file = folder.resolve("take" + day + ".zest");
            try (TakeWriter writer =
                    TakeWriter.create(file, "Take " + day, rig, Instant.parse("2026-09-0" + day + "T10:00:00Z"))) {
                writer.append(new Block(new TimeBase.Steady(0, 0.1), new double[][] {{day, 5, -2.5}}, 3, List.of()));
                writer.mark(0.1, "slack water");
                writer.finish();
            }
            note(file, "the cleat of day " + day, "day" + day);
        }
    }

    private static void note(Path file, String note, String tag) throws Exception {
        try (Take take = Take.open(file)) {
            take.write(new LogEntry(null, note, List.of(tag), List.of(), List.of()));
        }
    }

    private List<Shelf.Entry> listed() throws Exception {
        return new Shelf(folder).list(null);
    }

    @Test
    void anotherShelfKnowsFromTheIndexWhatTheFirstOneRead() throws Exception {
        List<Shelf.Entry> first = listed();
        assertThat(first).extracting(Shelf.Entry::title).containsExactly("Take 3", "Take 2", "Take 1");
        assertThat(folder.resolve(ShelfIndex.NAME)).exists();
        // A take that reads otherwise now, with its old size and time, shows that it is not opened again.
        Path second = folder.resolve("take2.zest");
        FileTime time = Files.getLastModifiedTime(second);
        byte[] bytes = Files.readAllBytes(second);
        Files.write(second, new byte[bytes.length]);
        Files.setLastModifiedTime(second, time);
        List<Shelf.Entry> again = listed();
        assertThat(again).usingRecursiveComparison().isEqualTo(first);
        Shelf.Entry one = again.get(1);
        assertThat(one.drawing().get(0).extremes()).containsSubsequence(2, 2, 5, 5, -2.5, -2.5);
        assertThat(one.has("CLEAT slack mooring DAY2")).isTrue();
        assertThat(one.has("cleat day3")).isFalse();
        // Once its time says that it changed, it is.
        Files.setLastModifiedTime(second, FileTime.from(Instant.EPOCH));
        assertThat(listed())
                .filteredOn(entry -> entry.file().equals(second))
                .singleElement()
                .satisfies(entry -> {
                    assertThat(entry.trouble()).isNotEmpty();
                });
    }

    @Test
    void whatIsWrittenGoneOrNewIsListedAsItIs() throws Exception {
        listed();
        note(folder.resolve("take1.zest"), "new rope", "rope");
        Files.delete(folder.resolve("take3.zest"));
        Files.copy(folder.resolve("take2.zest"), folder.resolve("copy.zest"));
        for (int look = 0; look < 2; look++) {
            List<Shelf.Entry> now = listed();
            assertThat(now)
                    .extracting(one -> one.file().getFileName().toString())
                    .containsExactlyInAnyOrder("copy.zest", "take2.zest", "take1.zest");
            assertThat(now).filteredOn(one -> one.has("rope")).singleElement().satisfies(one -> {
                assertThat(one.notes()).isEqualTo("the cleat of day 1\nnew rope");
                assertThat(one.tags()).containsExactly("day1", "rope");
            });
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"rubbish", "cut", "other", "folder"})
    void anIndexThatIsDamagedOrSomethingElseCostsTimeAndNothingElse(String damage) throws Exception {
        List<Shelf.Entry> first = listed();
        Path index = folder.resolve(ShelfIndex.NAME);
        byte[] whole = Files.readAllBytes(index);
        Files.delete(index);
        switch (damage) {
            case "rubbish" -> Files.writeString(index, "no database ".repeat(500));
            case "cut" -> Files.write(index, java.util.Arrays.copyOf(whole, whole.length / 2));
            case "other" -> {
                try (var connection = TakeSchema.connect(index);
                        var statement = connection.createStatement()) {
                    statement.execute("CREATE TABLE entry (file TEXT)");
                }
            }
            default -> Files.createDirectory(index);
        }
        for (int look = 0; look < 2; look++) {
            assertThat(listed())
                    .extracting(Shelf.Entry::title)
                    .isEqualTo(first.stream().map(Shelf.Entry::title).toList());
        }
    }

    @Test
    void aPartIsATakeOfItsOwnWithItsRowsMarksAndWhereItCameFrom() throws Exception {
        Path whole = folder.resolve("whole.zest");
        Rig rig = Rig.blank("Wren", "stdin")
                .fittedTo(new DelimitedFormat(',', false, false, "pull", List.of(new Column("pull", "N")), null));
        double[] rows =
                java.util.stream.IntStream.range(0, 100).asDoubleStream().toArray();
        try (TakeWriter writer = TakeWriter.create(whole, "Reach", rig, Instant.parse("2026-09-01T10:00:00Z"))) {
            writer.append(new Block(new TimeBase.Steady(0, 0.1), new double[][] {rows}, 50, List.of()));
            writer.append(new Block(
                    new TimeBase.Steady(7, 0.1),
                    new double[][] {java.util.Arrays.copyOfRange(rows, 50, 100)},
                    50,
                    List.of(new zesty.signal.core.sample.Gap(4.9, 7, 20))));
            writer.mark(1, "early");
            writer.mark(8, "gybe");
            writer.finish();
        }
        Path part = folder.resolve("part.zest");
        byte[] before = Files.readAllBytes(whole);
        try (Take take = Take.open(whole)) {
            assertThat(TakeTrim.write(take, 4.05, 8.5, part)).isEqualTo(25);
            org.assertj.core.api.Assertions.assertThatThrownBy(
                            () -> TakeTrim.write(take, 5.5, 6.5, folder.resolve("none.zest")))
                    .isInstanceOf(TakeException.class)
                    .hasMessageContaining("no row of");
        }
        assertThat(folder.resolve("none.zest")).doesNotExist();
        assertThat(Files.readAllBytes(whole)).isEqualTo(before);
        try (Take take = Take.open(part)) {
            take.verify();
            assertThat(take.damage()).isEmpty();
            assertThat(take.column(0)).startsWith(41, 42).endsWith(65).hasSize(25);
            assertThat(take.times()[0]).isZero();
            assertThat(take.times()[24]).isCloseTo(8.5 - 4.1, org.assertj.core.api.Assertions.within(1e-9));
            assertThat(take.gaps()).singleElement().satisfies(gap -> assertThat(gap.missing())
                    .isEqualTo(20));
            assertThat(take.marks()).singleElement().satisfies(mark -> {
                assertThat(mark.text()).isEqualTo("gybe");
                assertThat(mark.seconds()).isCloseTo(3.9, org.assertj.core.api.Assertions.within(1e-9));
            });
            assertThat(take.notes()).isEqualTo("Cut out of \"Reach\", from 4.050 to 8.500 s.");
            assertThat(take.title()).isEqualTo("Reach, part");
        }
    }

    /** 100 rows, ten a second; row i is {@code first + i}. */
    private Path ten(String title, double first, String started) throws TakeException {
        Path file = folder.resolve(title + ".zest");
        Rig rig = Rig.blank("Wren", "stdin")
                .fittedTo(new DelimitedFormat(',', false, false, "pull", List.of(new Column("pull", "N")), null));
        double[] rows = java.util.stream.IntStream.range(0, 100)
                .mapToDouble(i -> first + i)
                .toArray();
        try (TakeWriter writer = TakeWriter.create(file, title, rig, Instant.parse(started))) {
            writer.append(new Block(new TimeBase.Steady(0, 0.1), new double[][] {rows}, 100, List.of()));
            long pull = writer.mark(2, "pull");
            writer.mark(4, "gybe");
            writer.markEnd(pull, 3.5);
            writer.finish();
        }
        return file;
    }

    @Test
    void takesOfTheSameColumnsAreJoinedInTheirOrderWithAGapBetween() throws Exception {
        Path morning = ten("morning", 0, "2026-09-01T10:00:00Z");
        Path noon = ten("noon", 500, "2026-09-01T10:00:30Z");
        Path over = ten("over", 0, "2026-09-01T10:00:05Z");
        Path out = folder.resolve("joined.zest");
        try (Take a = Take.open(morning);
                Take b = Take.open(noon);
                Take c = Take.open(over)) {
            assertThat(TakeJoin.write(List.of(b, a), out)).isEqualTo(200);
            org.assertj.core.api.Assertions.assertThatThrownBy(
                            () -> TakeJoin.write(List.of(a, c), folder.resolve("none.zest")))
                    .isInstanceOf(TakeException.class)
                    .hasMessageContaining("\"over\" began before \"morning\" was over");
        }
        assertThat(folder.resolve("none.zest")).doesNotExist();
        try (Take take = Take.open(out)) {
            take.verify();
            assertThat(take.damage()).isEmpty();
            assertThat(take.column(0)).hasSize(200).startsWith(0, 1).endsWith(599);
            assertThat(take.times()[100]).isEqualTo(30);
            assertThat(take.gaps()).singleElement().satisfies(gap -> {
                assertThat(gap.startSeconds()).isCloseTo(9.9, org.assertj.core.api.Assertions.within(1e-9));
                assertThat(gap.endSeconds()).isEqualTo(30);
            });
            assertThat(take.marks())
                    .containsExactly(
                            new Mark(0, "morning"),
                            new Mark(2, 3.5, "pull"),
                            new Mark(4, "gybe"),
                            new Mark(30, "noon"),
                            new Mark(32, 33.5, "pull"),
                            new Mark(34, "gybe"));
            assertThat(take.notes()).isEqualTo("Joined of \"morning\", \"noon\".");
        }
    }

    @Test
    void marksAreMovedRenamedAndDeletedAndARemovedTakeNeverLiesOverAnother() throws Exception {
        Path file = ten("reach", 0, "2026-09-01T10:00:00Z");
        List<Mark> changed = List.of(new Mark(1, 3.5, "hard pull"), new Mark(9.9, "end"));
        try (Take take = Take.open(file)) {
            take.marks(changed);
            org.assertj.core.api.Assertions.assertThatThrownBy(() -> take.marks(List.of(new Mark(9, 10.5, "late"))))
                    .isInstanceOf(TakeException.class)
                    .hasMessageContaining("is not within");
        }
        try (Take take = Take.open(file)) {
            take.verify();
            assertThat(take.damage()).isEmpty();
            assertThat(take.marks()).isEqualTo(changed);
            assertThat(take.column(0)).hasSize(100);
        }
        Shelf shelf = new Shelf(folder);
        Path first = shelf.remove(file);
        Path second = shelf.remove(ten("reach", 500, "2026-09-02T10:00:00Z"));
        assertThat(second).isNotEqualTo(first);
        assertThat(shelf.removed()).extracting(Shelf.Removed::file).containsExactlyInAnyOrder(first, second);
        shelf.letGo(shelf.removed().stream()
                .filter(one -> one.file().equals(second))
                .toList());
        assertThat(shelf.restore(first)).isEqualTo(file);
        assertThat(shelf.removed()).isEmpty();
        try (Take take = Take.open(file)) {
            assertThat(take.column(0)[0]).isZero();
        }
    }

    @Test
    void mainNumbersAreKeptInTheIndexUntilTheTakeChanges() throws Exception {
        Path file = ten("reach", 0, "2026-09-01T10:00:00Z");
        Rig read = Rig.blank("Wren", "stdin")
                .fittedTo(new DelimitedFormat(',', false, false, "pull", List.of(new Column("pull", "N")), null))
                .withReader(new zesty.signal.core.rig.ReaderSetup("level", List.of("pull"), java.util.Map.of()));
        Path other = folder.resolve("read.zest");
        try (TakeWriter writer = TakeWriter.create(other, "read", read, Instant.parse("2026-09-05T10:00:00Z"))) {
            writer.append(new Block(new TimeBase.Steady(0, 0.1), new double[][] {new double[20]}, 20, List.of()));
            writer.finish();
        }
        Shelf shelf = new Shelf(folder);
        Shelf.Entry due = shelf.list(null).get(0);
        assertThat(due.title()).isEqualTo("read");
        assertThat(due.numbers()).isNull();
        // Nothing is read of a take without a reader.
        assertThat(shelf.list(null).get(1).numbers()).isEmpty();
        shelf.numbers(due, List.of("pull: 0 N", "heel: 3 °"));
        assertThat(shelf.list(null).get(0).numbers()).containsExactly("pull: 0 N", "heel: 3 °");
        assertThat(new Shelf(folder).list(null).get(0).numbers()).containsExactly("pull: 0 N", "heel: 3 °");
        assertThat(new Shelf(folder).list(null).get(0).isAs(due)).isTrue();
        try (Take take = Take.open(other)) {
            take.write(new LogEntry(null, null, List.of(Shelf.Entry.STAR), List.of(), List.of()));
        }
        Shelf.Entry changed = new Shelf(folder).list(null).get(0);
        assertThat(changed.starred()).isTrue();
        assertThat(changed.numbers()).isNull();
        assertThat(changed.isAs(due)).isFalse();
        // Numbers of what it was before are not those of what it is.
        shelf.list(null);
        shelf.numbers(due, List.of("old"));
        assertThat(shelf.list(null).get(0).numbers()).isNull();
        assertThat(changed.has("saturday 2026-09")).isTrue();
        assertThat(changed.has("sunday")).isFalse();
        assertThat(file).exists();
    }
}
