package zesty.signal.boards.sim;

/**
 * How a body is turned: rolled, pitched and headed, in that order seen from outside in. What it feels of the world follows from
 * geometry alone (P. G. Savage 1998, "Strapdown inertial navigation integration algorithm design").
 *
 * @param roll lean to the right, {@code pitch} nose down (a turn about the axis to the left), {@code heading} clockwise from north, in rad
 */
record Pose(double roll, double pitch, double heading) {
    /** The axes of the body, forward, left and up, in the world's: north, west and up. */
    double[][] axes() {
        double cr = Math.cos(roll);
        double sr = Math.sin(roll);
        double cp = Math.cos(pitch);
        double sp = Math.sin(pitch);
        double ch = Math.cos(heading);
        double sh = Math.sin(heading);
        return new double[][] {
            {ch * cp, -sh * cp, -sp},
            {sh * cr + ch * sp * sr, ch * cr - sh * sp * sr, cp * sr},
            {ch * sp * cr - sh * sr, -sh * sp * cr - ch * sr, cp * cr}
        };
    }

    /** @return a vector of the world, seen from the body */
    double[] seen(double north, double west, double up) {
        return Triad.of(this).seen(north, west, up);
    }

    /** @return how fast the body turns about its own axes on the way to another pose, in rad/s */
    double[] turning(Pose next, double seconds) {
        return Triad.of(this).turning(Triad.of(next), seconds);
    }
}
