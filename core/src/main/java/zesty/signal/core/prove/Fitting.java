package zesty.signal.core.prove;

import java.util.ArrayList;
import java.util.List;
import org.hipparchus.exception.MathIllegalArgumentException;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.QRDecomposition;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** Fits models through reference points by least squares, each point weighted by 1/uncertainty² where all are told. */
public final class Fitting {
    private Fitting() {}

    /** @throws IllegalArgumentException when there are too few points for the model, or too few that differ */
    public static Fit fit(FitModel model, List<ReferencePoint> points) {
        long different =
                points.stream().mapToDouble(ReferencePoint::raw).distinct().count();
        int needed = model == FitModel.OFFSET || model == FitModel.RATIO ? 1 : model.free();
        if (different < needed) {
            throw new IllegalArgumentException(Messages.of(
                    "prove.needs-there",
                    model.words(),
                    needed,
                    (needed == 1 ? Messages.of("prove.point") : Messages.of("prove.points-that-differ")),
                    (different == 1 ? Messages.of("prove.is") : Messages.of("prove.are")),
                    different));
        }
        if (model == FitModel.RATIO && points.stream().allMatch(p -> p.raw() == 0)) {
            throw new IllegalArgumentException(Messages.of("prove.a-ratio-needs-a-point-away-from-0"));
        }
        double[] coefficients = solve(model, points);
        double[] residuals = new double[points.size()];
        double squares = 0;
        double largest = 0;
        double mean =
                points.stream().mapToDouble(ReferencePoint::reference).average().orElse(0);
        double total = 0;
        for (int i = 0; i < residuals.length; i++) {
            ReferencePoint point = points.get(i);
            residuals[i] = point.reference() - Fit.value(coefficients, point.raw());
            squares += residuals[i] * residuals[i];
            largest = Math.max(largest, Math.abs(residuals[i]));
            total += (point.reference() - mean) * (point.reference() - mean);
        }
        return new Fit(
                model,
                List.copyOf(points),
                coefficients,
                residuals,
                Math.sqrt(squares / residuals.length),
                largest,
                total > 0 ? 1 - squares / total : Double.NaN,
                leaveOneOut(model, points));
    }

    private static double[] solve(FitModel model, List<ReferencePoint> points) {
        boolean weighted = points.stream().allMatch(p -> p.uncertainty() > 0);
        int n = points.size();
        if (model == FitModel.OFFSET || model == FitModel.RATIO) {
            double above = 0;
            double below = 0;
            for (ReferencePoint p : points) {
                double w = weighted ? 1 / (p.uncertainty() * p.uncertainty()) : 1;
                above += w * (model == FitModel.OFFSET ? p.reference() - p.raw() : p.raw() * p.reference());
                below += w * (model == FitModel.OFFSET ? 1 : p.raw() * p.raw());
            }
            return model == FitModel.OFFSET ? new double[] {above / below, 1} : new double[] {0, above / below};
        }
        // Centred and scaled, the powers stay apart; the coefficients are put back afterwards.
        double centre =
                points.stream().mapToDouble(ReferencePoint::raw).average().orElse(0);
        double scale = points.stream()
                .mapToDouble(p -> Math.abs(p.raw() - centre))
                .max()
                .orElse(1);
        double[][] powers = new double[n][model.free()];
        double[] right = new double[n];
        for (int i = 0; i < n; i++) {
            ReferencePoint p = points.get(i);
            double w = weighted ? 1 / p.uncertainty() : 1;
            double u = (p.raw() - centre) / scale;
            double power = w;
            for (int k = 0; k < model.free(); k++) {
                powers[i][k] = power;
                power *= u;
            }
            right[i] = w * p.reference();
        }
        try {
            double[] scaled = new QRDecomposition(new Array2DRowRealMatrix(powers, false))
                    .getSolver()
                    .solve(new ArrayRealVector(right, false))
                    .toArray();
            return putBack(scaled, centre, scale);
        } catch (MathIllegalArgumentException e) {
            throw new IllegalArgumentException(Messages.of("prove.the-points-lie-so-that-through", model.words()), e);
        }
    }

    /** c in powers of (x − centre)/scale, as coefficients in powers of x. */
    private static double[] putBack(double[] c, double centre, double scale) {
        double[] result = new double[c.length];
        for (int k = c.length - 1; k >= 0; k--) {
            // result = result · (x − centre)/scale + c[k]
            for (int i = c.length - 1; i >= 0; i--) {
                double lower = i > 0 ? result[i - 1] : 0;
                result[i] = (lower - centre * result[i]) / scale;
            }
            result[0] += c[k];
        }
        return result;
    }

    private static double leaveOneOut(FitModel model, List<ReferencePoint> points) {
        if (points.size() <= model.free()) {
            return Double.NaN;
        }
        double squares = 0;
        for (int i = 0; i < points.size(); i++) {
            List<ReferencePoint> others = new ArrayList<>(points);
            ReferencePoint left = others.remove(i);
            long different =
                    others.stream().mapToDouble(ReferencePoint::raw).distinct().count();
            if (different < model.free()) {
                return Double.NaN;
            }
            double miss = left.reference() - Fit.value(solve(model, others), left.raw());
            squares += miss * miss;
        }
        return Math.sqrt(squares / points.size());
    }

    /** @return in plain words how good the fit is and what would better it */
    public static String verdict(Fit fit, String unit) {
        String behind = unit.isEmpty() ? "" : " " + unit;
        ReferencePoint worst = fit.points().get(fit.worst());
        StringBuilder words = new StringBuilder(Messages.of(
                "prove.largest-error-at",
                Digits.about(fit.maxResidual(), 2),
                behind,
                Digits.of(worst.reference()),
                behind));
        int n = fit.points().size();
        if (n == fit.model().free()) {
            int more = fit.model().free();
            return words.append("; with ")
                    .append(n)
                    .append(n == 1 ? Messages.of("prove.point") : Messages.of("prove.points"))
                    .append(" ")
                    .append(fit.model().words())
                    .append(Messages.of("prove.always-fits"))
                    .append(more)
                    .append(
                            more == 1
                                    ? Messages.of("prove.more-point-would-tell")
                                    : Messages.of("prove.more-points-would-tell"))
                    .append(Messages.of("prove.its-uncertainty"))
                    .toString();
        }
        if (fit.model() == FitModel.LINE && n >= 4) {
            Fit curve = fit(FitModel.QUADRATIC, fit.points());
            boolean better = curve.leaveOneOut() < 0.6 * fit.leaveOneOut();
            words.append(
                    better
                            ? Messages.of(
                                    "prove.a-curve-would-bring-it-to", Digits.about(curve.maxResidual(), 2), behind)
                            : Messages.of("prove.a-curve-would-do-no-better"));
        }
        if (!Double.isNaN(fit.leaveOneOut())) {
            words.append(Messages.of("prove.a-point-left-out-is-missed-by"))
                    .append(Digits.about(fit.leaveOneOut(), 2))
                    .append(behind);
        }
        return words.append(".").toString();
    }
}
