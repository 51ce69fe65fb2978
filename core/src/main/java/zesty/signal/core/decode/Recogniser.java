package zesty.signal.core.decode;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * Recognises the format of a stream from its first bytes. Every kind of format makes its best guess; each guess then
 * decodes the bytes, and the share it understands is its confidence.
 */
public final class Recogniser {
    /** How many bytes are looked at, at most. */
    public static final int LOOK = 1 << 19;

    /** A line is far too long from this length on, if it is also so many times as long as the others. */
    private static final int MONSTER_BYTES = 1024;

    private static final int MONSTER_TIMES = 20;
    /** Bytes from which formats are guessed and on which guesses are tried: more tells more only of large pictures. */
    private static final int TRIED = 1 << 16;

    /** A guess that understands less than this share is none. */
    private static final double LEAST = 0.2;

    private Recogniser() {}

    /**
     * A guess.
     *
     * @param confidence 0 … 1: the share of the bytes that it understands, less what speaks against it
     * @param rows how many rows it gives
     * @param sample the rows it gives for the bytes looked at, at most the first 12
     */
    public record Proposal(StreamFormat format, double confidence, int rows, Rows sample) {}

    /** @return the guesses that make sense, best first; empty when there is none */
    public static List<Proposal> recognise(byte[] bytes, int length) {
        List<Proposal> proposals = tried(bytes, Math.min(length, TRIED));
        if (length > TRIED
                && !proposals.isEmpty()
                && isLineOfPicture(proposals.get(0).format())) {
            // A large picture is longer than that: its lines alone look like small ones.
            List<Proposal> whole = PictureFinder.find(TextLines.of(bytes, length))
                    .map(format -> propose(format, bytes, length))
                    .filter(one -> !isLineOfPicture(one.format()) && one.rows() > 0)
                    .map(List::of)
                    .orElse(List.of());
            if (!whole.isEmpty()) {
                return whole;
            }
        }
        if (proposals.isEmpty() && length > TRIED) {
            // What makes no sense at first may do later: a board that starts up, a speed put right.
            byte[] newest = java.util.Arrays.copyOfRange(bytes, length - TRIED, length);
            proposals = tried(newest, newest.length);
        }
        return proposals;
    }

    /** @return whether it takes each line for a picture, or for very many columns, as those of a larger one look like */
    static boolean isLineOfPicture(StreamFormat format) {
        return format instanceof PictureFormat picture && picture.perLine()
                || format instanceof DelimitedFormat wide
                        && wide.columns().size() >= PictureFinder.MANY
                        && wide.header().isEmpty();
    }

    private static List<Proposal> tried(byte[] all, int length) {
        List<StreamFormat> guesses = new ArrayList<>();
        double text = textShare(all, length);
        byte[] bytes = text > 0.97 ? withoutMonsters(all, length) : all;
        int look = text > 0.97 ? bytes.length : length;
        if (text > 0.7) {
            TextLines lines = TextLines.of(bytes, look);
            add(guesses, DelimitedFinder.find(bytes, look).map(f -> f));
            add(guesses, LabelledFinder.find(lines));
            add(guesses, JsonFinder.find(lines));
            add(guesses, SentenceFinder.find(lines));
            add(guesses, PacketFinder.findLines(lines));
            add(guesses, PictureFinder.find(lines));
        }
        if (text < 0.97) {
            guesses.addAll(PacketFinder.find(bytes, look));
        }
        List<Proposal> proposals = new ArrayList<>();
        for (StreamFormat guess : guesses) {
            Proposal proposal = propose(guess, bytes, look);
            if (proposal.rows() > 0 && proposal.confidence() >= LEAST) {
                proposals.add(proposal);
            }
        }
        preferPictures(proposals);
        proposals.sort(Comparator.comparingDouble(p -> -p.confidence()));
        return proposals;
    }

    /** A line or two that are far longer than the others, as after a lost line ending, must not outweigh all of them. */
    private static byte[] withoutMonsters(byte[] bytes, int length) {
        List<int[]> lines = new ArrayList<>();
        int from = 0;
        for (int i = 0; i < length; i++) {
            if (bytes[i] == '\n' || i == length - 1) {
                lines.add(new int[] {from, i + 1});
                from = i + 1;
            }
        }
        int[] lengths =
                lines.stream().mapToInt(line -> line[1] - line[0]).sorted().toArray();
        int limit = lengths.length == 0 ? 0 : Math.max(MONSTER_BYTES, MONSTER_TIMES * lengths[lengths.length / 2]);
        long monsters = Arrays.stream(lengths).filter(n -> n > limit).count();
        if (monsters == 0 || monsters * 10 > lengths.length) {
            return Arrays.copyOf(bytes, length);
        }
        byte[] rest = new byte[length];
        int kept = 0;
        for (int[] line : lines) {
            int n = line[1] - line[0];
            if (n <= limit) {
                System.arraycopy(bytes, line[0], rest, kept, n);
                kept += n;
            }
        }
        return Arrays.copyOf(rest, kept);
    }

