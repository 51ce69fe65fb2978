package zesty.signal.core.prove;

import java.util.List;
import zesty.signal.core.scale.Conversion;
import zesty.signal.core.scale.Line;
import zesty.signal.core.scale.Polynomial;

/**
 * A model fitted through reference points.
 *
 * @param coefficients in rising powers
 * @param residuals reference less what the fit says, one for each point
 * @param rmsResidual root of the mean square of the residuals, over the number of points
 * @param maxResidual the largest of them, without sign
 * @param r2 share of the references' variance that the fit explains; NaN when they do not vary
 * @param leaveOneOut the rms error at each point when it alone is left out of the fit; NaN when there are too few points
 */
public record Fit(
        FitModel model,
        List<ReferencePoint> points,
        double[] coefficients,
        double[] residuals,
        double rmsResidual,
        double maxResidual,
        double r2,
        double leaveOneOut) {

    /** @return what the fit says for a raw value */
    public double apply(double raw) {
        return value(coefficients, raw);
    }

    static double value(double[] coefficients, double raw) {
        double y = 0;
        for (int i = coefficients.length - 1; i >= 0; i--) {
            y = y * raw + coefficients[i];
        }
        return y;
    }

    /** @return the fit as a conversion, from what was raw to the reference's quantity */
    public Conversion conversion() {
        if (coefficients.length == 2) {
            return new Line(coefficients[1], coefficients[0]);
        }
        int n = coefficients.length;
        while (n > 2 && coefficients[n - 1] == 0) {
            n--;
        }
        return n == 2
                ? new Line(coefficients[1], coefficients[0])
                : new Polynomial(
                        java.util.Arrays.stream(coefficients, 0, n).boxed().toList());
    }

    /** @return index of the point that is missed by the most */
    public int worst() {
        int worst = 0;
        for (int i = 1; i < residuals.length; i++) {
            worst = Math.abs(residuals[i]) > Math.abs(residuals[worst]) ? i : worst;
        }
        return worst;
    }
}
