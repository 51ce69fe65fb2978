package zesty.signal.app.command;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import zesty.signal.app.report.ReportFile;
import zesty.signal.engine.TakeReport;
import zesty.signal.exchange.report.Report;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

@Command(name = "report", description = "Writes a page about takes, to print or to look at in a browser.")
final class ReportCommand implements Callable<Integer> {
    @Parameters(paramLabel = "TAKE", arity = "1..*")
    private List<Path> takes = new ArrayList<>();

    @Option(names = "--to", paramLabel = "OUT.(pdf|html)", required = true)
    private Path to;

    @Override
    public Integer call() throws TakeException {
        String name = String.valueOf(to.getFileName()).toLowerCase(Locale.ROOT);
        if (!name.endsWith(".pdf") && !name.endsWith(".html")) {
            throw new Refusal("--to " + to + ": a report is a file that ends in .pdf or .html");
        }
        List<String> damaged = new ArrayList<>();
        for (Path take : takes) {
            Inputs.writable(to, take);
            try (Take open = InfoCommand.open(take)) {
                open.verify();
                if (!open.damage().isEmpty()) {
                    damaged.add(take + " is damaged: " + Inputs.damage(open.damage()));
                }
            }
        }
        Report report;
        try {
            report = TakeReport.of(takes, Instant.now());
        } catch (TakeException e) {
            throw new Refusal(e.getMessage());
        }
        try {
            ReportFile.write(report, to, false);
        } catch (TakeException e) {
            throw e;
        } catch (IOException e) {
            throw new TakeException(to + " cannot be written: " + zesty.signal.takes.DiskWords.of(e), e);
        }
        if (!damaged.isEmpty()) {
            throw new TakeException(to + " was written, but " + String.join("; ", damaged));
        }
        return Commands.DONE;
    }
}
