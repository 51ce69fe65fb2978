package zesty.signal.core.read.motion;

import java.util.ArrayList;
import java.util.List;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.LUDecomposition;
import org.hipparchus.linear.RealMatrix;
import org.hipparchus.linear.SingularValueDecomposition;
import zesty.signal.core.text.Messages;

/**
 * What an accelerometer read while it lay on each of its six faces tells how its axes lie in the body, their scale and their
 * offset: twelve numbers by least squares from eighteen. Which way up it was held is known from what was asked for, so axes that
 * are swapped or turned are found as well as those that are off.
 */
public final class Faces {
    /** What is asked for, in this order; the axis that points up is the one of {@code face} in a reading. */
    public enum Face {
        LEVEL("+z", Messages.of("read.motion.level-as-it-sails"), 0, 0, 1),
        HEAD("-z", Messages.of("read.motion.upside-down"), 0, 0, -1),
        NOSE_UP("+x", Messages.of("read.motion.with-its-nose-up"), 1, 0, 0),
        NOSE_DOWN("-x", Messages.of("read.motion.with-its-nose-down"), -1, 0, 0),
        LEFT_UP("+y", Messages.of("read.motion.with-its-left-side-up"), 0, 1, 0),
        RIGHT_UP("-y", Messages.of("read.motion.with-its-right-side-up"), 0, -1, 0);

        private final String axis;
        private final String words;
        private final double[] up;

        Face(String axis, String words, double... up) {
            this.axis = axis;
            this.words = words;
            this.up = up;
        }

        /** @return the axis of the body that points up */
        public String axis() {
            return axis;
        }

        public String words() {
            return words;
        }

        public double[] up() {
            return up.clone();
        }
    }

    /** Readings of two faces differ by less than this share of the largest: it was not turned. */
    private static final double TURNED = 0.5;
    /** What is left over on a face, in g: more says that a face was held askew by some 4°. */
    private static final double ASKEW_G = 0.07;

    /**
     * What came of it.
     *
     * @param axes null when it failed
     * @param left what is left over on the six faces, RMS in g
     * @param words what was found, or what to do again
     */
    public record Result(Axes axes, double left, String words) {}

    private Faces() {}

    /** @param read what the three axes read on each face, on average, in the order of {@link Face} */
    public static Result solve(List<double[]> read) {
        Face[] faces = Face.values();
        for (int i = 0; i < faces.length; i++) {
            for (int k = 0; k < i; k++) {
                double apart = apart(read.get(i), read.get(k));
                if (!(apart > TURNED * largest(read))) {
                    return new Result(
                            null,
                            Double.NaN,
                            Messages.of(
                                    "read.motion.reads-like-it-was-not-turned-in", faces[i].words(), faces[k].words()));
                }
            }
        }
        RealMatrix known = new Array2DRowRealMatrix(faces.length, 4);
        RealMatrix wanted = new Array2DRowRealMatrix(faces.length, 3);
        for (int i = 0; i < faces.length; i++) {
            for (int k = 0; k < 3; k++) {
                known.setEntry(i, k, read.get(i)[k]);
                wanted.setEntry(i, k, faces[i].up[k]);
            }
            known.setEntry(i, 3, 1);
        }
        RealMatrix found = new SingularValueDecomposition(known).getSolver().solve(wanted);
        RealMatrix matrix = found.getSubMatrix(0, 2, 0, 2).transpose();
        LUDecomposition parted = new LUDecomposition(matrix);
        if (!parted.getSolver().isNonSingular()) {
            return new Result(null, Double.NaN, Messages.of("read.motion.the-six-faces-do-not-tell-three"));
        }
        double[] offset =
                parted.getSolver().solve(found.getRowVector(3)).mapMultiply(-1).toArray();
        Axes axes = new Axes(flat(matrix), offset);
        double squares = 0;
        int worst = 0;
        double most = 0;
        for (int i = 0; i < faces.length; i++) {
            double off = apart(axes.apply(read.get(i)), faces[i].up);
            squares += off * off / faces.length;
            worst = off > most ? i : worst;
            most = Math.max(most, off);
        }
        double left = Math.sqrt(squares);
        return left > ASKEW_G
                ? new Result(null, left, Messages.of("read.motion.the-faces-do-not-fit-together", faces[worst].words()))
                : new Result(axes, left, lying(matrix));
    }

    private static double largest(List<double[]> read) {
        return read.stream()
                .flatMapToDouble(java.util.Arrays::stream)
                .map(Math::abs)
                .max()
                .orElse(0);
    }

    private static double apart(double[] a, double[] b) {
        return Math.sqrt(Math.pow(a[0] - b[0], 2) + Math.pow(a[1] - b[1], 2) + Math.pow(a[2] - b[2], 2));
    }

    private static double[] flat(RealMatrix matrix) {
        double[] numbers = new double[9];
        for (int row = 0; row < 3; row++) {
            System.arraycopy(matrix.getRow(row), 0, numbers, 3 * row, 3);
        }
        return numbers;
    }

    /** How the axes lie in the body, in words. */
    private static String lying(RealMatrix matrix) {
        String[] ways = {"forward", "left", "up"};
        String[] back = {"back", "right", "down"};
        List<String> words = new ArrayList<>();
        for (int axis = 0; axis < 3; axis++) {
            int most = 0;
            for (int row = 1; row < 3; row++) {
                most = Math.abs(matrix.getEntry(row, axis)) > Math.abs(matrix.getEntry(most, axis)) ? row : most;
            }
            words.add(Messages.of(
                    "read.motion.points",
                    Messages.of("read.motion.xyz").charAt(axis),
                    (matrix.getEntry(most, axis) > 0 ? ways[most] : back[most])));
        }
        return String.join(", ", words)
                + (new LUDecomposition(matrix).getDeterminant() < 0
                        ? Messages.of("read.motion.one-of-them-is-mirrored")
                        : "");
    }

    /**
     * @return the turn in a matrix, without its scales: the rotation nearest to it (P. H. Schönemann 1966, "A generalized solution
     *     of the orthogonal Procrustes problem"), nine numbers row by row
     */
    static double[] turn(Axes axes) {
        RealMatrix matrix = new Array2DRowRealMatrix(3, 3);
        for (int i = 0; i < 9; i++) {
            matrix.setEntry(i / 3, i % 3, axes.matrix()[i]);
        }
        SingularValueDecomposition parts = new SingularValueDecomposition(matrix);
        return flat(parts.getU().multiply(parts.getVT()));
    }
}
