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
import zesty.signal.core.sample.SampleRate;
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
        Inputs.writable(out);
        Inputs.Signal signal = Inputs.signal(file, column, rate);
        List<Stretch> stretches = stretches(signal);
        boolean resampled = steps.steps().stream().anyMatch(Resample.class::isInstance);
        for (Stretch stretch : stretches) {
            for (Step step : steps.steps()) {
                stretch.run(step, ways.both);
            }
        }
        write(signal, stretches, resampled);
        Inputs.complain(file, signal.damage());
        return Commands.DONE;
    }

    /** A stretch without a gap: its samples, and their times where there are any. */
    private static final class Stretch {
        double[] values;
        double[] seconds;
        double rateHz;

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
            double[] when = seconds;
            if (when == null) {
                when = new double[values.length];
                Arrays.setAll(when, i -> i / rateHz);
            }
            Resampler.Steady steady = Resampler.steady(when, values, rateHz, hz);
            long first = Math.round(steady.firstSeconds() * hz);
            values = steady.values();
            seconds = new double[values.length];
            Arrays.setAll(seconds, i -> (first + i) / hz);
            rateHz = hz;
        }
    }

    private static List<Stretch> stretches(Inputs.Signal signal) {
        double[] all = signal.values();
        int[] gaps = signal.seconds() == null ? new int[0] : SampleRate.gapsIn(signal.seconds());
        List<Stretch> stretches = new ArrayList<>();
        int from = 0;
        for (int i = 0; i <= gaps.length; i++) {
            int to = i < gaps.length ? gaps[i] : all.length;
            Stretch stretch = new Stretch();
            stretch.values = Arrays.copyOfRange(all, from, to);
            stretch.seconds = signal.seconds() == null ? null : Arrays.copyOfRange(signal.seconds(), from, to);
            stretch.rateHz = signal.rateHz();
            stretches.add(stretch);
            from = to;
        }
        return stretches;
    }

    private void write(Inputs.Signal signal, List<Stretch> stretches, boolean resampled) throws TakeException {
        boolean texts = signal.timeTexts() != null && !resampled;
        boolean timed = texts || signal.seconds() != null || resampled;
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
            int line = 0;
            for (Stretch stretch : stretches) {
                for (int row = 0; row < stretch.values.length; row++, line++) {
                    if (texts) {
                        rows.add(signal.timeTexts()[line]);
                    } else if (timed) {
                        rows.add(stretch.seconds[row]);
                    }
                    rows.add(stretch.values[row]);
                    rows.end();
                }
            }
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
