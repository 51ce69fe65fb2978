package zesty.signal.takes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class NewFileTest {
    @TempDir
    Path folder;

    private static void write(Path file, String text) throws IOException {
        try (NewFile fresh = NewFile.begin(file, false)) {
            fresh.stream().write(text.getBytes(StandardCharsets.UTF_8));
            fresh.keep();
        }
    }

    private String[] names() throws IOException {
        try (var files = Files.list(folder)) {
            return files.map(f -> f.getFileName().toString()).sorted().toArray(String[]::new);
        }
    }

    @Test
    void whatOthersMadeStaysAndWhatWeMadeIsMadeAnew() throws Exception {
        Path file = folder.resolve("out.csv");
        write(file, "first");
        write(file, "second");
        assertThat(file).hasContent("second");
        // Changed since by somebody else: theirs now.
        Files.writeString(file, "notes of a maker");
        assertThatThrownBy(() -> write(file, "third"))
                .isInstanceOf(TakeException.class)
                .hasMessageContaining("choose another name");
        assertThat(file).hasContent("notes of a maker");
        Path empty = Files.createFile(folder.resolve("empty.csv"));
        write(empty, "x");
        assertThat(empty).hasContent("x");
        assertThat(names()).containsExactly("empty.csv", "out.csv");
    }

    @Test
    void whatIsNotKeptLeavesNothingAndAFileOfAnUnfinishedNameIsNotTouched() throws Exception {
        Path bystander = Files.writeString(folder.resolve("out.csv.part"), "somebody's");
        try (NewFile fresh = NewFile.begin(folder.resolve("out.csv"), false)) {
            fresh.stream().write(new byte[100_000]);
            assertThat(names()).hasSize(2);
        }
        assertThat(names()).containsExactly("out.csv.part");
        write(folder.resolve("out.csv"), "done");
        assertThat(bystander).hasContent("somebody's");
    }

    @Test
    void aLinkIsFollowedAndADeviceWrittenThrough() throws Exception {
        Path elsewhere = Files.createDirectory(folder.resolve("elsewhere"));
        Path link = Files.createSymbolicLink(folder.resolve("link.csv"), elsewhere.resolve("target.csv"));
        write(link, "through the link");
        assertThat(link).isSymbolicLink().hasContent("through the link");
        assertThat(elsewhere.resolve("target.csv")).isRegularFile().hasContent("through the link");
        write(Path.of("/dev/null"), "gone");
        assertThat(Files.isRegularFile(Path.of("/dev/null"))).isFalse();
        assertThatThrownBy(() -> write(Path.of("/dev/full"), "x"))
                .isInstanceOf(IOException.class)
                .satisfies(e -> assertThat(DiskWords.of((Exception) e)).isEqualTo("the disk is full"));
        assertThatThrownBy(() -> write(elsewhere, "x")).hasMessageContaining("is a folder; a file's name is needed");
        assertThatThrownBy(() -> write(folder.resolve("no/a.csv"), "x"))
                .hasMessageContaining("is not there; make it first");
    }

    @Test
    void whatAKilledRunLeftIsSweptWhereNobodyHoldsIt() throws Exception {
        Path left =
                Files.writeString(folder.resolve(".out.csv.0b6c3f1e-1111-4222-8333-444455556666.unfinished"), "half");
        Path other = Files.writeString(
                folder.resolve(".notes.csv.0b6c3f1e-1111-4222-8333-444455556666.unfinished"), "of another file");
        try (NewFile first = NewFile.begin(folder.resolve("out.csv"), false)) {
            assertThat(left).doesNotExist();
            first.stream().write(1);
            write(folder.resolve("out.csv"), "second");
            first.keep();
        }
        assertThat(other).exists();
        assertThat(names()).hasSize(2);
    }

    /** The same file under another name is the same file; what a command reads it must not write. */
    @Test
    void whatIsReadIsNotWrittenUnderWhateverName() throws Exception {
        Path in = folder.resolve("in.csv");
        write(in, "a,b");
        Path hard = Files.createLink(folder.resolve("hard.csv"), in);
        Path soft = Files.createSymbolicLink(folder.resolve("soft.csv"), in);
        for (Path out : new Path[] {in, hard, soft}) {
            assertThat(NewFile.objection(out, in)).contains("is what is read");
        }
        assertThat(NewFile.objection(folder.resolve("new.csv"), in)).isNull();
        // The system's own link to an open pipe names no path.
        write(Path.of("/dev/stdout"), "");
    }

    @Test
    void oneBrokenEntryHidesNoOther() throws Exception {
        Files.createSymbolicLink(folder.resolve("a.zest"), folder.resolve("gone.zest"));
        Files.createDirectory(folder.resolve("b.zest"));
        Files.writeString(folder.resolve("c.zest"), "rubbish");
        assertThat(new Shelf(folder).list(null))
                .hasSize(3)
                .allMatch(entry -> !entry.trouble().isEmpty())
                .anyMatch(entry -> entry.trouble().contains("is a link to something that is not there"));
    }

    @Test
    void numbersAsTextReadBackToTheVerySameValue() throws Exception {
        Random random = new Random(3);
        double[] values = new double[40_000];
        for (int i = 0; i < values.length; i++) {
            values[i] = switch (i % 6) {
                case 0 -> random.nextInt(70_000) - 1000;
                case 1 -> random.nextInt(1_000_000) / 1000.0;
                case 2 -> Double.longBitsToDouble(random.nextLong());
                case 3 -> random.nextGaussian();
                case 4 -> (random.nextInt(2_000_000) - 1_000_000) / 1e6;
                default ->
                    new double[] {0, -0.0, 1e-3, 9.999999e8, 1e15, -1e15, 0.001234, 4.35, 1e300, -0.5}[i / 6 % 10];
            };
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        NumberRows rows = new NumberRows(out);
        for (double value : values) {
            rows.add(value);
            rows.end();
        }
        rows.flush();
        String[] lines = out.toString(StandardCharsets.UTF_8).split("\n", -1);
        assertThat(lines).hasSize(values.length + 1);
        for (int i = 0; i < values.length; i++) {
            if (Double.isFinite(values[i])) {
                assertThat(Double.doubleToLongBits(Double.parseDouble(lines[i])))
                        .as(lines[i])
                        .isEqualTo(Double.doubleToLongBits(values[i]));
            } else {
                assertThat(lines[i]).isEmpty();
            }
        }
    }
}
