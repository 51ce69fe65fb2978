package zesty.signal.core.decode;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class TextFormTest {
    private static String lines(int count, String ending) {
        StringBuilder text = new StringBuilder("t_ms,wind °\r\n".replace("\r\n", ending));
        for (int i = 0; i < count; i++) {
            text.append(i * 10).append(',').append(i % 97 / 4.0).append(ending);
        }
        return text.toString();
    }

    private static byte[] joined(byte[] mark, String text, Charset charset) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(mark);
        out.writeBytes(text.getBytes(charset));
        return out.toByteArray();
    }

    /** In pieces of one to seven bytes, so that pairs and marks are cut. */
    private static String plain(byte[] bytes) {
        TextForm form = TextForm.of(bytes, bytes.length);
        Random random = new Random(1);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        for (int at = 0; at < bytes.length; ) {
            int n = Math.min(bytes.length - at, 1 + random.nextInt(7));
            out.writeBytes(form.plain(Arrays.copyOfRange(bytes, at, at + n), n));
            at += n;
        }
        return out.toString(StandardCharsets.UTF_8);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "two bytes, low first, mark",
                "two bytes, high first, mark",
                "low first",
                "high first",
                "mark only"
            })
    void textInAnotherFormBecomesTheSameLines(String form) {
        String text = lines(200, "\r\n").replace("°", form.contains("mark") ? "°" : "deg");
        byte[] bytes =
                switch (form) {
                    case "two bytes, low first, mark" ->
                        joined(new byte[] {(byte) 0xff, (byte) 0xfe}, text, StandardCharsets.UTF_16LE);
                    case "two bytes, high first, mark" ->
                        joined(new byte[] {(byte) 0xfe, (byte) 0xff}, text, StandardCharsets.UTF_16BE);
                    case "low first" -> text.getBytes(StandardCharsets.UTF_16LE);
                    case "high first" -> text.getBytes(StandardCharsets.UTF_16BE);
                    default -> joined(new byte[] {(byte) 0xef, (byte) 0xbb, (byte) 0xbf}, text, StandardCharsets.UTF_8);
                };
        assertThat(plain(bytes)).isEqualTo(text);
    }

    @Test
    void carriageReturnsAloneEndLinesAndBothTogetherStay() {
        byte[] old = lines(50, "\r").getBytes(StandardCharsets.UTF_8);
        assertThat(plain(old)).isEqualTo(lines(50, "\n"));
        byte[] usual = lines(50, "\r\n").getBytes(StandardCharsets.UTF_8);
        assertThat(TextForm.of(usual, usual.length).isAsItIs()).isTrue();
        assertThat(plain(usual)).isEqualTo(lines(50, "\r\n"));
    }

    @Test
    void packetsOfSmallNumbersAreNotTakenForText() {
        Random random = new Random(2);
        for (int run = 0; run < 200; run++) {
            // Two bytes a number, most of them below 256, as a converter of few bits sends them.
            byte[] bytes = new byte[600];
            for (int i = 0; i < bytes.length; i += 2) {
                bytes[i] = (byte) random.nextInt(run % 2 == 0 ? 256 : 128);
            }
            assertThat(TextForm.of(bytes, bytes.length).isAsItIs())
                    .as("run %d", run)
                    .isTrue();
            random.nextBytes(bytes);
            assertThat(TextForm.of(bytes, bytes.length).isAsItIs()).isTrue();
        }
        assertThat(TextForm.of(new byte[0], 0).isAsItIs()).isTrue();
        assertThat(TextForm.of(new byte[] {(byte) 0xff}, 1).isAsItIs()).isTrue();
    }
}