    /** The lines of a picture are also lines of columns; where they come in blocks of one height, they are a picture. */
    private static void preferPictures(List<Proposal> proposals) {
        boolean picture = proposals.stream().anyMatch(p -> p.format() instanceof PictureFormat && p.rows() >= 2);
        if (picture) {
            proposals.replaceAll(p -> p.format() instanceof PictureFormat
                    ? p
                    : new Proposal(p.format(), 0.7 * p.confidence(), p.rows(), p.sample()));
        }
    }

    /** As {@link #recognise}, of one kind only. @param kind as {@link StreamFormat#kind()} has it */
    public static Optional<StreamFormat> recognise(byte[] bytes, int length, String kind) {
        int look = Math.min(length, TRIED);
        TextLines lines = TextLines.of(bytes, look);
        return switch (kind) {
            case "delimited" -> DelimitedFinder.find(bytes, look).map(f -> f);
            case "labelled" -> LabelledFinder.find(lines);
            case "json" -> JsonFinder.find(lines);
            case "sentence" -> SentenceFinder.find(lines);
            case "registers" -> PacketFinder.findLines(lines);
            case "picture" -> PictureFinder.find(lines);
            default ->
                PacketFinder.find(bytes, look).stream()
                        .filter(f -> f.kind().equals(kind))
                        .findFirst();
        };
    }

    /** @return the words for the kinds of formats there are */
    public static List<String> kinds() {
        return List.of("delimited", "labelled", "json", "sentence", "registers", "picture", "frames", "cobs", "slip");
    }

    private static void add(List<StreamFormat> guesses, Optional<StreamFormat> guess) {
        guess.ifPresent(guesses::add);
    }

    private static double textShare(byte[] bytes, int length) {
        int printable = 0;
        for (int i = 0; i < length; i++) {
            int b = bytes[i] & 0xff;
            // The upper half is text where it is UTF-8, as for a degree sign; packets are full of anything.
            printable += b >= 0x20 && b < 0x7f || b == '\n' || b == '\r' || b == '\t' || b == 0xc2 || b == 0xb0 ? 1 : 0;
        }
        return length == 0 ? 0 : (double) printable / length;
    }

    /** Tries a format on some bytes. */
    public static Proposal propose(StreamFormat format, byte[] bytes, int length) {
        RejectedLines aside = new RejectedLines(1);
        StreamDecoder decoder = format.decoder(aside);
        decoder.feed(bytes, 0, length);
        Rows rows = decoder.takeRows();
        int kept = Math.min(12, rows.count());
        double[][] sample = new double[rows.columns().length][];
        long missing = 0;
        for (int c = 0; c < sample.length; c++) {
            sample[c] = java.util.Arrays.copyOf(rows.columns()[c], kept);
            for (int row = 0; row < rows.count(); row++) {
                missing += Double.isNaN(rows.columns()[c][row]) ? 1 : 0;
            }
        }
        double cells = Math.max(1, (double) rows.count() * sample.length);
        // The unfinished end is no fault of the format.
        double share =
                Math.min(1, (double) decoder.understood() / Math.max(1, length - unfinished(bytes, length, format)));
        double confidence = share * likelihood(format) * (1 - 0.5 * missing / cells);
        return new Proposal(format, confidence, rows.count(), new Rows(sample, kept));
    }

    private static int unfinished(byte[] bytes, int length, StreamFormat format) {
        if (format instanceof PacketFormat packet && packet.framing() != Framing.HEX_LINE) {
            return Math.min(length / 4, packet.length());
        }
        int end = length;
        while (end > 0 && bytes[end - 1] != '\n') {
            end--;
        }
        return length - end;
    }

    /** What makes sense of the same bytes in a plainer way goes first. */
    private static double likelihood(StreamFormat format) {
        if (format instanceof PictureFormat) {
            return 1;
        }
        if (format instanceof DelimitedFormat delimited) {
            return delimited.columns().size() > 64 ? 0.9 : 0.99;
        }
        if (format instanceof JsonFormat) {
            return 0.99;
        }
        if (format instanceof LabelledFormat) {
            return 0.98;
        }
        if (format instanceof SentenceFormat sentence) {
            // Without a word in it, it may be columns with holes, read with the wrong decimal sign.
            return sentence.pieces().stream().anyMatch(piece -> piece.chars().anyMatch(Character::isLetter))
                    ? 0.95
                    : 0.8;
        }
        PacketFormat packet = (PacketFormat) format;
        if (packet.framing() == Framing.HEX_LINE) {
            return 0.995;
        }
        return packet.check() == Check.NONE ? 0.9 : 0.99;
    }
}
