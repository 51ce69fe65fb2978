
/* Straight between points; nothing beyond the ends. */
static double between(const double *from, const double *to, unsigned int n, double x)
{
    unsigned int i = 1;

    if (!(x >= from[0] && x <= from[n - 1])) {
        return NAN;
    }
    while (i < n - 1 && x > from[i]) {
        i++;
    }
    return to[i - 1] + (x - from[i - 1]) / (from[i] - from[i - 1]) * (to[i] - to[i - 1]);
}
