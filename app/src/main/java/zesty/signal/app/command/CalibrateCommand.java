package zesty.signal.app.command;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import zesty.signal.core.prove.Fit;
import zesty.signal.core.prove.FitModel;
import zesty.signal.core.prove.Fitting;
import zesty.signal.core.prove.ReferencePoint;
import zesty.signal.core.scale.Digits;
import zesty.signal.takes.Table;
import zesty.signal.takes.TakeException;

@Command(name = "calibrate", description = "Fits reference points.")
final class CalibrateCommand implements Callable<Integer> {
    private static final String RAW = "raw";
    private static final String REFERENCE = "reference";
    private static final String UNCERTAINTY = "uncertainty";

    @Spec
    private CommandSpec spec;

    @Parameters(paramLabel = "POINTS.csv")
    private Path file;

    @Option(names = "--model", paramLabel = "MODEL")
    private String modelName = "line";

    @Option(names = "--json")
    private boolean json;

    @Override
    public Integer call() {
        List<String> names = Arrays.stream(FitModel.values())
                .map(m -> m.name().toLowerCase(Locale.ROOT))
                .toList();
        if (!names.contains(modelName)) {
            throw new Refusal("no model is called '" + modelName + "'; there are " + String.join(", ", names));
        }
        FitModel model = FitModel.values()[names.indexOf(modelName)];
        Fit fit;
        try {
            fit = Fitting.fit(model, points());
        } catch (IllegalArgumentException e) {
            throw new Refusal(file + ": " + e.getMessage());
        }
        boolean finite = Arrays.stream(fit.coefficients()).allMatch(Double::isFinite)
                && Double.isFinite(fit.rmsResidual())
                && Double.isFinite(fit.maxResidual());
        if (!finite) {
            throw new Refusal(file + ": the numbers are too large or differ too much to be fitted; check their unit");
        }
        if (json) {
            ObjectNode root = Json.object();
            root.put("model", modelName);
            Json.put(root, "coefficients", fit.coefficients());
            Json.put(root, "rms_residual", fit.rmsResidual());
            Json.put(root, "max_residual", fit.maxResidual());
            Json.put(root, "r2", fit.r2());
            Json.print(root);
        } else {
            var out = spec.commandLine().getOut();
            out.println(modelName + ", coefficients in rising powers: "
                    + String.join(
                            ", ",
                            Arrays.stream(fit.coefficients())
                                    .mapToObj(Digits::exact)
                                    .toList()));
            out.println(Fitting.verdict(fit, ""));
            out.flush();
        }
        return Commands.DONE;
    }

    /** A column called uncertainty, where there is one, weights the points. */
    private List<ReferencePoint> points() {
        Table table = Inputs.table(file);
        try {
            double[] raw = table.column(RAW);
            double[] reference = table.column(REFERENCE);
            double[] uncertainty =
                    table.headers().contains(UNCERTAINTY) ? table.column(UNCERTAINTY) : new double[raw.length];
            List<ReferencePoint> points = new ArrayList<>();
            for (int i = 0; i < raw.length; i++) {
                points.add(new ReferencePoint(raw[i], reference[i], uncertainty[i]));
            }
            return points;
        } catch (TakeException e) {
            throw new Refusal(e.getMessage());
        }
    }
}
