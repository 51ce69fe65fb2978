
/* One coefficient: a whole number, and a rest m / 2^shift. */
typedef struct {
    int32_t whole;
    int32_t m;
    unsigned int shift;
} coefficient;

/* One second-order section, direct form I; c holds b0, b1, b2, -a1, -a2 (a0 is 1), z the last two of what went in and came out. */
static int64_t section(const coefficient *c, int64_t *z, int64_t x)
{
    int64_t y = c[0].whole * x + times(x, c[0].m, c[0].shift);
    unsigned int k;

    for (k = 1; k < 5; k++) {
        y += c[k].whole * z[k - 1] + times(z[k - 1], c[k].m, c[k].shift);
    }
    z[1] = z[0];
    z[0] = x;
    z[3] = z[2];
    z[2] = y;
    return y;
}
