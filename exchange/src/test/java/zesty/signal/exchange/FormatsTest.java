package zesty.signal.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;
import org.junit.jupiter.api.Test;

/** What is written, read by others: arrays byte for byte as numpy writes them, sound by the reader of the Java library. */
class FormatsTest {
    /** Two rows a piece, so that each format has seams. */
    private record Numbers(double rateHz, Map<String, double[]> columns) implements TakeView {
        @Override
        public List<Source> sources() {
            List<Column> all = columns.keySet().stream()
                    .map(name -> new Column(name, name.equals("pull") ? "N" : ""))
                    .toList();
            return List.of(new Source("", all, rows(), rateHz));
        }

        private int rows() {
            return columns.values().iterator().next().length;
        }

        @Override
        public void read(int source, int[] wanted, Taker taker) throws IOException {
            List<double[]> all = List.copyOf(columns.values());
            for (int at = 0; at < rows(); at += 2) {
                int from = at;
                int to = Math.min(rows(), at + 2);
                double[] seconds = new double[to - from];
                Arrays.setAll(seconds, i -> (from + i) / rateHz);
                taker.take(
                        seconds,
                        Arrays.stream(wanted)
                                .mapToObj(c -> Arrays.copyOfRange(all.get(c), from, to))
                                .toArray(double[][]::new));
            }
        }
    }

    private static Numbers numbers(double rateHz, double[]... columns) {
        Map<String, double[]> named = new LinkedHashMap<>();
        for (int c = 0; c < columns.length; c++) {
            named.put(c == 0 ? "pull" : "count", columns[c]);
        }
        return new Numbers(rateHz, named);
    }

    private static Map<String, byte[]> entries(InputStream in) throws IOException {
        Map<String, byte[]> entries = new LinkedHashMap<>();
        try (ZipInputStream zip = new ZipInputStream(in)) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                entries.put(entry.getName(), zip.readAllBytes());
            }
        }
        return entries;
    }

    @Test
    void arraysAreByteForByteThoseOfNumpy() throws Exception {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        NpzExport.write(numbers(2, new double[] {1.5, -2.25, Double.NaN, 1e300}, new double[] {0, 1, 2, 3}), out);
        Map<String, byte[]> ours = entries(new ByteArrayInputStream(out.toByteArray()));
        Map<String, byte[]> numpys = entries(FormatsTest.class.getResourceAsStream("/numpy.npz"));
        assertThat(ours.keySet()).containsExactlyElementsOf(numpys.keySet());
        numpys.forEach((name, bytes) -> assertThat(ours.get(name)).as(name).isEqualTo(bytes));
    }

    private static AudioInputStream sound(byte[] wav) throws Exception {
        return AudioSystem.getAudioInputStream(new ByteArrayInputStream(wav));
    }

    @Test
    void wholeNumbersAreSoundOfSixteenOrTwentyFourBitsAndAllElseFloat() throws Exception {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        WavExport.Written written = WavExport.write(
                numbers(199.98, new double[] {0, 32767, -32768, 5, 6}, new double[] {1, 2, 3, -4, 5}), 0, out);
        assertThat(written.bits()).isEqualTo(16);
        assertThat(written.loss()).isEqualTo("the rate in the file is 200 Hz, the true one 199.98 Hz");
        AudioInputStream sound = sound(out.toByteArray());
        assertThat(sound.getFormat().getSampleRate()).isEqualTo(200);
        assertThat(sound.getFormat().getChannels()).isEqualTo(2);
        assertThat(sound.getFrameLength()).isEqualTo(5);
        ByteBuffer frames = ByteBuffer.wrap(sound.readAllBytes()).order(ByteOrder.LITTLE_ENDIAN);
        assertThat(frames.getShort(4)).isEqualTo((short) 32767);
        assertThat(frames.getShort(8)).isEqualTo((short) -32768);
        assertThat(frames.getShort(14)).isEqualTo((short) -4);
        assertThat(new String(out.toByteArray(), StandardCharsets.ISO_8859_1))
                .contains("values as written; rate 199.98 Hz; columns pull [N]\tcount");

        out.reset();
        assertThat(WavExport.write(numbers(100, new double[] {0, 8_388_607, -40_000}), 0, out)
                        .bits())
                .isEqualTo(24);
        sound = sound(out.toByteArray());
        assertThat(sound.getFormat().getSampleSizeInBits()).isEqualTo(24);
        assertThat(sound.readAllBytes()).hasSize(9).endsWith(0xC0, 0x63, 0xFF);

        out.reset();
        WavExport.Written real = WavExport.write(numbers(100, new double[] {0.5, Double.NaN, -1e6}), 0, out);
        assertThat(real.loss()).isEqualTo("values are rounded to 32-bit float");
        sound = sound(out.toByteArray());
        assertThat(sound.getFormat().getEncoding()).isEqualTo(AudioFormat.Encoding.PCM_FLOAT);
        ByteBuffer floats = ByteBuffer.wrap(sound.readAllBytes()).order(ByteOrder.LITTLE_ENDIAN);
        assertThat(floats.getFloat()).isEqualTo(0.5f);
        assertThat(floats.getFloat()).isNaN();
        assertThat(floats.getFloat()).isEqualTo(-1e6f);
        assertThatThrownBy(
                        () -> WavExport.write(numbers(Double.NaN, new double[] {1, 2}), 0, new ByteArrayOutputStream()))
                .hasMessageContaining("too unevenly");
    }
}
