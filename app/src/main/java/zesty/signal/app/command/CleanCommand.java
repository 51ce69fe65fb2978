package zesty.signal.app.command;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.clean.Resample;
import zesty.signal.core.clean.Resampler;
import zesty.signal.core.clean.Step;
import zesty.signal.core.sample.FilledRun;
import zesty.signal.takes.DiskWords;
import zesty.signal.takes.NewFile;
import zesty.signal.takes.NumberRows;
import zesty.signal.takes.TakeException;

@Command(name = "clean", description = "Runs a cleaning recipe over one column.")
final class CleanCommand implements Callable<Integer> {
    @Parameters(paramLabel = "FILE")
    private Path file;

    @Option(names = "--column", paramLabel = "NAME", required = true)
    private String column;

    @Option(names = "--rate", paramLabel = "HZ")
    private String rate;

    @Option(names = "--recipe", paramLabel = "RECIPE", required = true)
    private String recipe;

    @Option(names = "--out", paramLabel = "OUT.csv", required = true)
    private Path out;

    @ArgGroup(exclusive = true)
    private Ways ways = new Ways();

    static final class Ways {
        @Option(names = "--once-through")
        boolean once;

        @Option(names = "--both-ways")
        boolean both;
    }

    @Override
    public Integer call() throws TakeException {
        Recipe steps = Recipe.parse(recipe);
        if (steps.steps().isEmpty()) {
            throw new Refusal("--recipe is empty; for example \"lowpass:8@2\"");
        }
        Inputs.writable(out, file);
        Inputs.Signal signal = Inputs.signal(file, column, rate);
        Inputs.hintOfPace(file, signal);
        boolean resampled = steps.steps().stream().anyMatch(Resample.class::isInstance);
        double[] seconds = signal.seconds();
        if (seconds == null) {
            seconds = new double[signal.values().length];
            Arrays.setAll(seconds, i -> i / signal.rateHz());
        }
        List<Run> runs = new ArrayList<>();
        for (FilledRun filled : FilledRun.of(
                signal.values(),
                seconds,
                0,
                seconds.length,
                signal.rateHz(),
                longestHole(steps, signal.rateHz()),
                steps.fillsByItself())) {
            runs.add(new Run(filled, signal.rateHz()));
        }
        for (Run run : runs) {
            for (Step step : steps.steps()) {
                run.run(step, ways.both);
            }
        }
        if (resampled) {
            writeResampled(runs);
        } else {
            write(signal, inTheirRows(signal.values().length, runs));
        }
        Inputs.complain(file, signal.damage());
        return Commands.DONE;
    }

    /** As the steps say that run at the file's own rate. */
    private static double longestHole(Recipe recipe, double rateHz) {
        List<Step> own = recipe.steps().stream()
                .takeWhile(step -> !(step instanceof Resample))
                .toList();
        return new Recipe(own).longestHoleSeconds(rateHz);
    }

    /** A part of the record that is cleaned as one, short holes in it filled. */
    private static final class Run {
        private final int[] row;
        private double[] values;
        private double[] seconds;
        private double rateHz;

        Run(FilledRun filled, double rateHz) {
            row = filled.row();
            values = filled.values();
            seconds = filled.seconds();
            this.rateHz = rateHz;
        }

        void run(Step step, boolean both) {
            if (step instanceof Resample other) {
                resample(other.hz());
                return;
            }
            Recipe one = new Recipe(List.of(step));
            if (both) {
                one.bothWays(values, rateHz);
            } else {
                one.onceThrough(values, rateHz);
            }
        }

        private void resample(double hz) {
            Resampler.Steady steady = Resampler.steady(seconds, values, rateHz, hz);
            long first = Math.round(steady.firstSeconds() * hz);
            values = steady.values();
            seconds = new double[values.length];
            Arrays.setAll(seconds, i -> (first + i) / hz);
            rateHz = hz;
        }
    }

    /** @return a value for each row of the file; NaN where it has none. What was filled is left out */
    private static double[] inTheirRows(int rows, List<Run> runs) {
        double[] cleaned = new double[rows];
        Arrays.fill(cleaned, Double.NaN);
        for (Run run : runs) {
            for (int i = 0; i < run.row.length; i++) {
                if (run.row[i] >= 0) {
                    cleaned[run.row[i]] = run.values[i];
                }
            }
        }
        return cleaned;
    }

    /** Writes row for row, with the times as the file has them. */
    private void write(Inputs.Signal signal, double[] cleaned) throws TakeException {
        boolean texts = signal.timeTexts() != null;
        boolean timed = texts || signal.seconds() != null;
        write(timed, rows -> {
            for (int row = 0; row < cleaned.length; row++) {
                if (texts) {
                    rows.add(signal.timeTexts()[row]);
                } else if (timed) {
                    rows.add(signal.seconds()[row]);
                }
                rows.add(cleaned[row]);
                rows.end();
            }
        });
    }

    /** Writes what was brought to another rate, with times of its own. */
    private void writeResampled(List<Run> runs) throws TakeException {
        write(true, rows -> {
            for (Run run : runs) {
                for (int i = 0; i < run.values.length; i++) {
                    rows.add(run.seconds[i]);
                    rows.add(run.values[i]);
                    rows.end();
                }
            }
        });
    }

    private interface Lines {
        void to(NumberRows rows) throws IOException;
    }

    private void write(boolean timed, Lines lines) throws TakeException {
        // A column that is called t itself stands beside the time.
        String header = timed && column.equals("t") ? "t_board" : column;
        try (NewFile file = NewFile.begin(out, false)) {
            StringWriter first = new StringWriter();
            try (CsvWriter csv =
                    CsvWriter.builder().lineDelimiter(LineDelimiter.LF).build(first)) {
                csv.writeRecord(timed ? new String[] {"t", header} : new String[] {header});
            }
            file.stream().write(first.toString().getBytes(StandardCharsets.UTF_8));
            NumberRows rows = new NumberRows(file.stream());
            lines.to(rows);
            rows.flush();
            file.keep();
        } catch (IOException e) {
            if (e instanceof TakeException said) {
                throw said;
            }
            throw new TakeException(out + " cannot be written: " + DiskWords.of(e), e);
        }
    }
}
