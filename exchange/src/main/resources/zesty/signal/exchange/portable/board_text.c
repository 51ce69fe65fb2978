
static void put_text(const char *text)
{
    while (*text != '\0') {
        put_byte((uint8_t)*text++);
    }
}

/* At least so many digits: zeros in front where it has fewer. */
static void put_number(uint64_t value, uint8_t digits)
{
    uint8_t text[20];
    uint8_t n = 0;

    do {
        text[n++] = (uint8_t)('0' + (int)(value % 10));
        value /= 10;
    } while (value != 0 || n < digits);
    while (n > 0) {
        put_byte(text[--n]);
    }
}
