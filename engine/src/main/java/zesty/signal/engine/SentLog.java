package zesty.signal.engine;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.decode.RejectedLines;

/** The lines sent to a board lately, with its answers. Any thread. */
final class SentLog {
    private static final int KEPT = 100;
    private static final long ANSWER_NANOS = 5_000_000_000L;

    private final ArrayDeque<SentLine> lines = new ArrayDeque<>();

    synchronized SentLine sent(String text, long now) {
        if (lines.size() == KEPT) {
            lines.removeFirst();
        }
        SentLine line = new SentLine(now, text, "");
        lines.addLast(line);
        return line;
    }

    /** It did not go out after all. */
    synchronized void forget(SentLine line) {
        lines.remove(line);
    }

    /** What the board says that is no row answers the oldest line that waits for an answer. */
    private synchronized void said(String text, long now) {
        List<SentLine> all = new ArrayList<>(lines);
        for (int i = 0; i < all.size(); i++) {
            SentLine line = all.get(i);
            if (line.answer().isEmpty() && now - line.nanoTime() < ANSWER_NANOS) {
                all.set(i, line.withAnswer(text));
                lines.clear();
                lines.addAll(all);
                return;
            }
        }
    }

    /** What was rejected since that count is what the board says. */
    void rejected(RejectedLines lines, long before, long now) {
        if (lines.count() > before && waits(now)) {
            List<RejectedLines.Item> items = lines.items();
            int fresh = (int) Math.min(items.size(), lines.count() - before);
            items.subList(items.size() - fresh, items.size()).forEach(item -> said(item.text(), now));
        }
    }

    private synchronized boolean waits(long now) {
        return lines.stream().anyMatch(l -> l.answer().isEmpty() && now - l.nanoTime() < ANSWER_NANOS);
    }

    synchronized List<SentLine> lines() {
        return List.copyOf(lines);
    }
}
