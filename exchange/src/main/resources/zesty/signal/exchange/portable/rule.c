
/* Turns a rule over when what would turn it has held for long enough, and not too soon after it turned last. All in samples.
 * Of the flags 1 is on, 2 that it is turning, 4 that it has turned before. */
static void turn_rule(unsigned char *flags, unsigned long *since, unsigned long *turned, unsigned long now, int turning,
                      unsigned long hold_on, unsigned long hold_off, unsigned long dead)
{
    int on = *flags & 1;

    if (!turning) {
        *flags &= (unsigned char)~2u;
        return;
    }
    if (!(*flags & 2)) {
        *flags |= 2u;
        *since = now;
    }
    if (now - *since >= (on ? hold_off : hold_on) && (!(*flags & 4) || now - *turned >= dead)) {
        *flags = (unsigned char)((on ? 0u : 1u) | 4u);
        *turned = now;
    }
}
