package zesty.signal.app.command;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import zesty.signal.core.act.Controller;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.RuleBook;
import zesty.signal.core.act.Watch;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.sample.SampleRate;
import zesty.signal.core.scale.Digits;
import zesty.signal.engine.RuleReplay;
import zesty.signal.engine.TakeChannels;
import zesty.signal.takes.DiskWords;
import zesty.signal.takes.RulesJson;
import zesty.signal.takes.Table;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

@Command(name = "decide", description = "Replays the decisions of Act over a file.")
final class DecideCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(paramLabel = "FILE")
    private Path file;

    @Option(names = "--rules", paramLabel = "RULES.json", required = true)
    private Path rules;

    @Option(names = "--rate", paramLabel = "HZ")
    private String rate;

    @Option(names = "--raw", description = "of a take: the raw columns, not scaled and cleaned")
    private boolean raw;

    @Option(names = "--json")
    private boolean json;

    private double[] seconds;
    private double rateHz;
    private final Map<String, double[]> columns = new HashMap<>();
    private List<String> damage = List.of();

    @Override
    public Integer call() throws TakeException {
        RuleBook book = book();
        load(book);
        ObjectNode out = Json.object();
        ArrayNode decisions = out.putArray("decisions");
        ArrayNode sent = out.putArray("sent");
        Controller done;
        try {
            done = RuleReplay.run(book, columns::get, seconds, rateHz, new Controller.Listener() {
                @Override
                public void decided(double at, int rule, int state, double value) {
                    ObjectNode node = decisions.addObject();
                    node.put("t_s", rounded(at));
                    node.put("rule", book.rules().get(rule).name());
                    if (book.rules().get(rule) instanceof Rule.InBands) {
                        node.put("state", state);
                    } else {
                        node.put("state", state == 1);
                    }
                }

                @Override
                public void sent(double at, int output, String line, Controller.Why why) {
                    ObjectNode node = sent.addObject();
                    node.put("t_s", rounded(at));
                    node.put("output", book.outputs().get(output).name());
                    node.put("line", line);
                    node.put("why", why.name().toLowerCase(Locale.ROOT));
                }
            });
        } catch (ReaderException e) {
            throw new Refusal(file + ": " + e.getMessage());
        }
        sums(book, done, out);
        if (json) {
            Json.print(out);
        } else {
            print(out);
        }
        Inputs.complain(file, damage);
        return Commands.DONE;
    }

    /** Sums of times carry their rounding: a billionth of a second is none. */
    private static double rounded(double at) {
        double tidy = Math.rint(at * 1e9) / 1e9;
        return Math.abs(at) < 1e6 ? tidy : at;
    }

    private RuleBook book() {
        try {
            return RulesJson.read(Files.readString(rules), rules.toString());
        } catch (TakeException e) {
            throw new Refusal(e.getMessage());
        } catch (IOException e) {
            throw new Refusal(rules + (Files.exists(rules) ? " cannot be read" : DiskWords.absent(rules)));
        }
    }

    private static String column(Watch watch) {
        return watch instanceof Watch.Column column ? column.name() : ((Watch.Number) watch).column();
    }

    private void load(RuleBook book) throws TakeException {
        List<String> wanted =
                book.watches().stream().map(DecideCommand::column).distinct().toList();
        boolean take = String.valueOf(file.getFileName()).endsWith(".zest");
        try {
            if (take && !raw && rate == null) {
                try (Take open = Inputs.take(file)) {
                    TakeChannels channels = TakeChannels.of(open, wanted);
                    wanted.forEach(name -> columns.put(name, channels.values(name)));
                    seconds = channels.seconds();
                    damage = open.damage();
                }
            } else {
                Table table = Inputs.table(file, wanted.isEmpty() ? "" : wanted.get(0));
                for (String name : wanted) {
                    columns.put(name, table.columnWithHoles(name));
                }
                damage = table.damage();
                seconds = times(table);
            }
        } catch (TakeException e) {
            throw new Refusal(e.getMessage());
        }
        double first = seconds[0];
        for (int i = 0; i < seconds.length; i++) {
            seconds[i] -= first;
        }
        rateHz = rate == null ? SampleRate.of(seconds) : Inputs.rate(rate);
        if (Double.isNaN(rateHz)) {
            throw new Refusal(file + ": no time passes in its t column; seconds that rise are needed");
        }
    }

    private double[] times(Table table) throws TakeException {
        if (rate == null) {
            return table.times()
                    .orElseThrow(() ->
                            new Refusal(file + " has no t column to take the times from; give the rate with --rate HZ"))
                    .clone();
        }
        double hz = Inputs.rate(rate);
        double[] times = new double[table.rows()];
        for (int i = 0; i < times.length; i++) {
            times[i] = i / hz;
        }
        return times;
    }

    private void sums(RuleBook book, Controller done, ObjectNode out) {
        ObjectNode on = out.putObject("time_on");
        ObjectNode turns = out.putObject("turns");
        ArrayNode left = out.putArray("left_on");
        double end = seconds[seconds.length - 1];
        for (int r = 0; r < book.rules().size(); r++) {
            Rule rule = book.rules().get(r);
            double[] held = done.held(r, end);
            if (rule instanceof Rule.InBands) {
                ArrayNode each = on.putArray(rule.name());
                for (double one : held) {
                    each.add(rounded(one));
                }
            } else {
                on.put(rule.name(), rounded(held[1]));
                if (done.state(r) == 1) {
                    left.add(rule.name());
                }
            }
            turns.put(rule.name(), done.turns(r));
        }
    }

    private void print(ObjectNode out) {
        var to = spec.commandLine().getOut();
        out.path("decisions")
                .forEach(one ->
                        to.println(Commands.plain(Digits.fixed(one.path("t_s").asDouble(), 3) + " s  "
                                + one.path("rule").asText() + "  "
                                + (one.path("state").isBoolean()
                                        ? one.path("state").asBoolean() ? "on" : "off"
                                        : "band " + one.path("state").asInt()))));
        out.path("sent")
                .forEach(one -> to.println(Commands.plain(Digits.fixed(
                                one.path("t_s").asDouble(), 3) + " s  "
                        + one.path("output").asText() + "  sends "
                        + one.path("line").asText() + " (" + one.path("why").asText() + ")")));
        out.path("turns")
                .properties()
                .forEach(one -> to.println(
                        Commands.plain(one.getKey() + ": " + one.getValue().asInt() + " turns")));
        to.flush();
    }
}
