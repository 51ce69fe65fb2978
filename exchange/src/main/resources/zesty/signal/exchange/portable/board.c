/* Made by Zesty Signal from a plan. ${about}
 * ${memory} */
#include "board.h"

/* ${rate} rows/s: the time from row to row in 1/2^32 of a microsecond, so that nothing adds up. */
#define PERIOD UINT64_C(${period})

/* The longest row, in bytes: ${longest_why}. */
#define LONGEST ${longest}

static uint64_t due;       /* when the next row is due, in the unit of PERIOD; its upper half wraps as the clock does */
static uint64_t now_us;    /* the clock with its wraps counted */
static uint32_t last_us;
static uint32_t dropped;
static uint32_t number;    /* of the row that is due: those sent and those dropped */
static uint8_t row[LONGEST];
static uint16_t used;

uint32_t board_dropped(void)
{
    return dropped;
}

static void put_byte(uint8_t byte)
{
    if (used < LONGEST) {
        row[used++] = byte;
    }
}
${helpers}
static void send_row(void)
{
    used = 0;
${row}    board_write(row, used);
}

void board_begin(void)
{
    last_us = board_micros();
    now_us = last_us;
    due = (uint64_t)last_us << 32;
    dropped = 0;
    number = 0;
}

void board_poll(void)
{
    uint32_t us = board_micros();
    int32_t late;

    now_us += (uint32_t)(us - last_us);
    last_us = us;
    late = (int32_t)(us - (uint32_t)(due >> 32));
    if (late < 0) {
        return;
    }
    /* Due times go on from due time to due time: a row that is late makes no other late. */
    due += PERIOD;
    while ((int32_t)(us - (uint32_t)(due >> 32)) >= 0) {
        due += PERIOD;
        dropped++;
        number++;
    }
    send_row();
    number++;
}
