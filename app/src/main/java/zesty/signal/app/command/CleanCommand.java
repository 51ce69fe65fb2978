package zesty.signal.app.command;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Arrays;
import java.util.concurrent.Callable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.sample.SampleRate;
import zesty.signal.core.scale.Digits;
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
        return Commands.DONE;
    }

    private void write(Inputs.Signal signal, double[] values) throws TakeException {
        Path part = out.resolveSibling(out.getFileName() + ".part");
        boolean texts = signal.timeTexts() != null;
        boolean timed = texts || signal.seconds() != null;
        try {
            try (CsvWriter csv = CsvWriter.builder().build(part, StandardCharsets.UTF_8)) {
                if (timed) {
                    csv.writeRecord("t", column);
                } else {
                    csv.writeRecord(column);
                }
                for (int row = 0; row < values.length; row++) {
                    String cell = Double.isFinite(values[row]) ? Digits.exact(values[row]) : "";
                    if (timed) {
                        csv.writeRecord(texts ? signal.timeTexts()[row] : Digits.exact(signal.seconds()[row]), cell);
                    } else {
                        csv.writeRecord(cell);
                    }
                }
            }
            Files.move(part, out, StandardCopyOption.REPLACE_EXISTING);
        } catch (IOException e) {
            throw new TakeException(out + " cannot be written: " + e.getMessage(), e);
        }
    }
}
