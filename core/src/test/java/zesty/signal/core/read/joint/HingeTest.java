package zesty.signal.core.read.joint;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.Settings;
import zesty.signal.core.sample.TimeBase;

/** Axes of hinges that are known, of units turned anyhow; lines through what is there; angles of a gyro that drifts. */
class HingeTest {
    private static double[] drawn(Random random) {
        return HingeAxes.unit(new double[] {random.nextGaussian(), random.nextGaussian(), random.nextGaussian()});
    }

    /** Two axes at right angles to a third of length 1. */
    private static double[][] across(double[] axis) {
        double[] other = Math.abs(axis[0]) < 0.7 ? new double[] {1, 0, 0} : new double[] {0, 1, 0};
        double[] one = HingeAxes.unit(HingeAxes.cross(axis, other));
        return new double[][] {one, HingeAxes.cross(axis, one)};
    }

    private static double[] mixed(double[] axis, double along, double[][] across, double a, double b) {
        double[] v = new double[3];
        for (int k = 0; k < 3; k++) {
            v[k] = along * axis[k] + a * across[0][k] + b * across[1][k];
        }
        return v;
    }

    /** What both units turn across the hinge is the same, turned by its angle; along it they differ. */
    private static double[][][] rates(double[] j1, double[] j2, boolean firstMoves, double noise, Random random) {
        double[][] across1 = across(j1);
        double[][] across2 = across(j2);
        int n = 2000;
        double[][][] w = new double[2][n][];
        for (int i = 0; i < n; i++) {
            double t = i / 100.0;
            double bend = Math.toRadians(40 * Math.sin(2 * t));
            double a = firstMoves ? 30 * Math.sin(1.1 * t) : 0;
            double b = firstMoves ? 25 * Math.cos(0.7 * t) : 0;
            double swing = firstMoves ? 35 * Math.sin(1.7 * t) : 0;
            w[0][i] = mixed(j1, swing, across1, a, b);
            double c = Math.cos(bend) * a + Math.sin(bend) * b;
            double d = -Math.sin(bend) * a + Math.cos(bend) * b;
            w[1][i] = mixed(j2, swing + 80 * Math.cos(2 * t), across2, c, d);
            for (int k = 0; k < 3; k++) {
                w[0][i][k] += noise * random.nextGaussian();
                w[1][i][k] += noise * random.nextGaussian();
            }
        }
        return w;
    }

    @Test
    void theAxisIsFoundInBothUnitsHoweverTheySit() {
        Random random = new Random(6);
        for (int k = 0; k < 40; k++) {
            double[] j1 = drawn(random);
            double[] j2 = drawn(random);
            double[][][] w = rates(j1, j2, true, 0.2, random);
            HingeAxes axes = HingeAxes.of(w[0], w[1]);
            // A hundredth is half a degree. Which way an axis points the constraint does not know.
            assertThat(Math.abs(HingeAxes.dot(axes.first(), j1)))
                    .as("first of %d", k)
                    .isGreaterThan(0.9999);
            assertThat(Math.abs(HingeAxes.dot(axes.second(), j2)))
                    .as("second of %d", k)
                    .isGreaterThan(0.9999);
            assertThat(axes.misfit()).isLessThan(0.02);
            HingeAxes other = axes.secondFlipped();
            assertThat(HingeAxes.dot(other.second(), axes.second())).isCloseTo(-1, within(1e-12));
        }
    }

    @Test
    void aUnitThatStandsStillHasNoAxisAndTwoThatDoTellNothing() {
        Random random = new Random(7);
        double[] j2 = drawn(random);
        double[][][] w = rates(drawn(random), j2, false, 0.2, random);
        HingeAxes axes = HingeAxes.of(w[0], w[1]);
        assertThat(axes.first()).isNull();
        assertThat(Math.abs(HingeAxes.dot(axes.second(), j2))).isGreaterThan(0.9999);
        HingeAxes turned = HingeAxes.of(w[1], w[0]);
        assertThat(turned.second()).isNull();
        assertThat(turned.secondFlipped().second()).isNull();
        assertThat(HingeAxes.of(w[0], w[0])).isNull();
    }

