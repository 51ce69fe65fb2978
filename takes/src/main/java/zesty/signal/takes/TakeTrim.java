package zesty.signal.takes;

import java.nio.file.Path;
import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** A part of a take as a take of its own; the one it is taken from stays as it is. */
public final class TakeTrim {
    private TakeTrim() {}

    /**
     * @param from begin and {@code to} end of the part, in s from the take's first row, both held
     * @param out must not exist
     * @return rows of all sources
     * @throws TakeException when no row lies between, or it cannot be written; nothing is left behind then
     */
    public static long write(Take take, double from, double to, Path out) throws TakeException {
        String title = Messages.of("takes.part", take.title());
        boolean done = false;
        long rows;
        TakeWriter writer =
                TakeWriter.create(out, title, take.rigOrPlain(), take.started().plusNanos(Math.round(from * 1e9)));
        try (writer) {
            for (int source = 0; source < take.sources(); source++) {
                TakePieces.copy(take, source, from, to, 0, writer);
            }
            rows = writer.rows();
            if (rows == 0) {
                throw new TakeException(Messages.of(
                        "takes.no-row-of-lies-from-to-s", take.file(), Digits.fixed(from, 3), Digits.fixed(to, 3)));
            }
            TakePieces.marks(take, from, to, 0, writer);
            writer.finish();
            done = true;
        } finally {
            if (!done) {
                TakePieces.remove(out);
            }
        }
        String of = Messages.of("takes.cut-out-of-from-to-s", take.title(), Digits.fixed(from, 3), Digits.fixed(to, 3));
        try (Take made = Take.open(out)) {
            made.write(new LogEntry(
                    null, take.notes().isEmpty() ? of : take.notes() + "\n" + of, take.tags(), List.of(), List.of()));
        }
        return rows;
    }
}
