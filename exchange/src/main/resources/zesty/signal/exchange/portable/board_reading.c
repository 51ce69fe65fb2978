
static void put_reading(int32_t value)
{
    if (value < 0) {
        put_byte('-');
    }
    put_number(value < 0 ? (uint64_t)(-(int64_t)value) : (uint64_t)value, 1);
}
