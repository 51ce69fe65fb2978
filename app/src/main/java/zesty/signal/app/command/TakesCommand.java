package zesty.signal.app.command;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import zesty.signal.app.window.workspace.Places;
import zesty.signal.core.scale.Digits;
import zesty.signal.takes.DiskWords;
import zesty.signal.takes.Mark;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

@Command(name = "takes", description = "Lists the takes of a folder, newest first.")
final class TakesCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(arity = "0..1", paramLabel = "FOLDER", description = "the window's own takes unless given")
    private Path folder;

    @Option(names = "--search", paramLabel = "WORDS", description = "each of them in title, notes, tags or marks")
    private String search = "";

    @Option(names = "--tag", paramLabel = "T", description = "only those with the tag")
    private String tag;

    @Option(names = "--json")
    private boolean json;

    private record Found(Instant started, ObjectNode node, String text) {}

    @Override
    public Integer call() throws IOException {
        Path where = folder == null ? Places.usual().takes() : folder;
        if (folder != null && !Files.isDirectory(where)) {
            throw new Refusal(where + DiskWords.absent(where) + "; a folder of takes is needed");
        }
        List<Found> found = new ArrayList<>();
        for (Path file : takes(where)) {
            try (Take take = Take.open(file)) {
                if ((tag == null || take.tags().contains(tag)) && matches(take)) {
                    found.add(found(take));
                }
            } catch (TakeException e) {
                // One that does not open hides no other.
                spec.commandLine().getErr().println("zesty: " + Commands.plain(e.getMessage()));
            }
        }
        spec.commandLine().getErr().flush();
        found.sort(Comparator.comparing(Found::started).reversed());
        if (json) {
            ArrayNode list = Json.list();
            found.forEach(one -> list.add(one.node()));
            Json.print(list);
        } else {
            found.forEach(one -> spec.commandLine().getOut().println(Commands.plain(one.text())));
            spec.commandLine().getOut().flush();
        }
        return Commands.DONE;
    }

    private static List<Path> takes(Path where) throws IOException {
        if (!Files.isDirectory(where)) {
            return List.of();
        }
        try (Stream<Path> files = Files.list(where)) {
            return files.filter(file -> file.getFileName().toString().endsWith(".zest"))
                    .sorted()
                    .toList();
        }
    }

    private boolean matches(Take take) {
        String all = Stream.concat(
                        Stream.of(take.title(), take.notes(), String.join("\n", take.tags())),
                        take.marks().stream().map(Mark::text))
                .collect(Collectors.joining("\n"))
                .toLowerCase(Locale.ROOT);
        return Stream.of(search.toLowerCase(Locale.ROOT).split("\\s+")).allMatch(all::contains);
    }

    private static Found found(Take take) {
        String rig = take.rigOrPlain().name();
        ObjectNode node = Json.object();
        node.put("file", take.file().toString());
        node.put("title", take.title());
        node.put("started", take.started().toString());
        Json.put(node, "seconds", take.seconds());
        node.put("rows", take.rows());
        node.put("rig", rig);
        take.tags().forEach(node.putArray("tags")::add);
        InfoCommand.putMarks(node, take);
        node.put("notes", take.notes());
        String text = take.started() + "  " + take.title() + ", " + Digits.fixed(take.seconds(), 1) + " s, " + rig
                + (take.tags().isEmpty() ? "" : ", " + String.join(", ", take.tags())) + "  " + take.file();
        return new Found(take.started(), node, text);
    }
}
