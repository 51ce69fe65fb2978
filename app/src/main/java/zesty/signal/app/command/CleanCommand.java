package zesty.signal.app.command;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.concurrent.Callable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import zesty.signal.core.clean.Recipe;
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
        double[] values = signal.values().clone();
        int[] gaps = signal.seconds() == null ? new int[0] : SampleRate.gapsIn(signal.seconds());
        int from = 0;
        for (int i = 0; i <= gaps.length; i++) {
            int to = i < gaps.length ? gaps[i] : values.length;
            double[] stretch = Arrays.copyOfRange(values, from, to);
            if (ways.both) {
                steps.bothWays(stretch, signal.rateHz());
            } else {
                steps.onceThrough(stretch, signal.rateHz());
            }
            System.arraycopy(stretch, 0, values, from, stretch.length);
            from = to;
        }
        write(signal, values);
        Inputs.complain(file, signal.damage());
        return Commands.DONE;
    }

    private void write(Inputs.Signal signal, double[] values) throws TakeException {
        boolean texts = signal.timeTexts() != null;
        boolean timed = texts || signal.seconds() != null;
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
            for (int row = 0; row < values.length; row++) {
                if (texts) {
                    rows.add(signal.timeTexts()[row]);
                } else if (timed) {
                    rows.add(signal.seconds()[row]);
                }
                rows.add(values[row]);
                rows.end();
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
