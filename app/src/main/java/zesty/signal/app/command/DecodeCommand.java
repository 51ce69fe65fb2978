package zesty.signal.app.command;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFinder;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.decode.Recogniser;
import zesty.signal.core.decode.Rows;
import zesty.signal.core.decode.SetAside;
import zesty.signal.core.decode.StreamDecoder;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.takes.FormatJson;
import zesty.signal.takes.TakeException;

@Command(name = "decode", description = "Decodes a raw byte capture.")
final class DecodeCommand implements Callable<Integer> {
    private static final List<String> DELIMITERS = List.of("comma", "semicolon", "tab", "blanks");
    private static final int KEPT = 100_000;

    @Spec
    private CommandSpec spec;

    @Parameters(paramLabel = "FILE")
    private Path file;

    @Option(names = "--format", paramLabel = "FORMAT")
    private String formatName;

    @Option(names = "--json")
    private boolean json;

    @Override
    public Integer call() {
        byte[] bytes = bytes();
        StreamFormat format = format(bytes)
                .orElseThrow(() -> new Refusal(file + ": no format was recognised"
                        + (formatName == null ? "" : " as " + formatName)
                        + "; lines with numbers or packets of one length are needed"));
        StreamDecoder decoder = format.decoder(new SetAside(KEPT));
        decoder.restart(format instanceof DelimitedFormat delimited
                && DelimitedFinder.startsMidLine(bytes, bytes.length, delimited));
        decoder.feed(bytes, 0, bytes.length);
        Rows rows = decoder.takeRows();
        if (json) {
            printJson(decoder, rows);
        } else {
            printText(decoder, rows);
        }
        return Commands.DONE;
    }

    private Optional<? extends StreamFormat> format(byte[] bytes) {
        if (formatName == null) {
            return Recogniser.recognise(bytes, bytes.length).stream()
                    .findFirst()
                    .map(Recogniser.Proposal::format);
        }
        if (DELIMITERS.contains(formatName)) {
            return DelimitedFinder.find(bytes, bytes.length, delimiter(formatName));
        }
        if (formatName.endsWith(".json")) {
            return Optional.of(saved(Path.of(formatName)));
        }
        if (!Recogniser.kinds().contains(formatName)) {
            throw new Refusal("no format is called '" + formatName + "'; there are "
                    + String.join(", ", Recogniser.kinds()) + ", "
                    + String.join(", ", DELIMITERS) + ", and a format saved as .json");
        }
        return Recogniser.recognise(bytes, bytes.length, formatName);
    }

    private static StreamFormat saved(Path path) {
        try {
            return FormatJson.read(Files.readString(path), path.toString());
        } catch (IOException e) {
            throw new Refusal(e instanceof TakeException ? e.getMessage() : path + " cannot be read");
        }
    }

    private static char delimiter(String name) {
        return switch (name) {
            case "semicolon" -> ';';
            case "tab" -> '\t';
            case "blanks" -> ' ';
            default -> ',';
        };
    }

    private byte[] bytes() {
        try {
            byte[] bytes = Files.readAllBytes(file);
            if (bytes.length == 0) {
                throw new Refusal(file + " is empty");
            }
            return bytes;
        } catch (IOException e) {
            throw new Refusal(file + " cannot be read: is it a file, and there?");
        }
    }

    private static void printJson(StreamDecoder decoder, Rows rows) {
        ObjectNode root = Json.object();
        root.put("format", decoder.format().kind());
        root.put(
                "delimiter",
                decoder.format() instanceof DelimitedFormat delimited ? String.valueOf(delimited.delimiter()) : null);
        ArrayNode columns = root.putArray("columns");
        for (int c = 0; c < rows.columns().length; c++) {
            Column column = decoder.format().columns().get(c);
            ObjectNode node = columns.addObject();
            node.put("name", column.name());
            node.put("unit", column.unit());
            ArrayNode values = node.putArray("values");
            for (int row = 0; row < rows.count(); row++) {
                Json.add(values, rows.columns()[c][row]);
            }
        }
        root.put("lines", decoder.lines());
        root.put("rejected", decoder.setAside().count());
        ArrayNode rejects = root.putArray("rejects");
        for (SetAside.Item item : decoder.setAside().items()) {
            rejects.addObject()
                    .put("line", item.line())
                    .put("text", item.text())
                    .put("why", item.why());
        }
        Json.print(root);
    }

    private void printText(StreamDecoder decoder, Rows rows) {
        var out = spec.commandLine().getOut();
        StreamFormat format = decoder.format();
        out.println(format.words() + ", "
                + format.columns().size() + " columns: "
                + String.join(", ", format.columns().stream().map(Column::name).toList()));
        out.println(decoder.lines() + " lines, " + rows.count() + " rows, "
                + decoder.setAside().count() + " set aside");
        for (SetAside.Item item : decoder.setAside().items()) {
            out.println("  line " + item.line() + ": " + item.why() + ": " + item.text());
        }
        out.flush();
    }
}
