
static int run_${name}(void)
{
    static ${name}_state state;
    float raw;

    ${name}_reset(&state);
    while (next(&raw)) {
        printf("%.9g", (double)${name}_step(&state, raw));
${states}        printf("\n");
    }
    return 0;
}
