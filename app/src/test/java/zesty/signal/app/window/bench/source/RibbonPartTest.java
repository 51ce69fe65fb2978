package zesty.signal.app.window.bench.source;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import zesty.signal.app.window.bench.LinePieces;
import zesty.signal.boards.sim.SimulatedBoard;
import zesty.signal.boards.sim.SimulatedBoards;
import zesty.signal.core.decode.Recogniser;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.engine.ByteTail;

/** The ribbon of bytes without a window: pieces in their roles, silences, what was set aside. */
class RibbonPartTest {
    private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    private final List<Long> places = new ArrayList<>();
    private final List<Long> moments = new ArrayList<>();

    private void came(double seconds, String text) {
        came(seconds, text.getBytes(StandardCharsets.UTF_8));
    }

    private void came(double seconds, byte[] some) {
        places.add((long) bytes.size());
        moments.add(1 + Math.round(seconds * 1e9));
        bytes.writeBytes(some);
    }

    private ByteTail.Newest newest() {
        return new ByteTail.Newest(
                bytes.toByteArray(),
                0,
                places.stream().mapToLong(Long::longValue).toArray(),
                moments.stream().mapToLong(Long::longValue).toArray());
    }

    private StreamFormat format() {
        return Recogniser.recognise(bytes.toByteArray(), bytes.size()).get(0).format();
    }

    private List<RibbonPart> parts(StreamFormat format, Map<String, String> aside, boolean digits) {
        return RibbonPart.of(format, newest(), 200, aside, digits);
    }

    @Test
    void numbersAndWordsStandInTheirRolesAndWhatWasSetAsideSaysWhy() {
        for (int i = 0; i < 12; i++) {
            came(i * 0.1, "T=" + (20 + i % 3) + ".5 F=" + (68 + i) + " ok\n");
        }
        came(1.25, "brown-out, starting\n");
        List<RibbonPart> parts = parts(format(), Map.of("brown-out, starting", "no number in it"), false);
        assertThat(parts).hasSize(13).noneMatch(RibbonPart::isSilence);
        RibbonPart line = parts.get(2);
        assertThat(line.pieces()).extracting(LinePieces.Piece::text).containsExactly("T=", "22.5", "F=", "70", "ok");
        assertThat(line.pieces()).extracting(LinePieces.Piece::column).containsExactly(-1, 0, -1, 1, -1);
        assertThat(line.nanoTime()).isEqualTo(200_000_001L);
        assertThat(parts.get(12).why()).isEqualTo("no number in it");
        assertThat(parts.get(12).text()).isEqualTo("brown-out, starting");
        // The same bytes as digits: sixteen a row, read back they are what came.
        List<RibbonPart> rows = parts(format(), Map.of(), true);
        assertThat(rows.get(0).text()).startsWith("54 3D 32 30 2E 35 20 46 3D 36 38 20 6F 6B 0A 54");
    }

    @Test
    void aStallAndTheLinesThatWaitedAreSeen() {
        for (int i = 0; i < 30; i++) {
            came(i * 0.02, i * 20 + "," + (500 + i) + "\n");
        }
        // A second of nothing, then fifty lines in one go; and a pause too short to be one.
        StringBuilder waited = new StringBuilder();
        for (int i = 30; i < 80; i++) {
            waited.append(i * 20).append(',').append(500 + i).append('\n');
        }
        came(1.58, waited.toString());
        came(1.66, "1600,580\n");
        List<RibbonPart> parts = parts(format(), Map.of(), false);
        assertThat(parts.stream().filter(RibbonPart::isSilence).map(RibbonPart::silence))
                .containsExactly("1.00 s of silence, then 50 lines at once: they waited on the way");
        assertThat(parts.get(30).isSilence()).isTrue();
        assertThat(parts).hasSize(82);
    }

    @Test
    void aSlowBoardIsNotSilentBetweenItsLines() {
        for (int i = 0; i < 20; i++) {
            came(i * 2.0, "depth " + (3 + i % 2) + "\n");
        }
        assertThat(parts(null, Map.of(), false)).hasSize(20).noneMatch(RibbonPart::isSilence);
        came(70, "depth 3\n");
        assertThat(parts(null, Map.of(), false))
                .filteredOn(RibbonPart::isSilence)
                .hasSize(1);
    }

    @Test
    void packetsOfEachFramingComeApartIntoTheNumbersThatTheBoardKnows() {
        for (String name : List.of("halyard", "forearm", "hull", "whistle")) {
            bytes.reset();
            places.clear();
            moments.clear();
            SimulatedBoard board = SimulatedBoards.create(name, 3);
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            for (int i = 0; i < 900; i++) {
                board.next(out);
            }
            came(0, out.toByteArray());
            StreamFormat format = format();
            List<RibbonPart> parts = parts(format, Map.of(), false);
            assertThat(parts).as(name).hasSizeGreaterThan(100);
            for (RibbonPart part : parts) {
                List<LinePieces.Piece> numbers =
                        part.pieces().stream().filter(p -> p.column() >= 0).toList();
                assertThat(numbers).as(name).hasSize(format.columns().size());
                for (LinePieces.Piece number : numbers) {
                    assertThat(value(number.bytes())).as("%s: %s", name, number).contains(number.text());
                }
            }
        }
    }

    /** @return what hexadecimal bytes can mean as a whole number: either byte order, with and without a sign */
    private static List<String> value(String hex) {
        String[] digits = hex.split(" ");
        List<String> meanings = new ArrayList<>();
        for (boolean reversed : new boolean[] {false, true}) {
            long value = 0;
            for (int i = 0; i < digits.length; i++) {
                value = value << 8 | Integer.parseInt(digits[reversed ? digits.length - 1 - i : i], 16);
            }
            long signed = value >= 1L << 8 * digits.length - 1 ? value - (1L << 8 * digits.length) : value;
            meanings.add(Long.toString(value));
            meanings.add(Long.toString(signed).replace('-', '\u2212'));
        }
        return meanings;
    }
}
