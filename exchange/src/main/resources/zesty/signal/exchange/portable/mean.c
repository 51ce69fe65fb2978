
/* The mean of the last n values. The sum is added up anew once a round, so that rounding does not pile up. */
static double moving_mean(double *window, unsigned int n, unsigned int *at, double *sum, double x)
{
    unsigned int i;

    *sum += x - window[*at];
    window[*at] = x;
    if (++*at == n) {
        *at = 0;
        *sum = 0;
        for (i = 0; i < n; i++) {
            *sum += window[i];
        }
    }
    return *sum / n;
}
