/* Made by Zesty Signal from a plan. ${about} */
#ifndef BOARD_H
#define BOARD_H

#include <stdint.h>

/* Yours: microseconds since the start, wrapping at 2^32. */
uint32_t board_micros(void);

/* Yours: one reading of a channel, ${channels} of them, from 0. */
int32_t board_read(uint8_t channel);

/* Yours: takes n bytes to the line. */
void board_write(const uint8_t *bytes, uint16_t n);

/* Call once, then board_poll() as often as you can: it sends a row whenever one is due. */
void board_begin(void);
void board_poll(void);

/* Rows that were due and not sent, because board_poll() was called too late. */
uint32_t board_dropped(void);

#endif
