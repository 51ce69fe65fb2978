package zesty.signal.app.command;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import zesty.signal.app.help.Guide;
import zesty.signal.app.help.HelpBook;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.DiskWords;
import zesty.signal.takes.NewFile;
import zesty.signal.takes.TakeException;

@Command(name = "guide", description = "Writes the user's guide as one page for a browser.")
final class GuideCommand implements Callable<Integer> {
    @Option(names = "--to", paramLabel = "OUT.html", required = true)
    private Path to;

    @Option(names = "--language", paramLabel = "CODE", description = "de for German; English without it")
    private String language = "en";

    @Override
    public Integer call() throws TakeException {
        Locale wanted = Locale.forLanguageTag(language);
        if (!Messages.LANGUAGES.contains(wanted)) {
            throw new Refusal("there is no guide in '" + language + "'; there is one in en and in de");
        }
        Inputs.writable(to);
        Messages.speak(wanted);
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
