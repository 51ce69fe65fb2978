package zesty.signal.app.command;

import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import zesty.signal.takes.CsvExport;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

@Command(name = "export", description = "Writes a take in an open format.")
final class ExportCommand implements Callable<Integer> {
    @Parameters(paramLabel = "FILE.zest")
    private Path file;

    @Option(names = "--to", paramLabel = "OUT.csv", required = true)
    private Path to;

    @Override
    public Integer call() throws TakeException {
        if (!to.getFileName().toString().endsWith(".csv")) {
            throw new Refusal("--to " + to + ": a take is exported to a file that ends in .csv");
        }
        Inputs.writable(to, file);
        try (Take take = InfoCommand.open(file)) {
            CsvExport.write(take, to, false, share -> true);
            if (!take.damage().isEmpty()) {
                throw new TakeException(
                        to + " was written, but " + file + " is damaged: " + Inputs.damage(take.damage()));
            }
        }
        return Commands.DONE;
    }
}
