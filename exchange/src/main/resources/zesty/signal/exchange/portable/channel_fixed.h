/* Made by Zesty Signal from the rig '${rig}': the channel of column '${column}', in whole numbers. */
#ifndef ${guard}
#define ${guard}

#include <stdint.h>
${types}
typedef struct {
${state}    int64_t y; /* the newest cleaned value, in ${y_unit} ${unit} */
} ${name}_state;

/* Begins at rest: every memory is 0. */
void ${name}_reset(${name}_state *s);

/* Takes one value as it was read, in ${raw_words}, ${rate}. Gives it scaled and cleaned, in ${out_unit} ${unit}. */
int32_t ${name}_fixed(${name}_state *s, int32_t raw);

/* The same for a program that has floats, to try it with: a board without a float unit calls ${name}_fixed. */
float ${name}_step(${name}_state *s, float raw);
${asked}
#endif
