package zesty.signal.app.command;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import zesty.signal.core.read.vibration.Vibration;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.spectrum.EvenRecord;
import zesty.signal.core.spectrum.Lines;
import zesty.signal.core.spectrum.Welch;
import zesty.signal.core.spectrum.Window;
import zesty.signal.takes.TakeException;

@Command(name = "spectrum", description = "Power spectral density of one column.")
final class SpectrumCommand implements Callable<Integer> {
    private static final int USUAL_SEGMENT = 1024;
    private static final int SHOWN = 8;

    @Spec
    private CommandSpec spec;

    @Parameters(paramLabel = "FILE")
    private Path file;

    @Option(names = "--column", paramLabel = "NAME")
    private String column;

    @Option(names = "--rate", paramLabel = "HZ")
    private String rate;

    @Option(names = "--window", paramLabel = "WINDOW")
    private String window = "hann";

    @Option(names = "--segment", paramLabel = "N")
    private String segment;

    @Option(names = "--overlap", paramLabel = "SHARE")
    private String overlap = "0.5";

    @Option(names = "--json")
    private boolean json;

    @Override
    public Integer call() throws TakeException {
        Window chosen = Arrays.stream(Window.values())
                .filter(w -> w.word().equals(window))
                .findFirst()
                .orElseThrow(() -> new Refusal("no window is called '" + window + "'; there are "
                        + String.join(
                                ", ",
                                Arrays.stream(Window.values()).map(Window::word).toList())));
        double share = Inputs.number("--overlap", overlap);
        if (!(share >= 0 && share < 1)) {
            throw new Refusal("--overlap is a share from 0 to below 1, was " + overlap);
        }
        Inputs.Signal signal = Inputs.signalToRead(file, column, rate);
        Inputs.hintOfPace(file, signal);
        double[] seconds = signal.seconds();
        if (seconds == null) {
            seconds = new double[signal.values().length];
            Arrays.setAll(seconds, i -> i / signal.rateHz());
        }
        EvenRecord even = EvenRecord.of(signal.values(), seconds, signal.rateHz(), Vibration.LONGEST_HOLE_SECONDS);
        int length = length(even.longest());
        Welch welch = Welch.of(even.axes()[0], even.runs(), signal.rateHz(), chosen, length, share);
        if (json) {
            ObjectNode root = Json.object();
            Json.put(root, "hz", welch.hz());
            Json.put(root, "density", welch.density());
            Json.print(root);
        } else {
            print(signal, welch, length);
        }
        Inputs.complain(file, signal.damage());
        return Commands.DONE;
    }

    private int length(int longest) {
        if (segment == null) {
            return Math.min(USUAL_SEGMENT, Math.max(1, longest));
        }
        double given = Inputs.number("--segment", segment);
        if (given < 1 || given != Math.rint(given)) {
            throw new Refusal("--segment is a whole number of samples from 1 on, was " + segment);
        }
        if (given > longest) {
            throw new Refusal("--segment " + segment + " is longer than the " + longest
                    + " samples there are without a gap; choose a shorter one");
        }
        return (int) given;
    }

    private void print(Inputs.Signal signal, Welch welch, int length) {
        var out = spec.commandLine().getOut();
        double binHz = signal.rateHz() / length;
        out.println(signal.name() + ", " + Digits.of(signal.rateHz()) + " samples/s, " + welch.segments()
                + (welch.segments() == 1 ? " segment of " : " segments of ") + length + ", " + Digits.about(binHz, 3)
                + " Hz steps");
        for (Lines.Line line : Lines.of(welch.density(), binHz, 0, signal.rateHz() / 2, SHOWN)) {
            out.println("  " + Digits.fixed(line.hz(), 3) + " Hz, height " + Digits.about(line.amplitude(), 4));
        }
        out.flush();
    }
}
