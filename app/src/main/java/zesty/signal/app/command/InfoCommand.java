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
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.SampleRate;
import zesty.signal.core.scale.Digits;
import zesty.signal.takes.Mark;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

@Command(name = "info", description = "Tells what a take holds.")
final class InfoCommand implements Callable<Integer> {
    private static final int ENOUGH_ROWS = 1 << 20;

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
                rates[s] = rate(take, s);
            }
            take.verify();
            if (json) {
                printJson(take, rates);
            } else {
                printText(take, rates);
            }
        }
        return Commands.DONE;
    }

    /** From as many rows as tell it well: a long take is not to be held in memory for that. */
    private static double rate(Take take, int source) {
        double[] times = {};
        for (int piece = 0; piece < take.pieces(source) && times.length < ENOUGH_ROWS; piece++) {
            double[] more = take.times(source, piece);
            int before = times.length;
            times = Arrays.copyOf(times, before + more.length);
            System.arraycopy(more, 0, times, before, more.length);
        }
        if (times.length < 2) {
            return Double.NaN;
        }
        StreamFormat format = take.rigOrPlain().sources().get(source).format();
        // Messages of many topics come each in its own time: how many a second is all there is to say.
        return format != null && format.ofTopics()
                ? (times.length - 1) / (times[times.length - 1] - times[0])
                : SampleRate.of(times);
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
            node.put("samples", take.rows(take.sourceOf(c)));
            Json.put(node, "rate_hz", rates[take.sourceOf(c)]);
        }
        for (int source = 0; source < take.sources(); source++) {
            int[] size = take.frameSize(source);
            if (size != null && !take.pixelsAreColumns(source)) {
                ObjectNode node = channels.addObject();
                node.put("name", PictureExtract.NAME)
                        .put(
                                "unit",
                                take.columns().get(take.firstColumn(source)).unit());
                node.put("samples", take.rows(source));
                Json.put(node, "rate_hz", rates[source]);
                node.put("width", size[0]).put("height", size[1]);
            }
        }
        ArrayNode gaps = root.putArray("gaps");
        for (Gap gap : gaps(take)) {
            ObjectNode node = gaps.addObject();
            Json.put(node, "start_s", gap.startSeconds());
            Json.put(node, "end_s", gap.endSeconds());
            node.put("missing", gap.missing());
        }
        putMarks(root, take);
        root.put("notes", take.notes());
        take.tags().forEach(root.putArray("tags")::add);
        root.put("mended", take.mended());
        ArrayNode damage = root.putArray("damage");
        take.damage().forEach(damage::add);
        Json.print(root);
    }

    static void putMarks(ObjectNode root, Take take) {
        ArrayNode marks = root.putArray("marks");
        for (Mark mark : take.marks()) {
            ObjectNode node = marks.addObject();
            Json.put(node, "t_s", mark.seconds());
            if (mark.isSpan()) {
                Json.put(node, "until_s", mark.untilSeconds());
            }
            node.put("text", mark.text());
        }
    }

    private void printText(Take take, double[] rates) throws TakeException {
        PrintWriter out = spec.commandLine().getOut();
        out.println(Commands.plain(take.title()) + ", begun " + take.started());
        out.println(take.rows() + " rows, " + Digits.fixed(take.seconds(), 3) + " s, "
                + Arrays.stream(rates).mapToObj(Digits::of).collect(Collectors.joining(" and ")) + " rows/s");
        for (Column column : take.columns()) {
            out.println(
                    Commands.plain("  " + column.name() + (column.unit().isEmpty() ? "" : " [" + column.unit() + "]")));
        }
        for (int source = 0; source < take.sources(); source++) {
            int[] size = take.frameSize(source);
            if (size != null) {
                out.println("  " + PictureExtract.NAME + ", " + size[0] + " × " + size[1] + " pixels");
            }
        }
        List<Gap> gaps = gaps(take);
        out.println(gaps.size() + (gaps.size() == 1 ? " gap" : " gaps"));
        for (Gap gap : gaps) {
            out.println("  " + Digits.fixed(gap.startSeconds(), 3) + " s, " + Digits.fixed(gap.seconds(), 3)
                    + " s long, " + (gap.missing() > 0 ? gap.missing() : "none known to be") + " missing");
        }
        List<Mark> marks = take.marks();
        out.println(marks.size() + (marks.size() == 1 ? " mark" : " marks"));
        for (Mark mark : marks) {
            out.println("  " + Digits.fixed(mark.seconds(), 3)
                    + (mark.isSpan() ? " to " + Digits.fixed(mark.untilSeconds(), 3) : "") + " s  "
                    + Commands.plain(mark.text()));
        }
        if (!take.notes().isEmpty()) {
            out.println("notes: " + Commands.plain(take.notes()));
        }
        if (!take.tags().isEmpty()) {
            out.println("tags: " + Commands.plain(String.join(", ", take.tags())));
        }
        if (!take.mended().isEmpty()) {
            out.println(Commands.plain(take.mended()));
        }
        for (String words : take.damage()) {
            out.println(Commands.plain("damaged: " + words));
        }
        if (take.readOnly()) {
            out.println("opened to be read only: nothing can be written where it lies");
        }
        out.flush();
    }
}
