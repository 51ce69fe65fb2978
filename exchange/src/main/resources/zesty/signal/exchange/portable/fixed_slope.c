
/* The least-squares slope of the newest values, from sample to sample; before the window is full, of those there are. Two at least.
 * The last bits, 2^-drop, are left out so that the sum fits. */
static int64_t slope_of(int64_t *window, unsigned long n, unsigned long seen, unsigned int drop, int64_t x)
{
    long have = (long)(seen + 1 < n ? seen + 1 : n);
    int64_t up = 0;
    int64_t down = (int64_t)have * ((int64_t)have * have - 1) / 3;
    long k;

    window[seen % n] = x / (INT64_C(1) << drop);
    for (k = 0; k < have; k++) {
        up += (have - 1 - 2 * k) * window[(seen - (unsigned long)k) % n];
    }
    return down > 0 ? 2 * up / down * (INT64_C(1) << drop) : 0;
}
