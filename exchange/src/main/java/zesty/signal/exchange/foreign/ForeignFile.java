package zesty.signal.exchange.foreign;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import zesty.signal.core.text.Messages;
import zesty.signal.exchange.TakeView;
import zesty.signal.takes.Mark;
import zesty.signal.takes.TakeException;

/**
 * A file of an open format: columns of numbers that come in step, by source, and what else of a take it holds. Read in pieces, by one
 * thread; the file stays open until it is closed.
 */
public interface ForeignFile extends TakeView, AutoCloseable {
    /** @return what was noted in it, in order of time; none where the format has no place for it */
    default List<Mark> marks() {
        return List.of();
    }

    /** @return when it began; nothing where the file does not say */
    default Optional<Instant> started() {
        return Optional.empty();
    }

    /** @return what was guessed of it or lost on the way, a sentence each */
    default List<String> remarks() {
        return List.of();
    }

    /** @return whether its rows have times; otherwise a rate must be given, and its times count rows */
    default boolean timed() {
        return true;
    }

    @Override
    default void close() throws IOException {}

    /** @return whether a file of that name is one of those that {@link #open} reads; tables and takes are not among them */
    static boolean knows(Path file) {
        return kind(file).matches("wav|edf|npz|h5|hdf5");
    }

    private static String kind(Path file) {
        String name = String.valueOf(file.getFileName()).toLowerCase(Locale.ROOT);
        return name.substring(name.lastIndexOf('.') + 1);
    }

    /** @throws TakeException when it is none of these, or damaged, in one sentence */
    static ForeignFile open(Path file) throws TakeException {
        try {
            return switch (kind(file)) {
                case "wav" -> new WavFile(file);
                case "edf" -> new EdfFile(file);
                case "npz" -> new NpzFile(file);
                case "h5", "hdf5" -> new Hdf5File(file);
                default -> throw new TakeException(Messages.of("foreign.files-that-end-in-wav-edf-npz-h5", file));
            };
        } catch (TakeException e) {
            throw e;
        } catch (IOException | RuntimeException e) {
            throw new TakeException(
                    Messages.of(
                            "foreign.cannot-be-read-2",
                            file,
                            (e.getMessage() == null ? e.getClass().getSimpleName() : e.getMessage())),
                    e);
        }
    }
}
