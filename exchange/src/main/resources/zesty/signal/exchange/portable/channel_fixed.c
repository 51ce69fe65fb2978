/* Made by Zesty Signal from the rig '${rig}': the channel of column '${column}', in whole numbers.
 * Scaling: ${scaling}
 * Recipe: ${recipe}
 * Beside the same in floating point it is off by at most ${error} ${unit}, of ${full} ${unit}.
 * It keeps ${bytes} bytes, and needs ${work} a value. */
#include "${name}.h"

#include <string.h>
${helpers}
void ${name}_reset(${name}_state *s)
{
    memset(s, 0, sizeof *s);
}

int32_t ${name}_fixed(${name}_state *s, int32_t raw)
{
    int64_t x = raw;

    /* What the sensor cannot send is taken for the nearest that it can. */
    x = x < INT64_C(${low}) ? INT64_C(${low}) : x > INT64_C(${high}) ? INT64_C(${high}) : x;
${body}
    s->y = x;
${rules}    return (int32_t)(x / (INT64_C(1) << ${out_shift}));
}

float ${name}_step(${name}_state *s, float raw)
{
    double unit = (double)raw * ${raw_unit};

    if (!(unit >= -2147483647.0)) {
        unit = unit < 0 ? -2147483647.0 : 0;
    }
    unit = unit > 2147483647.0 ? 2147483647.0 : unit;
    return (float)(${name}_fixed(s, (int32_t)(unit < 0 ? unit - 0.5 : unit + 0.5)) * ${out_unit});
}
${answers}
