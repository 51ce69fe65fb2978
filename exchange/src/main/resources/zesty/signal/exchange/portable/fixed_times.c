
/* v * m / 2^shift, rounded; |v| below 2^47, so that the product needs 16 bits dropped on the way. */
static int64_t times(int64_t v, int32_t m, unsigned int shift)
{
    uint64_t u = v < 0 ? (uint64_t)-v : (uint64_t)v;
    uint64_t k = m < 0 ? (uint64_t)-(int64_t)m : (uint64_t)m;
    uint64_t product = (u >> 16) * k + (((u & 0xFFFFu) * k) >> 16);

    product = (product + (UINT64_C(1) << (shift - 17))) >> (shift - 16);
    return (v < 0) == (m < 0) ? (int64_t)product : -(int64_t)product;
}
