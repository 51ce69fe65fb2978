/* Made by Zesty Signal: reads raw numbers, one a line, and prints what becomes of each. The first argument chooses the
 * column; without one it is ${first}. */
#include <stdio.h>
#include <stdlib.h>
#include <string.h>

${includes}
static char line[256];

static int next(float *raw)
{
    char *end;

    if (fgets(line, sizeof line, stdin) == NULL) {
        return 0;
    }
    *raw = (float)strtod(line, &end);
    if (end == line) {
        fprintf(stderr, "not a number: %s", line);
        exit(2);
    }
    return 1;
}
${runners}
int main(int argc, char **argv)
{
    const char *wanted = argc > 1 ? argv[1] : "${first}";

${choices}    fprintf(stderr, "no column is called '%s'\n", wanted);
    return 2;
}
