package zesty.signal.core.decode;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * Bytes that come again after a steady number of others.
 *
 * @param share of the stream that lies between them
 * @param purity how much of their coming is this
 */
record Rhythm(int period, List<Integer> places, double share, double purity) {
    /** No packet is longer, in bytes. */
    static final int LONGEST = 600;
    /** So many of them are tried. */
    private static final int MOST = 4;
    /** One that leaves so much more of the stream is none. */
    private static final double LESS_SHARE = 0.1;

    /**
     * @return first that of the byte, or pair of bytes, whose coming again after one and the same distance covers most of
     *     the stream, then purer ones and longer ones that hold it; none where nothing does
     */
    static List<Rhythm> of(byte[] bytes, int length) {
        Rhythm best = null;
        int bestRank = 0;
        List<Rhythm> all = new ArrayList<>();
        for (int width = 2; width >= 1; width--) {
            for (int pattern : frequent(bytes, length, width)) {
                Rhythm rhythm = of(bytes, length, pattern, width);
                if (rhythm == null) {
                    continue;
                }
                all.add(rhythm);
                if (best == null || better(rhythm, rank(pattern, width), best, bestRank)) {
                    best = rhythm;
                    bestRank = rank(pattern, width);
                }
            }
        }
        List<Rhythm> found = new ArrayList<>();
        if (best != null) {
            found.add(best);
            // A number's byte comes less purely than a start's, and may slip from one place in the packet to another.
            all.sort(Comparator.comparingDouble(rhythm -> -rhythm.purity()));
            for (Rhythm rhythm : all) {
                boolean other = found.stream()
                        .noneMatch(one -> one.period() == rhythm.period()
                                && (one.purity() >= rhythm.purity() || one.purity() == 1));
                if (other
                        && rhythm.period() % best.period() == 0
                        && rhythm.share() > best.share() - LESS_SHARE
                        && found.size() < MOST) {
                    found.add(rhythm);
                }
            }
        }
        return found;
    }

    /**
     * A start comes once a packet: what comes more often is a byte of the numbers. Of periods that hold each other the
     * shorter one is the packet's, whose every other byte may be as regular. Of others the one that leaves fewer bytes
     * unexplained: a start of two equal bytes is also one byte and a shorter way.
     */
    private static boolean better(Rhythm one, int rank, Rhythm best, int bestRank) {
        boolean zeros = (rank == 0) != (bestRank == 0);
        if (Math.abs(one.share() - best.share()) > (zeros ? 0.25 : 0.1)) {
            return one.share() > best.share();
        }
        if (zeros) {
            return rank > bestRank;
        }
        if (one.period() == best.period()) {
            return rank > bestRank || rank == bestRank && one.purity() > best.purity() + 0.1;
        }
        boolean related = one.period() % best.period() == 0 || best.period() % one.period() == 0;
        return related ? one.period() < best.period() : one.share() * one.purity() > best.share() * best.purity();
    }

    /** Zeros are the upper bytes of small numbers, and move as these grow; a start is chosen to be unlike numbers. */
    private static int rank(int pattern, int width) {
        boolean zero = (pattern & 0xff) == 0 || width == 2 && pattern >> 8 == 0;
        int first = width == 2 ? pattern >> 8 : pattern;
        return zero ? 0 : first >= 0x80 ? 2 : 1;
    }

    private static List<Integer> frequent(byte[] bytes, int length, int width) {
        int[] counts = new int[width == 2 ? 65536 : 256];
        for (int i = 0; i + width <= length; i++) {
            counts[pattern(bytes, i, width)]++;
        }
        List<Integer> patterns = new ArrayList<>();
        int fewest = Math.max(PacketFinder.FEWEST, length / LONGEST / 2);
        for (int p = 0; p < counts.length; p++) {
            if (counts[p] >= fewest) {
                patterns.add(p);
            }
        }
        patterns.sort(Comparator.comparingInt(p -> -counts[p]));
        return patterns.subList(0, Math.min(patterns.size(), 80));
    }

    private static int pattern(byte[] bytes, int at, int width) {
        return width == 2 ? (bytes[at] & 0xff) << 8 | bytes[at + 1] & 0xff : bytes[at] & 0xff;
    }

    private static Rhythm of(byte[] bytes, int length, int pattern, int width) {
        int[] distances = new int[LONGEST + 1];
        int before = -1;
        int came = 0;
        for (int i = 0; i + width <= length; i++) {
            if (pattern(bytes, i, width) == pattern) {
                came++;
                if (before >= 0 && i - before <= LONGEST) {
                    distances[i - before]++;
                }
                before = i;
            }
        }
        int period = 0;
        for (int d = 4; d <= LONGEST; d++) {
            if (distances[d] * d > distances[period] * period) {
                period = d;
            }
        }
        if (period == 0) {
            return null;
        }
        List<Integer> places = new ArrayList<>();
        int i = 0;
        while (i + period + width <= length) {
            boolean here = pattern(bytes, i, width) == pattern;
            if (here && pattern(bytes, i + period, width) == pattern) {
                places.add(i);
                i += period;
            } else {
                i++;
            }
        }
        double share = (double) places.size() * period / length;
        return share < 0.5 || places.size() < PacketFinder.FEWEST
                ? null
                : new Rhythm(period, places, share, Math.min(1, (double) places.size() / came));
    }
}
