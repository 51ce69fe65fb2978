package zesty.signal.boards.sim;

/**
 * Three axes at right angles, as a body carries them through the world.
 *
 * @param axes forward, left and up of the body, each in the world's north, west and up
 */
record Triad(double[][] axes) {
    static Triad of(Pose pose) {
        return new Triad(pose.axes());
    }

    /** @return a vector of the world, seen from the body */
    double[] seen(double north, double west, double up) {
        double[] v = new double[3];
        for (int k = 0; k < 3; k++) {
            v[k] = axes[k][0] * north + axes[k][1] * west + axes[k][2] * up;
        }
        return v;
    }

    /** @return how fast the body turns about its own axes on the way to other ones, in rad/s */
    double[] turning(Triad next, double seconds) {
        double[] turns = new double[3];
        for (int k = 0; k < 3; k++) {
            double[] one = next.axes[(k + 1) % 3];
            double[] other = axes[(k + 2) % 3];
            turns[k] = (one[0] * other[0] + one[1] * other[1] + one[2] * other[2]) / seconds;
        }
        return turns;
    }

    /** @return turned about one of its own axes, by rad, right-handed */
    Triad about(int axis, double angle) {
        double[][] turned = axes.clone();
        int a = (axis + 1) % 3;
        int b = (axis + 2) % 3;
        turned[a] = mixed(axes[a], Math.cos(angle), axes[b], Math.sin(angle));
        turned[b] = mixed(axes[b], Math.cos(angle), axes[a], -Math.sin(angle));
        return new Triad(turned);
    }

    /** @return the axes of something that sits on the body turned like that */
    Triad with(Pose mounted) {
        double[][] own = mounted.axes();
        double[][] both = new double[3][];
        for (int k = 0; k < 3; k++) {
            both[k] = mixed(mixed(axes[0], own[k][0], axes[1], own[k][1]), 1, axes[2], own[k][2]);
        }
        return new Triad(both);
    }

    private static double[] mixed(double[] a, double x, double[] b, double y) {
        return new double[] {a[0] * x + b[0] * y, a[1] * x + b[1] * y, a[2] * x + b[2] * y};
    }
}
