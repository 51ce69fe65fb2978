
/* One second-order section, transposed direct form II; c holds b0, b1, b2, a1, a2 (a0 is 1), z its two memories. */
static double section(const double *c, double *z, double x)
{
    double y = c[0] * x + z[0];

    z[0] = c[1] * x - c[3] * y + z[1];
    z[1] = c[2] * x - c[4] * y;
    return y;
}
