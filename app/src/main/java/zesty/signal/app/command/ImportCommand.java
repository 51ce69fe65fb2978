package zesty.signal.app.command;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import zesty.signal.exchange.foreign.DumpFile;
import zesty.signal.exchange.foreign.ForeignFile;
import zesty.signal.exchange.foreign.TableFile;
import zesty.signal.exchange.foreign.TakeImport;
import zesty.signal.takes.DiskWords;
import zesty.signal.takes.TakeException;

@Command(name = "import", description = "Makes a take of an open format, or of what a board kept.")
final class ImportCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(paramLabel = "FILE")
    private Path file;

    @Option(names = "--out", paramLabel = "FILE.zest", required = true)
    private Path out;

    @Option(names = "--rate", paramLabel = "HZ", description = "rows a second, whatever the file says")
    private String rate;

    @Option(names = "--time", paramLabel = "COLUMN", description = "the column that tells the time")
    private String time;

    @Option(
            names = "--layout",
            paramLabel = "rows|blocks|interleaved",
            description = "what a board kept: how its numbers follow each other")
    private String layout;

    @Option(names = "--columns", paramLabel = "A,B,…", split = ",", description = "of a dump")
    private List<String> columns = new ArrayList<>();

    @Option(names = "--period", paramLabel = "SECONDS", description = "of a dump: from row to row")
    private String period;

    @Option(names = "--start", paramLabel = "ISO-TIME", description = "when it began")
    private String start;

    @Override
    public Integer call() throws TakeException {
        if (!String.valueOf(out.getFileName()).endsWith(".zest")) {
            throw new Refusal("--out " + out + " must end in .zest");
        }
        if (Files.exists(out)) {
            throw new Refusal(out + " is there already; choose another name");
        }
        Inputs.writable(out, file);
        if (!Files.isRegularFile(file)) {
            throw new Refusal(file + (Files.exists(file) ? " is no file" : DiskWords.absent(file)));
        }
        double rateHz = rateHz();
        Instant given = start == null ? null : moment(start);
        try (ForeignFile view = open(rateHz > 0)) {
            List<String> said = view.remarks();
            said.forEach(words -> Inputs.hint(file + ": " + words));
            if (!view.timed() && !(rateHz > 0)) {
                throw new Refusal(file + " does not tell when its rows were taken; give "
                        + (layout == null ? "--rate HZ or --time COLUMN" : "--period SECONDS or --rate HZ"));
            }
            Instant started = given != null ? given : view.started().orElse(modified());
            String name = out.getFileName().toString();
            String title = name.substring(0, name.length() - ".zest".length());
            long rows = TakeImport.write(view, out, title, file.toString(), started, rateHz);
            spec.commandLine().getOut().println(out + ": " + rows + (rows == 1 ? " row" : " rows"));
            spec.commandLine().getOut().flush();
            // What is left out is known only now.
            view.remarks().stream()
                    .filter(words -> !said.contains(words))
                    .forEach(words -> Inputs.hint(file + ": " + words));
        } catch (TakeException e) {
            if (e.getMessage().startsWith(out.toString())) {
                throw e;
            }
            throw new Refusal(e.getMessage());
        } catch (IOException e) {
            throw new TakeException(file + " cannot be read: " + DiskWords.of(e), e);
        }
        return Commands.DONE;
    }

    private ForeignFile open(boolean byRate) throws TakeException {
        if (layout == null && (!columns.isEmpty() || period != null)) {
            throw new Refusal((period == null ? "--columns" : "--period")
                    + " is about what a board kept: give --layout rows, blocks or interleaved too");
        }
        if (layout != null) {
            if (time != null) {
                throw new Refusal("--time is about tables, --layout about what a board kept; give one of them");
            }
            DumpFile.Layout how;
            try {
                how = DumpFile.Layout.valueOf(layout.toUpperCase(Locale.ROOT));
            } catch (IllegalArgumentException e) {
                throw new Refusal("--layout is rows, blocks or interleaved, was '" + layout + "'");
            }
            return new DumpFile(file, how, columns.stream().map(String::strip).toList());
        }
        if (ForeignFile.knows(file)) {
            if (time != null) {
                throw new Refusal("--time is about tables; " + file + " is none");
            }
            return ForeignFile.open(file);
        }
        if (file.toString().endsWith(".zest")) {
            throw new Refusal(file + " is a take already");
        }
        return new TableFile(file, time == null ? "" : time, byRate);
    }

    private double rateHz() {
        if (rate != null && period != null) {
            throw new Refusal("--rate and --period say the same; give one of them");
        }
        if (period != null) {
            double seconds = Inputs.duration(period);
            return 1 / seconds;
        }
        return rate == null ? Double.NaN : Inputs.rate(rate);
    }

    private Instant modified() {
        try {
            return Files.getLastModifiedTime(file).toInstant();
        } catch (IOException e) {
            return Instant.now();
        }
    }

    private static Instant moment(String text) {
        try {
            return OffsetDateTime.parse(text).toInstant();
        } catch (DateTimeException e) {
            try {
                return LocalDateTime.parse(text).atZone(ZoneId.systemDefault()).toInstant();
            } catch (DateTimeException e2) {
                throw new Refusal(
                        "--start is a moment such as 2026-05-01T14:30:00 or 2026-05-01T14:30:00Z, was '" + text + "'");
            }
        }
    }
}
