package zesty.signal.app.command;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import zesty.signal.core.read.Port;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.read.Setting;
import zesty.signal.core.read.kinds.ReaderKinds;

@Command(name = "readers", description = "Lists the extractors with their columns, settings and keys.")
final class ReadersCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(index = "0", paramLabel = "KIND", arity = "0..1")
    private String kind;

    @Option(names = "--json")
    private boolean json;

    @Override
    public Integer call() {
        List<ReaderKind> kinds;
        try {
            kinds = kind == null ? ReaderKinds.all() : List.of(ReaderKinds.of(kind));
        } catch (ReaderException e) {
            throw new Refusal(e.getMessage());
        }
        if (json) {
            ObjectNode root = Json.object();
            kinds.forEach(one -> describe(root.withArray("readers").addObject(), one));
            Json.print(root);
        } else {
            kinds.forEach(this::print);
            spec.commandLine().getOut().flush();
        }
        return Commands.DONE;
    }

    private static void describe(ObjectNode node, ReaderKind kind) {
        node.put("name", kind.name()).put("words", kind.words()).put("on_body", kind.onBody());
        node.put("fewest_columns", kind.fewestPorts());
        for (Port port : kind.ports()) {
            node.withArray("columns")
                    .addObject()
                    .put("key", port.key())
                    .put("unit", port.unit())
                    .put("words", port.words());
        }
        node.putArray("settings");
        for (Setting setting : kind.settings()) {
            node.withArray("settings")
                    .addObject()
                    .put("key", setting.key())
                    .put("usual", setting.usual())
                    .put("takes", setting.allowed())
                    .put("unit", setting.unit())
                    .put("words", setting.words())
                    .put("tip", setting.tip());
        }
        for (ScalarInfo scalar : kind.scalars()) {
            node.withArray("keys")
                    .addObject()
                    .put("key", scalar.key())
                    .put("unit", scalar.unit("the column's"))
                    .put("words", scalar.words())
                    .put("tip", scalar.tip());
        }
        for (String key : kind.otherKeys()) {
            node.withArray("keys").addObject().put("key", key);
        }
    }

    private void print(ReaderKind kind) {
        var out = spec.commandLine().getOut();
        out.println(kind.name() + ": " + kind.words());
        for (Port port : kind.ports()) {
            out.println("  column   " + port.key() + (port.unit().isEmpty() ? "" : " [" + port.unit() + "]") + "  "
                    + port.words());
        }
        for (Setting setting : kind.settings()) {
            out.println("  setting  " + setting.key() + "=" + (setting.usual().isEmpty() ? "(none)" : setting.usual())
                    + "  " + setting.words() + ": " + setting.allowed());
        }
        for (ScalarInfo scalar : kind.scalars()) {
            String unit = scalar.unit("the column's unit");
            out.println("  key      " + scalar.key() + (unit.isEmpty() ? "" : " [" + unit + "]") + "  " + scalar.tip());
        }
        out.println("  also     " + String.join(", ", kind.otherKeys()) + ", quality");
    }
}
