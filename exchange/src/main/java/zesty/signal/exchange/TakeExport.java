package zesty.signal.exchange;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.function.DoublePredicate;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.CsvExport;
import zesty.signal.takes.DiskWords;
import zesty.signal.takes.NewFile;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/** A take into a file of an open format, which its name chooses: whole or not at all. */
public final class TakeExport {
    /** The formats, by the ending of a file's name. */
    public enum Format {
        CSV,
        WAV,
        EDF,
        JSON,
        NPZ,
        H5;

        /** @return what is in it, in a few words */
        public String words() {
            return switch (this) {
                case CSV -> "table";
                case WAV -> "sound";
                case EDF -> Messages.of("exchange.edf-16-bits-a-value");
                case JSON -> Messages.of("exchange.everything-as-text");
                case NPZ -> "arrays";
                case H5 -> "HDF5";
            };
        }

        /** @return the one that a file's name ends in */
        public static Optional<Format> of(Path file) {
            String name = String.valueOf(file.getFileName()).toLowerCase(Locale.ROOT);
            for (Format one : values()) {
                if (name.endsWith("." + one.name().toLowerCase(Locale.ROOT))) {
                    return Optional.of(one);
                }
            }
            return Optional.empty();
        }
    }

    private TakeExport() {}

    /**
     * Writes it.
     *
     * @param view the take as it is to be handed on
     * @param readings goes into JSON only
     * @param goOn hears the share done, 0 … 1, and says whether to go on
     * @return what is lost, and which further files there are, a sentence each
     * @throws TakeException when the name ends in none of the formats, or it cannot be written
     * @throws CancellationException when it said no; nothing is written then
     */
    public static List<String> write(
            Take take, TakeView view, Path to, boolean replace, JsonExport.Readings readings, DoublePredicate goOn)
            throws TakeException {
        Format format = Format.of(to)
                .orElseThrow(() -> new TakeException(Messages.of("exchange.a-take-is-exported-to-a-file-that", to)));
        List<String> said = new ArrayList<>();
        TakeView told = new Told(view, goOn);
        boolean parts = format == Format.CSV || format == Format.WAV;
        int files = parts ? view.sources().size() : 1;
        List<NewFile> made = new ArrayList<>();
        try {
            for (int s = 0; s < files; s++) {
                Path file = CsvExport.fileOf(s, to);
                NewFile part = NewFile.begin(file, replace);
                made.add(part);
                switch (format) {
                    case CSV -> CsvViewExport.write(told, s, part.stream());
                    case WAV ->
                        say(said, file, WavExport.write(told, s, part.stream()).loss());
                    case NPZ -> NpzExport.write(told, part.stream());
                    case EDF ->
                        EdfExport.write(told, take.started(), take.title(), take.marks(), part.stream())
                                .words()
                                .forEach(words -> say(said, to, words));
                    case H5 -> Hdf5Export.write(told, take.marks(), part.stream());
                    case JSON -> JsonExport.write(take, told, readings, part.stream());
                }
            }
            for (NewFile part : made) {
                part.keep();
            }
        } catch (TakeException e) {
            throw e;
        } catch (IOException e) {
            throw new TakeException(Messages.of("exchange.cannot-be-written", to, DiskWords.of(e)), e);
        } finally {
            made.forEach(NewFile::close);
        }
        for (int s = 1; s < files; s++) {
            say(said, CsvExport.fileOf(s, to), Messages.of("exchange.another-source-of-the-take-with"));
        }
        return said;
    }

    private static void say(List<String> said, Path file, String words) {
        if (!words.isEmpty()) {
            said.add(file + ": " + words);
        }
    }

    /** A view that tells how far it is. Formats that read it twice go from the beginning again. */
    private record Told(TakeView view, DoublePredicate goOn) implements TakeView {
        @Override
        public List<Source> sources() {
            return view.sources();
        }

        @Override
        public void read(int source, int[] columns, Taker taker) throws IOException {
            long rows = Math.max(1, view.sources().get(source).rows());
            long[] done = {0};
            view.read(source, columns, (seconds, values) -> {
                if (!goOn.test(Math.min(1, (double) done[0] / rows))) {
                    throw new CancellationException(Messages.of("exchange.given-up"));
                }
                done[0] += seconds.length;
                taker.take(seconds, values);
            });
        }
    }
}