    /** A second unit that turns its own ways leaves much over. */
    @Test
    void whatIsNoHingeLeavesMuchOver() {
        Random random = new Random(8);
        for (int k = 0; k < 10; k++) {
            double[][][] w = rates(drawn(random), drawn(random), true, 0.2, random);
            double[] third = drawn(random);
            for (int i = 0; i < w[1].length; i++) {
                for (int c = 0; c < 3; c++) {
                    w[1][i][c] += 90 * Math.sin(2.3 * i / 100.0) * third[c];
                }
            }
            HingeAxes axes = HingeAxes.of(w[0], w[1]);
            assertThat(axes.misfit()).as("joint %d", k).isGreaterThan(0.15);
        }
    }

    @Test
    void localLinesFollowALineOverWhatIsMissing() {
        double[] values = new double[200];
        double[] places = new double[200];
        for (int i = 0; i < values.length; i++) {
            places[i] = i < 70 ? i : 1.4 * i - 28;
            values[i] = i % 3 == 0 || i > 80 && i < 110 ? Double.NaN : 2.5 * places[i] - 40;
        }
        LocalLines lines = new LocalLines(values, places);
        for (int i = 0; i < values.length; i++) {
            assertThat(lines.at(i, 12)).isCloseTo(2.5 * places[i] - 40, within(1e-8));
        }
        assertThat(lines.residual()).isCloseTo(0, within(1e-8));
        assertThat(new LocalLines(new double[] {Double.NaN, Double.NaN}, places).at(0, 5))
                .isNaN();
        assertThat(new LocalLines(new double[] {Double.NaN}, places).residual()).isNaN();
        assertThat(new LocalLines(new double[] {3, Double.NaN}, places).at(1, 5))
                .isEqualTo(3);
    }

    /**
     * Units that lie across each other about a level axis; both gyros off by a degree and a half a second, for two minutes, of which the
     * second goes on at another pace.
     */
    @ParameterizedTest
    @ValueSource(doubles = {100, 71})
    void gravityTakesTheGyrosDriftAway(double laterHz) {
        double rate = 100;
        int n = 12_000;
        double[][] a1 = new double[n][];
        double[][] w1 = new double[n][];
        double[][] a2 = new double[n][];
        double[][] w2 = new double[n][];
        double[] truth = new double[n];
        double[] seconds = new double[n];
        for (int i = 0; i < n; i++) {
            double t = Math.min(i, n / 2) / rate + Math.max(0, i - n / 2) / laterHz;
            seconds[i] = t;
            double roll = 0.2 * Math.sin(0.8 * t);
            double bend = Math.toRadians(30 - 30 * Math.cos(1.5 * t));
            truth[i] = Math.toDegrees(bend);
            a1[i] = new double[] {0, Math.sin(roll), Math.cos(roll)};
            a2[i] = new double[] {0, Math.sin(roll + bend), Math.cos(roll + bend)};
            double rolls = 0.2 * 0.8 * Math.cos(0.8 * t);
            double bends = Math.toRadians(30) * 1.5 * Math.sin(1.5 * t);
            w1[i] = new double[] {Math.toDegrees(rolls) + 0.7, 0, 0};
            w2[i] = new double[] {Math.toDegrees(rolls + bends) - 0.8, 0, 0};
        }
        double[] x = {1, 0, 0};
        JointAngle angle = JointAngle.of(
                new JointAngle.Unit(a1, w1), new JointAngle.Unit(a2, w2), new HingeAxes(x, x, 0), seconds);
        assertThat(angle.led()).isEqualTo(1);
        double worst = 0;
        for (int i = 0; i < n; i++) {
            worst = Math.max(worst, Math.abs(angle.degrees()[i] - truth[i]));
        }
        // Integrated alone it would be off by 180° at the end.
        assertThat(worst).isLessThan(2);
        // In one plane gravity agrees with the axis turned round as well: the reader takes the units as facing one way,
        // and says so.
        double[][] ports = new double[12][n];
        for (int i = 0; i < n; i++) {
            for (int k = 0; k < 3; k++) {
                ports[k][i] = a1[i][k];
                ports[3 + k][i] = w1[i][k];
                ports[6 + k][i] = a2[i][k];
                ports[9 + k][i] = w2[i][k];
            }
        }
        Joint kind = new Joint();
        Reader reader = kind.reader(Settings.of(kind, Map.of()), rate);
        reader.accept(ports, n, new TimeBase.Explicit(seconds));
        reader.finish();
        assertThat(reader.reading().scalar("range_deg")).isCloseTo(60, within(2.0));
        assertThat(reader.reading().quality().share()).isEqualTo(0.4);
        assertThat(reader.reading().quality().reasons().get(0)).contains("all goes on in one plane");
    }
}
