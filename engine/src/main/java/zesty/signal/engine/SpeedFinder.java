package zesty.signal.engine;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.function.DoublePredicate;
import zesty.signal.boards.link.Link;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.boards.link.LinkException;
import zesty.signal.core.decode.Recogniser;

/** Tries the usual speeds on a serial port and ranks them by how much of the stream makes sense at each. */
public final class SpeedFinder {
    private static final int MOST_BYTES = 1 << 16;
    private static final int ENOUGH_ROWS = 12;

    private SpeedFinder() {}

    /** Gives a link for a speed. */
    public interface Plug {
        Link at(int baud);
    }

    /**
     * How one speed did.
     *
     * @param share of the bytes that makes sense, 0 … 1
     * @param words the format that was recognised; empty for none
     * @param line some of what came, with dots for what is no text
     */
    public record Trial(int baud, int bytes, double share, String words, String line) {}

    /**
     * Tries the speeds one after the other. Takes the time: not for the window's thread.
     *
     * @param secondsEach how long to listen at each speed
     * @param goOn is told the share done and says whether to go on; given up, what was tried so far is ranked
     * @return the trials, best first; equal ones in the order of the speeds
     * @throws LinkException when the port cannot be opened at all
     */
    public static List<Trial> rank(Plug plug, List<Integer> speeds, double secondsEach, DoublePredicate goOn)
            throws LinkException {
        List<Trial> trials = new ArrayList<>();
        for (int i = 0; i < speeds.size() && goOn.test((double) i / speeds.size()); i++) {
            trials.add(trial(plug.at(speeds.get(i)), speeds.get(i), secondsEach));
        }
        trials.sort(Comparator.comparingDouble(trial -> -trial.share()));
        return trials;
    }

    /** @return a link to the port at that speed, with the other settings as they are */
    public static Plug port(LinkAddress.Serial port) {
        return baud -> port.withBaud(baud).link();
    }

    private static Trial trial(Link link, int baud, double seconds) throws LinkException {
        byte[] all = new byte[MOST_BYTES];
        int count = 0;
        byte[] buffer = new byte[4096];
        try (link) {
            link.open();
            long end = System.nanoTime() + (long) (seconds * 1e9);
            while (System.nanoTime() < end && count < MOST_BYTES) {
                int n = link.read(buffer);
                if (n == Link.OVER) {
                    break;
                }
                n = Math.min(n, MOST_BYTES - count);
                System.arraycopy(buffer, 0, all, count, n);
                count += n;
            }
        }
        byte[] bytes = Arrays.copyOf(all, count);
        List<Recogniser.Proposal> proposals = Recogniser.recognise(bytes, count);
        if (proposals.isEmpty()) {
            return new Trial(baud, count, 0, "", someOf(bytes));
        }
        Recogniser.Proposal best = proposals.get(0);
        // A line or two may make sense by chance; a dozen do not.
        double weight = Math.min(1, best.rows() / (double) ENOUGH_ROWS);
        return new Trial(
                baud,
                count,
                best.confidence() * (0.5 + 0.5 * weight),
                best.format().words(),
                someOf(bytes));
    }

    private static String someOf(byte[] bytes) {
        StringBuilder text = new StringBuilder();
        int from = Math.max(0, Math.min(bytes.length / 2, bytes.length - 60));
        for (int i = from; i < bytes.length && i < from + 60; i++) {
            int b = bytes[i] & 0xff;
            text.append(b == '\n' ? " ⏎ " : b >= 0x20 && b < 0x7f ? String.valueOf((char) b) : b == '\r' ? "" : "·");
        }
        return text.toString();
    }
}
