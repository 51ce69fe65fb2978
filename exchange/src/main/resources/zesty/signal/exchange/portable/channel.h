/* Made by Zesty Signal from the rig '${rig}': the channel of column '${column}'. */
#ifndef ${guard}
#define ${guard}

${types}typedef struct {
${state}    double y; /* the newest cleaned value, in ${unit} */
} ${name}_state;

/* Begins at rest: every memory is 0. */
void ${name}_reset(${name}_state *s);

/* Takes one value as it was read, ${rate}. Gives it scaled and cleaned, in ${unit}. */
float ${name}_step(${name}_state *s, float raw);
${asked}
#endif
