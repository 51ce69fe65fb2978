package zesty.signal.app.command;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.IntStream;
import zesty.signal.core.decode.Columns;
import zesty.signal.core.sample.SampleRate;
import zesty.signal.core.scale.Digits;
import zesty.signal.exchange.TakeView;
import zesty.signal.exchange.foreign.ForeignFile;
import zesty.signal.takes.DiskWords;
import zesty.signal.takes.NewFile;
import zesty.signal.takes.Table;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/** Reads what the commands are given, and refuses what makes no sense. */
final class Inputs {
    private Inputs() {}

    /**
     * One column with its rate.
     *
     * @param seconds the time of each value; null where only the rate is known
     * @param timeTexts the times as the file writes them; null where it writes none
     */
    record Signal(
            String name, double[] values, double[] seconds, String[] timeTexts, double rateHz, List<String> damage) {}

    static Table table(Path file) {
        return table(file, "");
    }

    /** @param column of a take of several sources, which one it is about; empty for the first */
    static Table table(Path file, String column) {
        try {
            if (ForeignFile.knows(file) && Files.isRegularFile(file)) {
                return foreign(file, column);
            }
            Table table = Table.open(file, column);
            table.guesses().forEach(words -> hint(file + ": " + words));
            return table;
        } catch (TakeException e) {
            throw new Refusal(e.getMessage());
        }
    }

    /** The columns of that source of a file from elsewhere that has the column, else of its first. */
    private static Table foreign(Path file, String column) throws TakeException {
        try (ForeignFile view = ForeignFile.open(file)) {
            view.remarks().forEach(words -> hint(file + ": " + words));
            List<TakeView.Source> sources = view.sources();
            int of = 0;
            for (int s = sources.size() - 1; s >= 0; s--) {
                of = sources.get(s).columns().stream()
                                .anyMatch(one -> one.name().equals(column))
                        ? s
                        : of;
            }
            int rows = (int) sources.get(of).rows();
            List<String> names = Columns.distinct(sources.get(of).columns().stream()
                    .map(TakeView.Column::name)
                    .toList());
            double[] times = new double[rows];
            double[][] values = new double[names.size()][rows];
            int[] at = {0};
            view.read(of, IntStream.range(0, names.size()).toArray(), (seconds, parts) -> {
                System.arraycopy(seconds, 0, times, at[0], seconds.length);
                for (int c = 0; c < parts.length; c++) {
                    System.arraycopy(parts[c], 0, values[c], at[0], seconds.length);
                }
                at[0] += seconds.length;
            });
            double[][] read =
                    Arrays.stream(values).map(one -> Arrays.copyOf(one, at[0])).toArray(double[][]::new);
            return Table.of(file, names, read, view.timed() ? Arrays.copyOf(times, at[0]) : null);
        } catch (TakeException e) {
            throw e;
        } catch (IOException e) {
            throw new TakeException(file + " cannot be read: " + DiskWords.of(e), e);
        }
    }

    /** Says on standard error what the maker should know, though all goes on. */
    static void hint(String words) {
        System.err.println("zesty: " + Commands.plain(words));
        System.err.flush();
    }

    static Take take(Path file) {
        try {
            return Take.open(file);
        } catch (TakeException e) {
            throw new Refusal(e.getMessage());
        }
    }

    /** @param rateText as given with --rate; null when it was not */
    static Signal signal(Path file, String column, String rateText) {
        return signal(file, table(file, column == null ? "" : column), column, rateText);
    }

    /** As {@link #signal}, without rows that a line sent twice. */
    static Signal signalToRead(Path file, String column, String rateText) {
        Table all = table(file, column == null ? "" : column);
        Table once;
        try {
            once = rateText == null ? all.withoutRepeats() : all;
        } catch (TakeException e) {
            throw new Refusal(e.getMessage());
        }
        if (once != all) {
            hint(file + ": " + (all.rows() - once.rows()) + " rows repeat the one before them, time and all: left out");
        }
        return signal(file, once, column, rateText);
    }

    private static Signal signal(Path file, Table table, String column, String rateText) {
        try {
            double[] values = table.column(column == null ? onlyColumn(file, table) : column);
            double[] seconds = null;
            double rate;
            if (rateText == null) {
                Optional<double[]> times = table.times();
                if (times.isEmpty()) {
                    throw new Refusal(file + " has no t column to take the rate from; give it with --rate HZ");
                }
                seconds = times.get();
                rate = SampleRate.of(seconds);
                if (Double.isNaN(rate)) {
                    throw new Refusal(file + ": no time passes in its t column; seconds that rise are needed");
                }
            } else {
                rate = rate(rateText);
            }
            return new Signal(column, values, seconds, table.timeTexts().orElse(null), rate, table.damage());
        } catch (TakeException e) {
            throw new Refusal(e.getMessage());
        }
    }

