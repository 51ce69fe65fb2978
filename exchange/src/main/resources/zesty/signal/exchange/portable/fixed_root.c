
/* The whole root of a square, bit by bit. */
static int64_t root(int64_t square)
{
    uint64_t left = (uint64_t)square;
    uint64_t found = 0;
    uint64_t bit = UINT64_C(1) << 62;

    while (bit != 0) {
        if (left >= found + bit) {
            left -= found + bit;
            found = (found >> 1) + bit;
        } else {
            found >>= 1;
        }
        bit >>= 2;
    }
    return (int64_t)found;
}
