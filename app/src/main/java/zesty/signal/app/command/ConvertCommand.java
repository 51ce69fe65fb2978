package zesty.signal.app.command;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import zesty.signal.core.scale.Conversion;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.Thermocouple;

@Command(name = "convert", description = "Runs one of the sensor conversions.")
final class ConvertCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(index = "0", paramLabel = "KIND")
    private String kind;

    @Parameters(index = "1..*", paramLabel = "VALUE")
    private List<String> values = new ArrayList<>();

    @Option(names = "--set", paramLabel = "KEY=VALUE")
    private List<String> given = new ArrayList<>();

    @Option(names = "--json")
    private boolean json;

    @Override
    public Integer call() {
        if (values.isEmpty()) {
            throw new Refusal("convert " + kind + " needs a value");
        }
        Map<String, String> settings = Inputs.settings(given, ConvertKinds.keys(kind));
        ConvertKinds.Ready ready = ConvertKinds.ready(kind, settings);
        double[] results = new double[values.size()];
        for (int i = 0; i < results.length; i++) {
            double value = Inputs.number("VALUE", values.get(i));
            results[i] = ready.apply(value);
            if (!Double.isFinite(results[i])) {
                throw new Refusal(outside(values.get(i), ready.conversion()));
            }
        }
        if (json) {
            ObjectNode root = Json.object();
            root.put("kind", kind);
            ArrayNode array = root.putArray("values");
            for (double result : results) {
                Json.add(array, result);
            }
            root.put("unit", ready.conversion().unit());
            Json.print(root);
        } else {
            for (double result : results) {
                spec.commandLine()
                        .getOut()
                        .println(Digits.exact(result) + " " + ready.conversion().unit());
            }
            spec.commandLine().getOut().flush();
        }
        return Commands.DONE;
    }

    private String outside(String value, Conversion conversion) {
        if (conversion instanceof Thermocouple thermocouple) {
            double cold = thermocouple.type().millivolts(thermocouple.coldCelsius());
            return value + " mV is outside type " + thermocouple.type() + ": with this cold junction it takes "
                    + Digits.exact(rounded(thermocouple.type().lowestMillivolts() - cold)) + " to "
                    + Digits.exact(rounded(thermocouple.type().highestMillivolts() - cold)) + " mV";
        }
        return "VALUE " + value + " stands for no " + conversion.unit() + " in " + kind
                + ": it is at or beyond the end of its range";
    }

    private static double rounded(double millivolts) {
        return Math.rint(millivolts * 1000) / 1000;
    }
}
