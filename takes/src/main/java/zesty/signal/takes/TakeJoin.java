package zesty.signal.takes;

import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import zesty.signal.core.text.Messages;

/** Several takes of the same columns as one, with gaps between them; those they are made of stay as they are. */
public final class TakeJoin {
    private TakeJoin() {}

    /**
     * Puts them one behind the other by the calendar, as far apart as they began; the rig is that of the first.
     *
     * @param takes two at least, in any order; the caller closes them
     * @param out must not exist
     * @return rows of all
     * @throws TakeException when their columns are not the same, two overlap, or it cannot be written; nothing is left behind then
     */
    public static long write(List<Take> takes, Path out) throws TakeException {
        List<Take> inOrder = new ArrayList<>(takes);
        inOrder.sort(Comparator.comparing(Take::started));
        Take first = inOrder.get(0);
        double[] later = new double[inOrder.size()];
        for (int i = 1; i < later.length; i++) {
            Take one = inOrder.get(i);
            Take before = inOrder.get(i - 1);
            if (one.sources() != first.sources() || !one.columns().equals(first.columns())) {
                throw new TakeException(
                        Messages.of("takes.has-other-columns-than-only-takes", one.title(), first.title()));
            }
            for (int source = 0; source < first.sources(); source++) {
                if (!Arrays.equals(one.frameSize(source), first.frameSize(source))) {
                    throw new TakeException(
                            Messages.of("takes.has-pictures-of-another-size-than", one.title(), first.title()));
                }
            }
            later[i] = Duration.between(first.started(), one.started()).toNanos() / 1e9;
            double end = later[i - 1] + before.seconds();
            if (later[i] <= end) {
                throw new TakeException(
                        Messages.of("takes.began-before-was-over-takes-of-the", one.title(), before.title()));
            }
        }
        boolean done = false;
        long rows;
        TakeWriter writer = TakeWriter.create(out, first.title() + ", joined", first.rigOrPlain(), first.started());
        try (writer) {
            for (int i = 0; i < later.length; i++) {
                Take one = inOrder.get(i);
                for (int source = 0; source < one.sources(); source++) {
                    TakePieces.copy(one, source, Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY, later[i], writer);
                }
                writer.mark(later[i], one.title());
                TakePieces.marks(one, Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY, later[i], writer);
            }
            rows = writer.rows();
            writer.finish();
            done = true;
        } finally {
            if (!done) {
                TakePieces.remove(out);
            }
        }
        Set<String> tags = new LinkedHashSet<>();
        List<String> notes = new ArrayList<>();
        for (Take one : inOrder) {
            tags.addAll(one.tags());
            if (!one.notes().isBlank()) {
                notes.add(one.notes());
            }
        }
        notes.add(Messages.of(
                "takes.joined-of",
                String.join(
                        ", ",
                        inOrder.stream().map(one -> "\"" + one.title() + "\"").toList())));
        try (Take made = Take.open(out)) {
            made.write(new LogEntry(null, String.join("\n", notes), List.copyOf(tags), List.of(), List.of()));
        }
        return rows;
    }
}
