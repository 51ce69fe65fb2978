package zesty.signal.app.command;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import zesty.signal.core.read.PulseKind;
import zesty.signal.core.read.PulseReader;
import zesty.signal.core.read.PulseReading;
import zesty.signal.core.sample.SampleRate;
import zesty.signal.core.scale.Digits;

@Command(name = "extract", description = "Reads an answer out of a signal.")
final class ExtractCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(index = "0", paramLabel = "KIND")
    private String kind;

    @Parameters(index = "1", paramLabel = "FILE")
    private Path file;

    @Option(names = "--column", paramLabel = "NAME")
    private List<String> columns = new ArrayList<>();

    @Option(names = "--rate", paramLabel = "HZ")
    private String rate;

    @Option(names = "--set", paramLabel = "KEY=VALUE")
    private List<String> settings = new ArrayList<>();

    @Option(names = "--json")
    private boolean json;

    @Override
    public Integer call() {
        if (!kind.equals("pulse")) {
            throw new Refusal("no extractor is called '" + kind + "'; there is pulse");
        }
        if (columns.size() > 1) {
            throw new Refusal("pulse reads one column, not " + columns.size());
        }
        Map<String, String> given = Inputs.settings(settings, List.of("kind"));
        PulseKind pulseKind =
                switch (given.getOrDefault("kind", "optical")) {
                    case "optical" -> PulseKind.OPTICAL;
                    case "electrical" -> PulseKind.ELECTRICAL;
                    default -> throw new Refusal("kind is optical or electrical, was '" + given.get("kind") + "'");
                };
        Inputs.Signal signal = Inputs.signal(file, columns.isEmpty() ? null : columns.get(0), rate);
        if (signal.rateHz() < pulseKind.lowestRateHz()) {
            throw new Refusal("a pulse of kind " + pulseKind.name().toLowerCase(Locale.ROOT) + " needs "
                    + Digits.exact(pulseKind.lowestRateHz()) + " samples/s or more, not "
                    + Digits.exact(signal.rateHz()));
        }
        PulseReading reading = read(signal, pulseKind);
        if (json) {
            Json.print(json(reading));
        } else {
            print(reading);
        }
        return Commands.DONE;
    }

    private static PulseReading read(Inputs.Signal signal, PulseKind kind) {
        PulseReader reader;
        try {
            reader = new PulseReader(kind, signal.rateHz());
        } catch (IllegalArgumentException e) {
            throw new Refusal(e.getMessage());
        }
        int[] gaps = signal.seconds() == null ? new int[0] : SampleRate.gapsIn(signal.seconds());
        double first = signal.seconds() == null ? 0 : signal.seconds()[0];
        int next = 0;
        for (int i = 0; i < signal.values().length; i++) {
            if (next < gaps.length && gaps[next] == i) {
                reader.gap();
                next++;
            }
            // Times count from the first sample, whatever the file's own zero.
            double seconds = signal.seconds() == null ? i / signal.rateHz() : signal.seconds()[i] - first;
            reader.accept(signal.values()[i], seconds);
        }
        reader.finish();
        return reader.reading();
    }

    private static ObjectNode json(PulseReading reading) {
        ObjectNode root = Json.object();
        Json.put(root, "beats", reading.beats());
        ObjectNode rates = root.putObject("rate_bpm");
        Json.put(rates, "mean", reading.meanBpm());
        Json.put(rates, "min", reading.lowestBpm());
        Json.put(rates, "max", reading.highestBpm());
        ObjectNode intervals = root.putObject("interval_ms");
        Json.put(intervals, "mean", reading.meanIntervalMs());
        Json.put(intervals, "sdnn", reading.sdnnMs());
        Json.put(intervals, "rmssd", reading.rmssdMs());
        Json.put(root, "rejected", reading.rejected());
        Json.put(root, "quality", reading.quality().share());
        return root;
    }

    private void print(PulseReading reading) {
        var out = spec.commandLine().getOut();
        out.println(reading.beats().length + " beats, " + Digits.fixed(reading.meanBpm(), 1) + " beats/min, spread "
                + Digits.fixed(reading.sdnnMs(), 0) + " ms, quality "
                + reading.quality().segments() + " of 8");
        reading.quality().reasons().forEach(reason -> out.println("  " + reason));
        out.flush();
    }
}
