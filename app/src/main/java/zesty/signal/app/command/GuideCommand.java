package zesty.signal.app.command;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import zesty.signal.app.help.Guide;
import zesty.signal.app.help.HelpBook;
import zesty.signal.takes.DiskWords;
import zesty.signal.takes.NewFile;
import zesty.signal.takes.TakeException;

@Command(name = "guide", description = "Writes the user's guide as one page for a browser.")
final class GuideCommand implements Callable<Integer> {
    @Option(names = "--to", paramLabel = "OUT.html", required = true)
    private Path to;

    @Override
    public Integer call() throws TakeException {
        Inputs.writable(to);
        try (NewFile file = NewFile.begin(to, false)) {
            file.stream().write(Guide.page(new HelpBook()).getBytes(StandardCharsets.UTF_8));
            file.keep();
        } catch (TakeException e) {
            throw e;
        } catch (IOException e) {
            throw new TakeException(to + " cannot be written: " + DiskWords.of(e), e);
        }
        return Commands.DONE;
    }
}
