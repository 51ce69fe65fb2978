
static int run_${name}(void)
{
    static ${name}_state state;
    float raw;

    ${name}_reset(&state);
    while (next(&raw)) {
        printf("%.9g\n", (double)${name}_step(&state, raw));
    }
    return 0;
}
