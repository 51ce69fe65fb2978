package zesty.signal.app.command;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import zesty.signal.core.plan.Budgets;
import zesty.signal.core.plan.Fault;
import zesty.signal.core.plan.Plan;
import zesty.signal.core.plan.RateBudget;
import zesty.signal.exchange.portable.PortableBoard;
import zesty.signal.exchange.portable.PortableException;
import zesty.signal.exchange.portable.SourceFiles;
import zesty.signal.takes.DiskWords;
import zesty.signal.takes.PlanJson;
import zesty.signal.takes.TakeException;

@Command(name = "plan", description = "The budgets of a setup that is not wired yet, and its board's code.")
final class PlanCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(paramLabel = "PLAN.json")
    private Path file;

    @Option(names = "--board", paramLabel = "DIR", description = "writes board.c and board.h into it")
    private Path board;

    @Option(names = "--json")
    private boolean json;

    @Override
    public Integer call() throws TakeException {
        Plan plan = plan();
        Budgets budgets = Budgets.of(plan);
        if (board != null) {
            try {
                SourceFiles.write(board, PortableBoard.files(plan));
            } catch (PortableException e) {
                throw new Refusal(file + ": " + e.getMessage());
            }
        }
        ObjectNode out = json(budgets);
        if (json) {
            Json.print(out);
        } else {
            print(out);
        }
        return Commands.DONE;
    }

    private Plan plan() {
        try {
            return PlanJson.read(Files.readString(file), file.toString());
        } catch (TakeException e) {
            throw new Refusal(e.getMessage());
        } catch (IOException e) {
            throw new Refusal(file + (Files.exists(file) ? " cannot be read" : DiskWords.absent(file)));
        }
    }

    private static ObjectNode json(Budgets budgets) {
        ObjectNode out = Json.object();
        if (budgets.line() != null) {
            ObjectNode node = out.putObject("line");
            Json.put(node, "bytes_per_s", budgets.line().bytesPerSecond());
            Json.put(node, "share", budgets.line().share());
            node.put("fits", budgets.line().fits());
            Json.put(node, "highest_rate_hz", budgets.line().highestRateHz());
        }
        if (budgets.rate() != null) {
            ObjectNode node = out.putObject("rate");
            Json.put(node, "nyquist_hz", budgets.rate().nyquistHz());
            node.put("enough", budgets.rate().enough());
            ArrayNode tones = node.putArray("tones");
            for (RateBudget.Tone tone : budgets.rate().tones()) {
                ObjectNode one = tones.addObject();
                Json.put(one, "hz", tone.hz());
                Json.put(one, "seen_hz", tone.seenHz());
            }
        }
        if (budgets.converter() != null) {
            ObjectNode node = out.putObject("converter");
            Json.put(node, "step_v", budgets.converter().stepVolts());
            Json.put(node, "noise_v", budgets.converter().noiseVolts());
            Json.put(node, "effective_bits", budgets.converter().effectiveBits());
        }
        if (budgets.recipe() != null) {
            Json.put(out.putObject("recipe"), "delay_s", budgets.recipe().seconds());
        }
        if (budgets.memory() != null) {
            ObjectNode node = out.putObject("memory");
            node.put("rows", budgets.memory().rows());
            Json.put(node, "seconds", budgets.memory().seconds());
        }
        if (budgets.bytesPerDay() == budgets.bytesPerDay()) {
            Json.put(out.putObject("disk"), "bytes_per_day", budgets.bytesPerDay());
        }
        if (budgets.battery() != null) {
            ObjectNode node = out.putObject("battery");
            Json.put(node, "mean_ma", budgets.battery().meanMilliamps());
            Json.put(node, "hours", budgets.battery().hours());
        }
        electric(budgets, out);
        ArrayNode wrong = out.putArray("wrong");
        for (Fault fault : budgets.wrong()) {
            wrong.addObject().put("part", fault.part()).put("why", fault.why()).put("mend", fault.mend());
        }
        return out;
    }

    private static void electric(Budgets budgets, ObjectNode out) {
        if (budgets.divider() != null) {
            ObjectNode node = out.putObject("divider");
            Json.put(node, "at_max_v", budgets.divider().atMaxVolts());
            node.put("over", budgets.divider().over());
            Json.put(node, "current_a", budgets.divider().amps());
            Json.put(node, "worst_error", budgets.divider().worstError());
        }
        if (budgets.shunt() != null) {
            ObjectNode node = out.putObject("shunt");
            Json.put(node, "drop_v", budgets.shunt().dropVolts());
            Json.put(node, "watts", budgets.shunt().watts());
            Json.put(node, "step_a", budgets.shunt().stepAmps());
        }
        if (budgets.bridge() != null) {
            ObjectNode node = out.putObject("bridge");
            Json.put(node, "full_scale_v", budgets.bridge().fullScaleVolts());
            Json.put(node, "step", budgets.bridge().step());
        }
    }

    private void print(ObjectNode out) {
        var to = spec.commandLine().getOut();
        out.properties().forEach(part -> {
            if (part.getValue().isObject()) {
                part.getValue()
                        .properties()
                        .forEach(one -> to.println(
                                Commands.plain(part.getKey() + "  " + one.getKey() + ": " + one.getValue())));
            }
        });
        out.path("wrong")
                .forEach(one -> to.println(Commands.plain(one.path("part").asText() + ": "
                        + one.path("why").asText() + "; " + one.path("mend").asText())));
        to.flush();
    }
}
