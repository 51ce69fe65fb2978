package zesty.signal.app.command;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import zesty.signal.core.decode.Column;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.SampleRate;
import zesty.signal.core.scale.Digits;
import zesty.signal.takes.Mark;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

@Command(name = "info", description = "Tells what a take holds.")
final class InfoCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(paramLabel = "FILE.zest")
    private Path file;

    @Option(names = "--json")
    private boolean json;

    static Take open(Path file) {
        try {
            return Take.open(file);
        } catch (TakeException e) {
            throw new Refusal(e.getMessage());
        }
    }

    @Override
    public Integer call() throws TakeException {
        try (Take take = open(file)) {
            double[] rates = new double[take.sources()];
            for (int s = 0; s < rates.length; s++) {
                rates[s] = take.rows(s) > 1 ? SampleRate.of(take.times(s)) : Double.NaN;
            }
            if (json) {
                printJson(take, rates);
            } else {
                printText(take, rates);
            }
        }
        return Commands.DONE;
    }

    private static List<Gap> gaps(Take take) throws TakeException {
        List<Gap> gaps = new ArrayList<>();
        for (int s = 0; s < take.sources(); s++) {
            gaps.addAll(take.gaps(s));
        }
        return gaps;
    }

    private static void printJson(Take take, double[] rates) throws TakeException {
        ObjectNode root = Json.object();
        root.put("title", take.title());
        root.put("started", take.started().toString());
        root.put("rows", take.rows());
        Json.put(root, "seconds", take.seconds());
        ArrayNode channels = root.putArray("channels");
        for (int c = 0; c < take.columns().size(); c++) {
            Column column = take.columns().get(c);
            ObjectNode node = channels.addObject();
            node.put("name", column.name());
            node.put("unit", column.unit());
            Json.put(node, "rate_hz", rates[take.sourceOf(c)]);
        }
        ArrayNode gaps = root.putArray("gaps");
        for (Gap gap : gaps(take)) {
            ObjectNode node = gaps.addObject();
            Json.put(node, "start_s", gap.startSeconds());
            Json.put(node, "end_s", gap.endSeconds());
            node.put("missing", gap.missing());
        }
        ArrayNode marks = root.putArray("marks");
        for (Mark mark : take.marks()) {
            ObjectNode node = marks.addObject();
            Json.put(node, "t_s", mark.seconds());
            node.put("text", mark.text());
        }
        root.put("notes", take.notes());
        root.put("mended", take.mended());
        Json.print(root);
    }

    private void printText(Take take, double[] rates) throws TakeException {
        PrintWriter out = spec.commandLine().getOut();
        out.println(take.title() + ", begun " + take.started());
        out.println(take.rows() + " rows, " + Digits.fixed(take.seconds(), 3) + " s, "
                + Arrays.stream(rates).mapToObj(Digits::of).collect(Collectors.joining(" and ")) + " rows/s");
        for (Column column : take.columns()) {
            out.println("  " + column.name() + (column.unit().isEmpty() ? "" : " [" + column.unit() + "]"));
        }
        List<Gap> gaps = gaps(take);
        out.println(gaps.size() + (gaps.size() == 1 ? " gap" : " gaps"));
        for (Gap gap : gaps) {
            out.println("  " + Digits.fixed(gap.startSeconds(), 3) + " s, " + Digits.fixed(gap.seconds(), 3)
                    + " s long, " + gap.missing() + " missing");
        }
        List<Mark> marks = take.marks();
        out.println(marks.size() + (marks.size() == 1 ? " mark" : " marks"));
        for (Mark mark : marks) {
            out.println("  " + Digits.fixed(mark.seconds(), 3) + " s  " + mark.text());
        }
        if (!take.notes().isEmpty()) {
            out.println("notes: " + take.notes());
        }
        if (!take.mended().isEmpty()) {
            out.println(take.mended());
        }
        out.flush();
    }
}
