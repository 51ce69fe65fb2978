package zesty.signal.core.read.motion;

import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.EigenDecompositionSymmetric;
import org.hipparchus.linear.LUDecomposition;
import org.hipparchus.linear.RealMatrix;
import org.hipparchus.linear.RealVector;
import org.hipparchus.linear.SingularValueDecomposition;
import zesty.signal.core.text.Messages;

/**
 * The field of the earth is as strong whichever way a unit is turned, so its readings lie on a sphere; iron that moves with the
 * unit shifts the sphere and stretches it. The ellipsoid that fits the readings best by least squares tells both (after
 * T. Ozyagcilar 2012, "Calibrating an ecompass in the presence of hard- and soft-iron interference").
 */
public final class FieldFit {
    private static final int FEWEST = 60;
    /** Of 26 directions this share must have been seen for an ellipsoid to be told from a piece of it. */
    private static final double SEEN = 0.6;

    private static final double GOOD = 0.03;
    private static final double SPOILED = 0.08;

    /**
     * What came of it.
     *
     * @param axes null when it failed
     * @param left what is left over, RMS, as a share of the field
     * @param seen share of the directions that were seen
     */
    public record Result(Axes axes, double left, double seen, String words) {}

    private FieldFit() {}

    /**
     * @param field x, y and z in turn, as many readings as there are
     * @return the matrix keeps the mean strength, so that what comes is still in the unit that went in
     */
    public static Result of(double[][] field) {
        int n = field.length;
        double[] low = {Double.MAX_VALUE, Double.MAX_VALUE, Double.MAX_VALUE};
        double[] high = {-Double.MAX_VALUE, -Double.MAX_VALUE, -Double.MAX_VALUE};
        for (double[] one : field) {
            for (int k = 0; k < 3; k++) {
                low[k] = Math.min(low[k], one[k]);
                high[k] = Math.max(high[k], one[k]);
            }
        }
        double size = n == 0 ? 0 : Math.max(high[0] - low[0], Math.max(high[1] - low[1], high[2] - low[2])) / 2;
        if (n < FEWEST || !(size > 0)) {
            return new Result(null, Double.NaN, 0, Messages.of("read.motion.too-little-was-received-turn-it-on"));
        }
        // About the middle and to size one, so that no power of a number is lost.
        double[] middle = new double[3];
        for (int k = 0; k < 3; k++) {
            middle[k] = (low[k] + high[k]) / 2;
        }
        RealMatrix known = new Array2DRowRealMatrix(n, 9);
        for (int i = 0; i < n; i++) {
            double x = (field[i][0] - middle[0]) / size;
            double y = (field[i][1] - middle[1]) / size;
            double z = (field[i][2] - middle[2]) / size;
            known.setRow(i, new double[] {x * x, y * y, z * z, 2 * x * y, 2 * x * z, 2 * y * z, 2 * x, 2 * y, 2 * z});
        }
        double[] v = new SingularValueDecomposition(known)
                .getSolver()
                .solve(new ArrayRealVector(n, 1))
                .toArray();
        RealMatrix shape =
                new Array2DRowRealMatrix(new double[][] {{v[0], v[3], v[4]}, {v[3], v[1], v[5]}, {v[4], v[5], v[2]}});
        LUDecomposition parted = new LUDecomposition(shape);
        if (!parted.getSolver().isNonSingular()) {
            return new Result(null, Double.NaN, 0, Messages.of("read.motion.the-field-received-lies-in-a-plane"));
        }
        RealVector centre = parted.getSolver().solve(new ArrayRealVector(new double[] {-v[6], -v[7], -v[8]}));
        double strength = 1 + centre.dotProduct(shape.operate(centre));
        EigenDecompositionSymmetric own = new EigenDecompositionSymmetric(shape.scalarMultiply(1 / strength));
        double[] values = own.getEigenvalues();
        double[] offset = new double[3];
        for (int k = 0; k < 3; k++) {
            offset[k] = middle[k] + size * centre.getEntry(k);
        }
        double seen = seen(field, offset);
        if (!(values[2] > 0) || seen < SEEN) {
            return new Result(
                    null,
                    Double.NaN,
                    seen,
                    Messages.of("read.motion.only-of-the-directions-were-seen", Math.round(100 * seen)));
        }
        double radius = size * Math.pow(values[0] * values[1] * values[2], -1.0 / 6);
        RealMatrix root = own.getV()
                .multiply(diagonal(Math.sqrt(values[0]), Math.sqrt(values[1]), Math.sqrt(values[2])))
                .multiply(own.getVT())
                .scalarMultiply(radius / size);
        double[] numbers = new double[9];
        for (int row = 0; row < 3; row++) {
            System.arraycopy(root.getRow(row), 0, numbers, 3 * row, 3);
        }
        Axes axes = new Axes(numbers, offset);
        double squares = 0;
        for (double[] one : field) {
            double[] m = axes.apply(one);
            double off = Math.sqrt(m[0] * m[0] + m[1] * m[1] + m[2] * m[2]) / radius - 1;
            squares += off * off / n;
        }
        double left = Math.sqrt(squares);
        String how = Messages.of("read.motion.residual", Math.round(1000 * left) / 10.0);
        return left > SPOILED
                ? new Result(null, left, seen, Messages.of("read.motion.the-field-itself-changed-a-magnet", how))
                : new Result(axes, left, seen, (left < GOOD ? "Good: " : "Fair: ") + how + ".");
    }

    private static RealMatrix diagonal(double... of) {
        RealMatrix matrix = new Array2DRowRealMatrix(3, 3);
        for (int k = 0; k < 3; k++) {
            matrix.setEntry(k, k, of[k]);
        }
        return matrix;
    }

    /** The share of the 26 directions to the faces, edges and corners of a cube in which something was read. */
    private static double seen(double[][] field, double[] centre) {
        boolean[] there = new boolean[27];
        for (double[] one : field) {
            double x = one[0] - centre[0];
            double y = one[1] - centre[1];
            double z = one[2] - centre[2];
            double length = Math.sqrt(x * x + y * y + z * z);
            int cell = 0;
            for (double part : new double[] {x, y, z}) {
                cell = 3 * cell + (part > 0.38 * length ? 2 : part < -0.38 * length ? 0 : 1);
            }
            there[cell] = true;
        }
        int count = 0;
        for (int i = 0; i < 27; i++) {
            count += there[i] && i != 13 ? 1 : 0;
        }
        return count / 26.0;
    }

    /** @return what a stretch of turning reads may be so strong by the earth's field alone, in µT */
    static boolean earthly(double microtesla) {
        return microtesla > 20 && microtesla < 70;
    }
}
