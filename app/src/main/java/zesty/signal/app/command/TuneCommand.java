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
import zesty.signal.core.read.hits.Tuning;
import zesty.signal.core.scale.Digits;
import zesty.signal.takes.Table;
import zesty.signal.takes.TakeException;

@Command(name = "tune", description = "The threshold, release and dead time that tell the true events best.")
final class TuneCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(paramLabel = "FILE")
    private Path file;

    @Option(names = "--column", paramLabel = "NAME")
    private String column;

    @Option(names = "--rate", paramLabel = "HZ")
    private String rate;

    @Option(names = "--truth", paramLabel = "TRUTH.csv", description = "the true times, in seconds, in a column t")
    private Path truth;

    @Option(names = "--within", paramLabel = "SECONDS", description = "how far a hit may be from its event (0.1)")
    private String within = "0.1";

    @Option(names = "--json")
    private boolean json;

    @Override
    public Integer call() throws TakeException {
        if (truth == null) {
            throw new Refusal("tune needs the true times: --truth TRUTH.csv, with a column t in seconds");
        }
        double reach = Inputs.number("--within", within);
        if (!(reach > 0)) {
            throw new Refusal("--within is a time above 0 s, was " + within);
        }
        Inputs.Signal signal = Inputs.signal(file, column, rate);
        double[] seconds = signal.seconds();
        if (seconds == null) {
            seconds = new double[signal.values().length];
            Arrays.setAll(seconds, i -> i / signal.rateHz());
        }
        Tuning tuning;
        try {
            tuning = Tuning.of(signal.values(), seconds, events(), reach);
        } catch (IllegalArgumentException e) {
            throw new Refusal(truth + ": " + e.getMessage());
        }
        if (json) {
            ObjectNode root = Json.object();
            Json.put(root, "threshold", tuning.threshold());
            Json.put(root, "release", tuning.release());
            Json.put(root, "dead_s", tuning.deadSeconds());
            root.put("found", tuning.found());
            root.put("missed", tuning.missed());
            root.put("false", tuning.invented());
            Json.put(root, "f1", Math.max(0, tuning.f1()));
            Json.put(root, "margin", new double[] {tuning.low(), tuning.high()});
            Json.print(root);
        } else {
            var out = spec.commandLine().getOut();
            out.println("threshold " + Digits.of(tuning.threshold()) + ", release " + Digits.of(tuning.release())
                    + ", dead time " + Digits.of(tuning.deadSeconds()) + " s: " + tuning.found() + " found, "
                    + tuning.missed() + " missed, " + tuning.invented() + " false");
            out.println("Any threshold from " + Digits.of(tuning.low()) + " to " + Digits.of(tuning.high())
                    + " does as well.");
            out.flush();
        }
        Inputs.complain(file, signal.damage());
        return Commands.DONE;
    }

    private double[] events() {
        Table table = Inputs.table(truth);
        try {
            return table.column("t");
        } catch (TakeException e) {
            throw new Refusal(e.getMessage());
        }
    }
}
