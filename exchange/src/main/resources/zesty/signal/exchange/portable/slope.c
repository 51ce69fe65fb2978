
/* The least-squares slope of the newest values, in units a second; before the window is full, of those there are. Two at least. */
static double slope_of(double *window, unsigned int n, unsigned long seen, double rate, double x)
{
    unsigned long have = seen + 1 < n ? seen + 1 : n;
    double mean_k = (double)(have - 1) / 2;
    double mean_x = 0;
    double up = 0;
    double down = 0;
    unsigned long k;

    window[seen % n] = x;
    for (k = 0; k < have; k++) {
        mean_x += window[(seen - k) % n] / (double)have;
    }
    for (k = 0; k < have; k++) {
        double from = mean_k - (double)k;
        up += from * (window[(seen - k) % n] - mean_x);
        down += from * from;
    }
    return down > 0 ? up / down * rate : 0;
}
