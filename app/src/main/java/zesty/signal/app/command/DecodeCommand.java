package zesty.signal.app.command;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
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
import zesty.signal.core.decode.RejectedLines;
import zesty.signal.core.decode.StreamDecoder;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.decode.TextForm;
import zesty.signal.takes.DiskWords;
import zesty.signal.takes.FormatJson;
import zesty.signal.takes.TakeException;

@Command(name = "decode", description = "Decodes a raw byte capture.")
final class DecodeCommand implements Callable<Integer> {
    private static final List<String> DELIMITERS = List.of("comma", "semicolon", "tab", "blanks");
    /** Lines of one piece that may be set aside: each is two bytes long at least. */
    private static final int KEPT = 1 << 18;

    private static final int PIECE = 1 << 16;
    /** So many lines that were set aside are shown to a person. */
    private static final int SHOWN = 1000;

    @Spec
    private CommandSpec spec;

    @Parameters(paramLabel = "FILE")
    private Path file;

    @Option(names = "--format", paramLabel = "FORMAT")
    private String formatName;

    @Option(names = "--json")
    private boolean json;

    @Override
    public Integer call() throws TakeException {
        try (InputStream in = Files.newInputStream(file)) {
            byte[] head = in.readNBytes(Recogniser.LOOK);
            if (head.length == 0) {
                throw new Refusal(file + " is empty");
            }
            TextForm form = TextForm.of(head, head.length);
            byte[] first = form.plain(head, head.length);
            StreamFormat format = format(first)
                    .orElseThrow(() -> new Refusal(file + ": no format was recognised"
                            + (formatName == null ? "" : " as " + formatName)
                            + "; lines with numbers or packets of one length are needed"));
            StreamDecoder decoder = format.decoder(new RejectedLines(KEPT));
            decoder.restart(format instanceof DelimitedFormat delimited
                    && DelimitedFinder.startsMidLine(first, first.length, delimited));
            try (DecodedSpool spool = new DecodedSpool(decoder, json ? Integer.MAX_VALUE : SHOWN)) {
                spool.feed(first);
                byte[] more = in.readNBytes(PIECE);
                while (more.length > 0) {
                    spool.feed(form.plain(more, more.length));
                    more = in.readNBytes(PIECE);
                }
                if (json) {
                    spool.print();
                } else {
                    printText(decoder, spool, form.legend());
                }
            }
            return Commands.DONE;
        } catch (NoSuchFileException e) {
            throw new Refusal(file + " is not there");
        } catch (IOException e) {
            if (e instanceof TakeException said) {
                throw said;
            }
            if (Files.isDirectory(file)) {
                throw new Refusal(file + " is a folder; a file of bytes is needed");
            }
            throw new TakeException(file + " cannot be decoded: " + DiskWords.of(e), e);
        }
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

    private void printText(StreamDecoder decoder, DecodedSpool spool, String legend) {
        var out = spec.commandLine().getOut();
        StreamFormat format = decoder.format();
        out.println(format.words() + ", "
                + format.columns().size() + " columns: "
                + String.join(", ", format.columns().stream().map(Column::name).toList()));
        long aside = decoder.rejectedLines().count();
        out.println(decoder.lines() + " lines, " + spool.rows() + " rows, " + aside + " rejected");
        if (!legend.isEmpty()) {
            out.println("words as numbers: " + legend);
        }
        for (RejectedLines.Item item : spool.shown()) {
            out.println("  line " + item.line() + ": " + item.why() + ": " + item.text());
        }
        if (aside > spool.shown().size()) {
            out.println("  and " + (aside - spool.shown().size()) + " more");
        }
        out.flush();
    }
}
