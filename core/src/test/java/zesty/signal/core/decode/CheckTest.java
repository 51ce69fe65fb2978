package zesty.signal.core.decode;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Checksums against the published check values, which are those of the nine bytes "123456789". */
class CheckTest {
    private static final byte[] DIGITS = "123456789".getBytes(StandardCharsets.US_ASCII);

    @ParameterizedTest
    @CsvSource({
        "NONE,0",
        "SUM8,DD",
        "NEGATED_SUM8,23",
        "XOR8,31",
        "CRC8_07,F4",
        "CRC8_31R,A1",
        "CRC8_31_FF,F7",
        "CRC16_1021_FFFF,29B1",
        "CRC16_1021_0,31C3",
        "CRC16_8005R_FFFF,4B37",
        "CRC16_8005R_0,BB3D",
        "CRC32,CBF43926"
    })
    void isThePublishedOne(Check check, String expected) {
        long value = Long.parseLong(expected, 16);
        if (check == Check.NONE) {
            assertThat(check.bytes()).isZero();
            return;
        }
        assertThat(check.of(DIGITS, 0, 9)).isEqualTo(value);
        byte[] within = new byte[20];
        System.arraycopy(DIGITS, 0, within, 5, 9);
        assertThat(check.of(within, 5, 14)).isEqualTo(value);
        // One bit wrong anywhere shows, at even lengths and odd ones.
        Random random = new Random(2);
        for (int length = 1; length < 40; length++) {
            byte[] data = new byte[length];
            random.nextBytes(data);
            long right = check.of(data, 0, length);
            data[random.nextInt(length)] ^= (byte) (1 << random.nextInt(8));
            assertThat(check.of(data, 0, length)).as("length %d", length).isNotEqualTo(right);
        }
    }
}
