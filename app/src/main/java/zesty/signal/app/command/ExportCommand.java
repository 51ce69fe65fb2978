package zesty.signal.app.command;

import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.function.Predicate;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import zesty.signal.core.rig.Channel;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.StoredTake;
import zesty.signal.engine.WorkedView;
import zesty.signal.exchange.RawView;
import zesty.signal.exchange.TakeExport;
import zesty.signal.exchange.TakeView;
import zesty.signal.takes.CsvExport;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

@Command(name = "export", description = "Writes a take in an open format.")
final class ExportCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(paramLabel = "FILE.zest")
    private Path file;

    @Option(names = "--to", paramLabel = "OUT.(csv|wav|edf|json|npz|h5)", required = true)
    private Path to;

    @Option(names = "--column", paramLabel = "NAME", description = "only these, by column or channel")
    private List<String> columns = new ArrayList<>();

    @Option(names = "--scaled", description = "in the unit of each channel")
    private boolean scaled;

    @Option(names = "--cleaned", description = "scaled and cleaned, forward and back")
    private boolean cleaned;

    @Override
    public Integer call() throws TakeException {
        TakeExport.Format format = format();
        if (scaled && cleaned) {
            throw new Refusal("--scaled and --cleaned are two things; give one of them");
        }
        Inputs.writable(to, file);
        try (Take take = InfoCommand.open(file)) {
            check(take);
            if (format == TakeExport.Format.CSV && columns.isEmpty() && !scaled && !cleaned) {
                CsvExport.write(take, to, false, share -> true);
                sayParts(take.sources());
            } else if (scaled || cleaned || format == TakeExport.Format.JSON) {
                StoredTake stored = StoredTake.load(take);
                write(take, scaled || cleaned ? worked(stored) : raw(take), stored);
            } else {
                write(take, raw(take), null);
            }
            if (!take.damage().isEmpty()) {
                throw new TakeException(
                        to + " was written, but " + file + " is damaged: " + Inputs.damage(take.damage()));
            }
        }
        return Commands.DONE;
    }

    private TakeExport.Format format() {
        return TakeExport.Format.of(to)
                .orElseThrow(() -> new Refusal("--to " + to
                        + ": a take is exported to a file that ends in .csv, .wav, .edf, .json, .npz or .h5"));
    }

    private void check(Take take) {
        for (String column : columns) {
            boolean there = take.columns().stream().anyMatch(one -> one.name().equals(column))
                    || take.rigOrPlain().channels().stream()
                            .anyMatch(one -> one.name().equals(column));
            if (!there) {
                throw new Refusal(file + " has no column '" + column + "'; it has "
                        + String.join(
                                ", ",
                                take.columns().stream().map(one -> one.name()).toList()));
            }
        }
    }

    private TakeView raw(Take take) {
        return new RawView(
                take,
                column -> columns.isEmpty()
                        || columns.contains(column)
                        || take.rigOrPlain().channels().stream()
                                .anyMatch(one -> one.column().equals(column) && columns.contains(one.name())));
    }

    private TakeView worked(StoredTake stored) {
        Predicate<Channel> wanted =
                one -> columns.isEmpty() || columns.contains(one.column()) || columns.contains(one.name());
        return scaled ? WorkedView.scaled(stored, wanted) : WorkedView.cleaned(stored, wanted);
    }

    private void write(Take take, TakeView view, StoredTake stored) throws TakeException {
        TakeExport.write(take, view, to, false, json -> readings(stored, json), share -> true)
                .forEach(this::say);
    }

    private void sayParts(int files) {
        for (int s = 1; s < files; s++) {
            say(CsvExport.fileOf(s, to) + ": another source of the take, with times of its own");
        }
    }

    private void say(String words) {
        spec.commandLine().getErr().println("zesty: " + Commands.plain(words));
        spec.commandLine().getErr().flush();
    }

    private static void readings(StoredTake stored, JsonGenerator json) throws IOException {
        ArrayNode all = Json.list();
        for (ChannelSnapshot channel : stored.snapshot().channels()) {
            for (ReaderSnapshot reader : channel.readers()) {
                // A reader of several columns stands with its first.
                if (reader.setup().columns().get(0).equals(channel.channel().column())) {
                    ObjectNode node = all.addObject();
                    node.put("reader", reader.setup().kind());
                    reader.setup().columns().forEach(node.putArray("columns")::add);
                    if (reader.reading() == null) {
                        node.put("why", reader.trouble());
                    } else {
                        node.set("reading", ReadingJson.of(reader.reading()));
                    }
                }
            }
        }
        json.writeRawValue(new ObjectMapper().writeValueAsString(all));
    }
}