    /** Says where the samples come at another rate than that of most of them, by which all are worked on. */
    static void hintOfPace(Path file, Signal signal) {
        double[] other = signal.seconds() == null ? null : SampleRate.otherPace(signal.seconds());
        if (other != null) {
            hint(file + ": from about " + Digits.fixed(other[0], 1) + " s on samples come at "
                    + Digits.about(other[1], 3)
                    + "/s, not at " + Digits.about(signal.rateHz(), 3)
                    + "/s: frequencies are wrong there, a part at one rate is worked out right");
        }
    }

    static String onlyColumn(Path file, Table table) {
        List<String> columns = table.headers().stream()
                .filter(h -> !h.equals(table.timeColumn()))
                .toList();
        if (columns.size() != 1) {
            throw new Refusal(
                    file + " has several columns; choose one with --column, of " + String.join(", ", columns));
        }
        return columns.get(0);
    }

    static double rate(String text) {
        double rate = number("--rate", text);
        if (!(rate > 0)) {
            throw new Refusal("--rate must be above 0 Hz, was " + text);
        }
        return rate;
    }

    static double number(String what, String text) {
        try {
            double value = Double.parseDouble(text.strip());
            boolean suffix = text.strip().toLowerCase(Locale.ROOT).matches(".*[a-z]");
            if (Double.isFinite(value) && !suffix) {
                return value;
            }
        } catch (NumberFormatException e) {
            // Said below.
        }
        throw new Refusal(what + " must be a number, was '" + text + "'");
    }

    /** @return seconds, from 10, 10s, 500ms, 2m or 1h */
    static double duration(String text) {
        double unit = 1;
        String digits = text.strip();
        for (Map.Entry<String, Double> known :
                List.of(Map.entry("ms", 1e-3), Map.entry("s", 1.0), Map.entry("m", 60.0), Map.entry("h", 3600.0))) {
            if (digits.endsWith(known.getKey())) {
                unit = known.getValue();
                digits = digits.substring(0, digits.length() - known.getKey().length());
                break;
            }
        }
        double value;
        try {
            value = number("duration", digits);
        } catch (Refusal e) {
            throw new Refusal("'" + text + "' is no duration; write 10s, 500ms, 2m or 1h");
        }
        if (!(value > 0)) {
            throw new Refusal("a duration must be above 0, was " + text);
        }
        return value * unit;
    }

    /** @return the settings given as KEY=VALUE. @param known the keys there are */
    static Map<String, String> settings(List<String> given, List<String> known) {
        Map<String, String> settings = new TreeMap<>();
        for (String one : given) {
            int equals = one.indexOf('=');
            String key = equals < 0 ? one : one.substring(0, equals);
            if (equals < 1) {
                throw new Refusal("--set takes KEY=VALUE, was '" + one + "'");
            }
            if (!known.contains(key)) {
                throw new Refusal("no setting is called '" + key + "'; there is " + String.join(", ", known));
            }
            settings.put(key, one.substring(equals + 1));
        }
        return settings;
    }

    /** Refuses an output that is a folder, lies in none, or would take the place of what another made. */
    static void writable(Path file) {
        String objection = NewFile.objection(file);
        if (objection != null) {
            throw new Refusal(objection);
        }
    }

    /** As {@link #writable(Path)}, and refuses what is read itself. */
    static void writable(Path file, Path input) {
        String objection = NewFile.objection(file, input);
        if (objection != null) {
            throw new Refusal(objection);
        }
        writable(file);
    }

    /** What was made of a damaged take is not all there: said once it is made. */
    static void complain(Path file, List<String> damage) throws TakeException {
        if (!damage.isEmpty()) {
            throw new TakeException("the result is of what can be read: " + file + " is damaged: " + damage(damage));
        }
    }

    /** @return the damage of a take as the end of a sentence */
    static String damage(List<String> words) {
        return words.size() + (words.size() == 1 ? " place" : " places") + " of it did not check and "
                + (words.size() == 1 ? "is" : "are") + " left out: "
                + String.join("; ", words.subList(0, Math.min(3, words.size())))
                + (words.size() > 3 ? "; …" : "");
    }
}
