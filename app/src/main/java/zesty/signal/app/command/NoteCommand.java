package zesty.signal.app.command;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import zesty.signal.takes.LogEntry;
import zesty.signal.takes.Mark;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

@Command(name = "note", description = "Writes into the logbook of one take; its samples are never touched.")
final class NoteCommand implements Callable<Integer> {
    @Parameters(paramLabel = "FILE.zest")
    private Path file;

    @Option(names = "--title", paramLabel = "T", description = "what it is called from now on")
    private String title;

    @Option(names = "--note", paramLabel = "T", description = "a line more in its notes")
    private String note;

    @Option(names = "--tag", paramLabel = "T", description = "a tag to put on")
    private List<String> tags = new ArrayList<>();

    @Option(names = "--untag", paramLabel = "T", description = "a tag to take off")
    private List<String> untags = new ArrayList<>();

    @Option(names = "--mark", paramLabel = "SECONDS=T", description = "a mark, at seconds from the first sample")
    private List<String> marks = new ArrayList<>();

    @Override
    public Integer call() throws TakeException {
        List<Mark> moments = new ArrayList<>();
        for (String mark : marks) {
            int equals = mark.indexOf('=');
            if (equals < 1) {
                throw new Refusal("--mark is SECONDS=TEXT, for example 12.5=gust; was '" + mark + "'");
            }
            moments.add(new Mark(Inputs.number("--mark", mark.substring(0, equals)), mark.substring(equals + 1)));
        }
        try (Take take = InfoCommand.open(file)) {
            LogEntry entry = new LogEntry(title, note, tags, untags, moments);
            try {
                take.write(entry);
            } catch (TakeException e) {
                // What makes no sense has no cause below it; what the disk refuses has.
                if (e.getCause() != null || take.readOnly()) {
                    throw e;
                }
                throw new Refusal(e.getMessage());
            }
        }
        return Commands.DONE;
    }
}
