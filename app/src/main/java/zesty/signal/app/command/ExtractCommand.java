package zesty.signal.app.command;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import zesty.signal.core.decode.Columns;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.read.Setting;
import zesty.signal.core.read.Settings;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.scale.Digits;
import zesty.signal.engine.MarkedAt;
import zesty.signal.engine.TableReading;
import zesty.signal.engine.TakeReading;
import zesty.signal.exchange.foreign.ForeignFile;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

@Command(name = "extract", description = "Reads an answer out of a signal.")
final class ExtractCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(index = "0", paramLabel = "KIND")
    private String name;

    @Parameters(index = "1", paramLabel = "FILE")
    private Path file;

    @Option(names = "--column", paramLabel = "NAME")
    private List<String> columns = new ArrayList<>();

    @Option(names = "--rate", paramLabel = "HZ")
    private String rate;

    @Option(names = "--set", paramLabel = "KEY=VALUE")
    private List<String> settings = new ArrayList<>();

    @Option(names = "--raw", description = "of a take: the raw column, not cleaned")
    private boolean raw;

    @Option(names = "--json")
    private boolean json;

    private List<String> damage = List.of();
    /** Of the first channel of a take; empty where it is not known. */
    private String unit = "";

    @Override
    public Integer call() throws TakeException {
        return name.equals(PictureExtract.NAME) ? pictures() : signals();
    }

    private int pictures() throws TakeException {
        Map<String, String> given = PictureExtract.settings(settings);
        PictureExtract.Read read = PictureExtract.read(file, columns, rate, raw);
        ObjectNode answer = PictureExtract.answer(read.series(), given, rate);
        if (json) {
            Json.print(answer);
        } else {
            PictureExtract.words(answer).forEach(spec.commandLine().getOut()::println);
            spec.commandLine().getOut().flush();
        }
        Inputs.complain(file, read.damage());
        return Commands.DONE;
    }

    private int signals() throws TakeException {
        ReaderKind kind = kind(name);
        Map<String, String> given = Inputs.settings(
                settings, kind.settings().stream().map(Setting::key).toList());
        Reading reading;
        try {
            Settings.of(kind, given);
            boolean take =
                    file.getFileName() != null && file.getFileName().toString().endsWith(".zest");
            if (take && !raw && rate == null) {
                reading = ofTake(kind, given);
            } else {
                reading = ofTable(kind, marked(given));
            }
        } catch (ReaderException e) {
            throw new Refusal(e.getMessage());
        }
        if (!reading.refusal().isEmpty()) {
            throw new Refusal(file + ": " + reading.refusal());
        }
        if (json) {
            Json.print(ReadingJson.of(reading));
        } else {
            print(kind, reading);
        }
        Inputs.complain(file, damage);
        return Commands.DONE;
    }

    static ReaderKind kind(String name) {
        try {
            return ReaderKinds.of(name);
        } catch (ReaderException e) {
            throw new Refusal("no extractor is called '" + name + "'; there are "
                    + String.join(
                            ", ",
                            ReaderKinds.all().stream().map(ReaderKind::name).toList())
                    + ", " + PictureExtract.NAME);
        }
    }

    private void countColumns(ReaderKind kind, int count) {
        int most = kind.ports().size();
        if (count > most || count < kind.fewestPorts()) {
            throw new Refusal(kind.name() + " reads "
                    + (kind.fewestPorts() == most ? "" : kind.fewestPorts() + " to ") + most
                    + (most == 1 ? " column" : " columns") + ", not " + count);
        }
    }

    private Reading ofTake(ReaderKind kind, Map<String, String> given) throws TakeException {
        List<String> wanted = columns;
        if (wanted.isEmpty()) {
            wanted = List.of(Inputs.onlyColumn(file, Inputs.table(file)));
        }
        countColumns(kind, wanted.size());
        try (Take take = Inputs.take(file)) {
            Reading read = TakeReading.read(take, kind.name(), wanted, given);
            damage = take.damage();
            unit = unit(take, wanted.get(0));
            return read;
        }
    }

    private static String unit(Take take, String column) {
        return take.rigOrPlain().channels().stream()
                .filter(channel ->
                        channel.column().equals(column) || channel.name().equals(column))
                .map(Channel::unit)
                .findFirst()
                .orElse("");
    }

    private Reading ofTable(ReaderKind kind, Map<String, String> given) {
        if (!columns.isEmpty()) {
            countColumns(kind, columns.size());
        } else if (kind.fewestPorts() > 1) {
            throw new Refusal(
                    kind.name() + " needs " + kind.fewestPorts() + " columns or more; name each with --column");
        }
        List<Inputs.Signal> signals = new ArrayList<>();
        for (String column : columns.isEmpty() ? Arrays.asList((String) null) : columns) {
            String known = rate == null && !kind.needsRate(Settings.of(kind, given)) ? "1" : rate;
            signals.add(Inputs.signalToRead(file, column, known));
        }
        double[][] ports = signals.stream().map(Inputs.Signal::values).toArray(double[][]::new);
        kind.check(Settings.of(kind, given), ports);
        Inputs.Signal first = signals.get(0);
        damage = first.damage();
        int n = first.values().length;
        double[] seconds = new double[n];
        double begin = first.seconds() == null ? 0 : first.seconds()[0];
        for (int i = 0; i < n; i++) {
            // Times count from the first sample, whatever the file's own zero.
            seconds[i] = first.seconds() == null ? i / first.rateHz() : first.seconds()[i] - begin;
        }
        List<String> names = Columns.distinct(signals.stream()
                .map(one -> one.name() == null ? "value" : one.name())
                .toList());
        return TableReading.of(kind.name(), given, names, ports, seconds, first.rateHz());
    }

    /** A marker's text is a time where the file has markers. */
    private Map<String, String> marked(Map<String, String> given) throws TakeException {
        if (!given.containsKey(MarkedAt.MARK) || given.get(MarkedAt.MARK).isBlank()) {
            return given;
        }
        if (String.valueOf(file.getFileName()).endsWith(".zest")) {
            try (Take take = Inputs.take(file)) {
                return MarkedAt.resolved(given, take.marks(), file.toString());
            }
        }
        if (ForeignFile.knows(file)) {
            try (ForeignFile view = ForeignFile.open(file)) {
                return MarkedAt.resolved(given, view.marks(), file.toString());
            } catch (TakeException e) {
                throw new Refusal(e.getMessage());
            } catch (IOException e) {
                throw new Refusal(file + " cannot be read");
            }
        }
        return MarkedAt.resolved(given, List.of(), file.toString());
    }

    private void print(ReaderKind kind, Reading reading) {
        var out = spec.commandLine().getOut();
        for (ScalarInfo scalar : kind.scalars()) {
            double value = reading.scalar(scalar.key());
            if (!Double.isNaN(value)) {
                String shown =
                        scalar.decimals() < 0 ? Digits.about(value, 6) : Digits.fixed(value, scalar.decimals() + 1);
                out.println(scalar.words() + ": " + shown + " " + scalar.unit(unit));
            }
        }
        out.println("quality " + reading.quality().segments() + " of 8");
        reading.quality().reasons().forEach(reason -> out.println("  " + reason));
        out.flush();
    }
}
