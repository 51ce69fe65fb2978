package zesty.signal.app.window.bench.clean;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.clean.BandPass;
import zesty.signal.core.clean.BandStop;
import zesty.signal.core.clean.HighPass;
import zesty.signal.core.clean.LowPass;
import zesty.signal.core.clean.Notch;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.clean.Step;

/** The corners and notches of a recipe's filters, as handles to move. No toolkit in it. */
final class Corners {
    private static final int DIGITS = 3;
    /** The highest a corner can be moved to, as a share of half the rate. */
    private static final double TOP = 0.98;

    private Corners() {}

    /**
     * A handle.
     *
     * @param step its place in the recipe
     * @param upper whether it is the upper one of a band's two
     */
    record Corner(int step, boolean upper, double hz) {}

    static List<Corner> of(Recipe recipe) {
        List<Corner> corners = new ArrayList<>();
        for (int i = 0; i < recipe.steps().size(); i++) {
            Step step = recipe.steps().get(i);
            if (step instanceof BandPass band) {
                corners.add(new Corner(i, false, band.lowHz()));
                corners.add(new Corner(i, true, band.highHz()));
            } else if (step instanceof BandStop band) {
                corners.add(new Corner(i, false, band.lowHz()));
                corners.add(new Corner(i, true, band.highHz()));
            } else if (step instanceof LowPass pass) {
                corners.add(new Corner(i, true, pass.hz()));
            } else if (step instanceof HighPass pass) {
                corners.add(new Corner(i, false, pass.hz()));
            } else if (step instanceof Notch notch) {
                corners.add(new Corner(i, false, notch.hz()));
            }
        }
        return corners;
    }

    /** @return the recipe with a handle at another frequency, as near as makes sense; numbers of three digits */
    static Recipe moved(Recipe recipe, Corner corner, double wantedHz, double rateHz) {
        List<Step> steps = new ArrayList<>(recipe.steps());
        Step step = steps.get(corner.step());
        double hz = rounded(Math.max(rateHz * 1e-6, Math.min(TOP * rateHz / 2, wantedHz)));
        if (step instanceof BandPass band) {
            steps.set(
                    corner.step(),
                    corner.upper()
                            ? new BandPass(band.lowHz(), above(hz, band.lowHz()), band.order())
                            : new BandPass(below(hz, band.highHz()), band.highHz(), band.order()));
        } else if (step instanceof BandStop band) {
            steps.set(
                    corner.step(),
                    corner.upper()
                            ? new BandStop(band.lowHz(), above(hz, band.lowHz()), band.order())
                            : new BandStop(below(hz, band.highHz()), band.highHz(), band.order()));
        } else if (step instanceof LowPass pass) {
            steps.set(corner.step(), new LowPass(hz, pass.order()));
        } else if (step instanceof HighPass pass) {
            steps.set(corner.step(), new HighPass(hz, pass.order()));
        } else if (step instanceof Notch notch) {
            steps.set(corner.step(), new Notch(hz, notch.q()));
        }
        return new Recipe(steps);
    }

    /** Edges of a band do not pass each other. */
    private static double above(double hz, double low) {
        return Math.max(hz, rounded(1.05 * low));
    }

    private static double below(double hz, double high) {
        return Math.min(hz, rounded(0.95 * high));
    }

    private static double rounded(double hz) {
        return new BigDecimal(hz).round(new MathContext(DIGITS)).doubleValue();
    }
}
