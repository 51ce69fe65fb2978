
/* The mean of the last n values; whole numbers add up without rounding. */
static int64_t moving_mean(int64_t *window, unsigned int n, unsigned int *at, int64_t *sum, int64_t x)
{
    *sum += x - window[*at];
    window[*at] = x;
    *at = (*at + 1) % n;
    return *sum / (int64_t)n;
}
