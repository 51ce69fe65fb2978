
/* Straight between points that lie 2^apart raw values from each other; x is counted from the first. */
static int64_t curve(const int32_t *y, int64_t points, unsigned int apart, unsigned int up, int64_t x)
{
    int64_t at = x / (INT64_C(1) << apart);
    int64_t beyond;

    if (at > points - 2) {
        at = points - 2;
    }
    beyond = x - at * (INT64_C(1) << apart);
    if (beyond > INT64_C(1) << apart) {
        beyond = INT64_C(1) << apart;
    }
    return y[at] * (INT64_C(1) << up) + ((int64_t)y[at + 1] - y[at]) * beyond * (INT64_C(1) << up) / (INT64_C(1) << apart);
}
