package zesty.signal.app.window.bench.source;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import zesty.signal.app.window.bench.ByteLine;
import zesty.signal.app.window.bench.LinePieces;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ByteTail;

/**
 * A part of the ribbon of bytes: a line or packet in its pieces, or a silence between two of them. No toolkit in it.
 *
 * @param nanoTime when its first byte came, by the computer's steady clock; 0 when that is forgotten
 * @param pieces what it is made of; one piece where no format takes it apart; empty for a silence
 * @param why why it was set aside; empty when it was not
 * @param silence words of a silence; empty for a line
 */
record RibbonPart(long nanoTime, List<LinePieces.Piece> pieces, String why, String silence) {
    /** A pause is one when it is so many times longer than the usual one ... */
    private static final double LONGER = 6;
    /** ... and at least so long. */
    private static final double SHORTEST_SECONDS = 0.25;
    /** Fewer lines than this after a silence are nothing that waited. */
    private static final int AT_ONCE = 5;
    /** What comes within so long came at once. */
    private static final double ONE_GO_SECONDS = 0.01;

    boolean isSilence() {
        return !silence.isEmpty();
    }

    /** @return all of it as one line of text */
    String text() {
        return String.join(" ", pieces.stream().map(LinePieces.Piece::text).toList());
    }

    /**
     * The newest parts, oldest first.
     *
     * @param format null while it is not known
     * @param most so many lines at most
     * @param aside lines that were set aside, by their text, with the reason
     * @param digits whether to show rows of hexadecimal digits in place of lines
     */
    static List<RibbonPart> of(
            StreamFormat format, ByteTail.Newest newest, int most, Map<String, String> aside, boolean digits) {
        List<RibbonPart> lines = new ArrayList<>();
        List<LinePieces.Packet> packets = digits ? List.of() : LinePieces.packets(format, newest.bytes(), most);
        if (!packets.isEmpty()) {
            for (LinePieces.Packet packet : packets) {
                lines.add(new RibbonPart(newest.nanosOf(newest.first() + packet.at()), packet.pieces(), "", ""));
            }
        } else {
            List<ByteLine> plain = digits ? ByteLine.ofHex(newest, most) : ByteLine.ofText(newest, most, aside);
            for (ByteLine line : plain) {
                List<LinePieces.Piece> pieces =
                        digits || format == null || !line.why().isEmpty()
                                ? List.of()
                                : LinePieces.line(format, line.text().strip());
                lines.add(new RibbonPart(
                        line.nanoTime(),
                        pieces.isEmpty() ? List.of(new LinePieces.Piece(line.text(), -1, "")) : pieces,
                        line.why(),
                        ""));
            }
        }
        return withSilences(lines);
    }

    private static List<RibbonPart> withSilences(List<RibbonPart> lines) {
        double[] pauses = new double[Math.max(0, lines.size() - 1)];
        for (int i = 0; i < pauses.length; i++) {
            pauses[i] = known(lines.get(i)) ? secondsTo(lines.get(i), lines.get(i + 1)) : 0;
        }
        double[] arrivals = Arrays.stream(pauses).filter(p -> p > 0).sorted().toArray();
        double usual = arrivals.length == 0 ? 0 : arrivals[arrivals.length / 2];
        List<RibbonPart> parts = new ArrayList<>();
        for (int i = 0; i < lines.size(); i++) {
            if (i > 0 && pauses[i - 1] > Math.max(SHORTEST_SECONDS, LONGER * usual)) {
                parts.add(silence(lines, i, pauses[i - 1]));
            }
            parts.add(lines.get(i));
        }
        return parts;
    }

    private static RibbonPart silence(List<RibbonPart> lines, int after, double seconds) {
        int atOnce = 1;
        while (after + atOnce < lines.size()
                && secondsTo(lines.get(after), lines.get(after + atOnce)) < ONE_GO_SECONDS) {
            atOnce++;
        }
        String words = Messages.of("bench.source.s-of-silence", Digits.fixed(seconds, 2));
        return new RibbonPart(
                lines.get(after - 1).nanoTime(),
                List.of(),
                "",
                atOnce < AT_ONCE
                        ? words
                        : Messages.of("bench.source.then-lines-at-once-they-waited-on", words, atOnce));
    }

    private static boolean known(RibbonPart part) {
        return part.nanoTime() != 0;
    }

    private static double secondsTo(RibbonPart one, RibbonPart next) {
        return (next.nanoTime() - one.nanoTime()) * 1e-9;
    }
}
