package zesty.signal.core.prove;

import java.util.List;
import java.util.Objects;
import zesty.signal.core.scale.Conversion;
import zesty.signal.core.scale.Line;
import zesty.signal.core.text.Messages;

/**
 * A check of a channel against something trusted, as the proof book keeps it.
 *
 * @param epochSeconds when, in seconds since 1970
 * @param points with what the channel's chain gave before the fit as raw
 * @param adopted whether the fit became part of the channel's chain; a proof only is kept beside it
 * @param unit of the reference
 */
public record Proof(long epochSeconds, FitModel model, List<ReferencePoint> points, boolean adopted, String unit) {
    private static final long DAY = 86_400;

    public Proof {
        Objects.requireNonNull(model, "model");
        Objects.requireNonNull(unit, "unit");
        points = List.copyOf(points);
    }

    /** @return the fit through its points */
    public Fit fit() {
        return Fitting.fit(model, points);
    }

    /** @return the worst miss: of the fit where it was adopted, of the readings as they were where not */
    public double worstMiss() {
        return adopted
                ? fit().maxResidual()
                : points.stream()
                        .mapToDouble(p -> Math.abs(p.reference() - p.raw()))
                        .max()
                        .orElse(0);
    }

    /** @return the largest uncertainty told for a point */
    public double referenceUncertainty() {
        return points.stream().mapToDouble(ReferencePoint::uncertainty).max().orElse(0);
    }

    /**
     * @return by how much the channel has moved since that proof, in the unit, over this one's points: what the
     *     reference says beyond the reading, less what the last fit said it would
     */
    public double driftSince(Proof last) {
        Conversion expected = last.adopted() ? Line.SAME : last.fit().conversion();
        return points.stream()
                .mapToDouble(point -> point.reference() - expected.apply(point.raw()))
                .average()
                .orElse(0);
    }

    /** @return its age in words */
    public String age(long nowEpochSeconds) {
        long days = Math.max(0, (nowEpochSeconds - epochSeconds) / DAY);
        return days == 0
                ? Messages.of("prove.today")
                : days == 1 ? Messages.of("prove.yesterday") : Messages.of("prove.days-ago", days);
    }
}
