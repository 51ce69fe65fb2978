/* Made by Zesty Signal from the rig '${rig}': the channel of column '${column}'.
 * Scaling: ${scaling}
 * Recipe: ${recipe} */
#include "${name}.h"

${includes}#include <string.h>
${helpers}
void ${name}_reset(${name}_state *s)
{
    memset(s, 0, sizeof *s);
}

float ${name}_step(${name}_state *s, float raw)
{
    double x = (double)raw;
${body}
    s->y = x;
${rules}    return (float)x;
}
${answers}