
static void put_little(uint32_t value, uint8_t bytes)
{
    while (bytes-- > 0) {
        put_byte((uint8_t)(value & 0xFF));
        value >>= 8;
    }
}

static uint8_t sum(void)
{
    uint8_t all = 0;
    uint16_t i;

    for (i = 0; i < used; i++) {
        all = (uint8_t)(all + row[i]);
    }
    return all;
}
