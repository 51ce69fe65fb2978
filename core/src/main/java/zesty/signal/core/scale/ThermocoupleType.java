package zesty.signal.core.scale;

/**
 * The thermocouples with letters, by their reference functions: E(T) in mV for the other junction at 0 °C (Burns et al.
 * 1993, Temperature-electromotive force reference functions and tables for the letter-designated thermocouple types based
 * on the ITS-90, NIST Monograph 175).
 */
public enum ThermocoupleType {
    K(new double[] {-270, 0, 1372}, new double[][] {
        {
            0.0,
            0.394501280250e-01,
            0.236223735980e-04,
            -0.328589067840e-06,
            -0.499048287770e-08,
            -0.675090591730e-10,
            -0.574103274280e-12,
            -0.310888728940e-14,
            -0.104516093650e-16,
            -0.198892668780e-19,
            -0.163226974860e-22
        },
        {
            -0.176004136860e-01,
            0.389212049750e-01,
            0.185587700320e-04,
            -0.994575928740e-07,
            0.318409457190e-09,
            -0.560728448890e-12,
            0.560750590590e-15,
            -0.320207200030e-18,
            0.971511471520e-22,
            -0.121047212750e-25
        }
    }),
    J(new double[] {-210, 760, 1200}, new double[][] {
        {
            0.0,
            0.503811878150e-01,
            0.304758369300e-04,
            -0.856810657200e-07,
            0.132281952950e-09,
            -0.170529583370e-12,
            0.209480906970e-15,
            -0.125383953360e-18,
            0.156317256970e-22
        },
        {
            0.296456256810e+03,
            -0.149761277860e+01,
            0.317871039240e-02,
            -0.318476867010e-05,
            0.157208190040e-08,
            -0.306913690560e-12
        }
    }),
    T(new double[] {-270, 0, 400}, new double[][] {
        {
            0.0, 0.387481063640e-01, 0.441944343470e-04, 0.118443231050e-06, 0.200329735540e-07,
            0.901380195590e-09, 0.226511565930e-10, 0.360711542050e-12, 0.384939398830e-14, 0.282135219250e-16,
            0.142515947790e-18, 0.487686622860e-21, 0.107955392700e-23, 0.139450270620e-26, 0.797951539270e-30
        },
        {
            0.0,
            0.387481063640e-01,
            0.332922278800e-04,
            0.206182434040e-06,
            -0.218822568460e-08,
            0.109968809280e-10,
            -0.308157587720e-13,
            0.454791352900e-16,
            -0.275129016730e-19
        }
    }),
    E(new double[] {-270, 0, 1000}, new double[][] {
        {
            0.0,
            0.586655087080e-01,
            0.454109771240e-04,
            -0.779980486860e-06,
            -0.258001608430e-07,
            -0.594525830570e-09,
            -0.932140586670e-11,
            -0.102876055340e-12,
            -0.803701236210e-15,
            -0.439794973910e-17,
            -0.164147763550e-19,
            -0.396736195160e-22,
            -0.558273287210e-25,
            -0.346578420130e-28
        },
        {
            0.0,
            0.586655087100e-01,
            0.450322755820e-04,
            0.289084072120e-07,
            -0.330568966520e-09,
            0.650244032700e-12,
            -0.191974955040e-15,
            -0.125366004970e-17,
            0.214892175690e-20,
            -0.143880417820e-23,
            0.359608994810e-27
        }
    }),
    N(new double[] {-270, 0, 1300}, new double[][] {
        {
            0.0,
            0.261591059620e-01,
            0.109574842280e-04,
            -0.938411115540e-07,
            -0.464120397590e-10,
            -0.263033577160e-11,
            -0.226534380030e-13,
            -0.760893007910e-16,
            -0.934196678350e-19
        },
        {
            0.0,
            0.259293946010e-01,
            0.157101418800e-04,
            0.438256272370e-07,
            -0.252611697940e-09,
            0.643118193390e-12,
            -0.100634715190e-14,
            0.997453389920e-18,
            -0.608632456070e-21,
            0.208492293390e-24,
            -0.306821961510e-28
        }
    }),
    S(new double[] {-50, 1064.18, 1664.5, 1768.1}, new double[][] {
        {
            0.0,
            0.540313308631e-02,
            0.125934289740e-04,
            -0.232477968689e-07,
            0.322028823036e-10,
            -0.331465196389e-13,
            0.255744251786e-16,
            -0.125068871393e-19,
            0.271443176145e-23
        },
        {0.132900444085e+01, 0.334509311344e-02, 0.654805192818e-05, -0.164856259209e-08, 0.129989605174e-13},
        {0.146628232636e+03, -0.258430516752e+00, 0.163693574641e-03, -0.330439046987e-07, -0.943223690612e-14}
    }),
    R(new double[] {-50, 1064.18, 1664.5, 1768.1}, new double[][] {
        {
            0.0,
            0.528961729765e-02,
            0.139166589782e-04,
            -0.238855693017e-07,
            0.356916001063e-10,
            -0.462347666298e-13,
            0.500777441034e-16,
            -0.373105886191e-19,
            0.157716482367e-22,
            -0.281038625251e-26
        },
        {
            0.295157925316e+01,
            -0.252061251332e-02,
            0.159564501865e-04,
            -0.764085947576e-08,
            0.205305291024e-11,
            -0.293359668173e-15
        },
        {0.152232118209e+03, -0.268819888545e+00, 0.171280280471e-03, -0.345895706453e-07, -0.934633971046e-14}
    }),
    B(new double[] {0, 630.615, 1820}, new double[][] {
        {
            0.0,
            -0.246508183460e-03,
            0.590404211710e-05,
            -0.132579316360e-08,
            0.156682919010e-11,
            -0.169445292400e-14,
            0.629903470940e-18
        },
        {
            -0.389381686210e+01,
            0.285717474700e-01,
            -0.848851047850e-04,
            0.157852801640e-06,
            -0.168353448640e-09,
            0.111097940130e-12,
            -0.445154310330e-16,
            0.989756408210e-20,
            -0.937913302890e-24
        }
    });

    /** Type K above 0 °C has a bell on top: 0.1185976·exp(−1.183432e-4·(T − 126.9686)²). */
    private static final double BELL_HEIGHT = 0.118597600000e+00;

    private static final double BELL_WIDTH = -0.118343200000e-03;
    private static final double BELL_CENTRE = 0.126968600000e+03;

    /** Type B falls at first and rises from here on; only from here on is there one temperature for a voltage. */
    private static final double B_LOWEST = 21.020262;

    /** The published tables give the ends rounded to 1 µV: as such they are taken, in mV. */
    private static final double ROUNDED = 0.0006;

    private static final int GRID = 2048;
    /** At the cold end, where hardly any voltage comes, the function bends most. */
    private static final int STEEP_CELLS = 256;

    private final double[] limits;
    private final double[][] coefficients;
    /** Temperatures at even steps of voltage, to begin the inversion from. */
    private final double[] grid = new double[GRID + 1];

    private final double lowestMillivolts;
    private final double highestMillivolts;

    ThermocoupleType(double[] limits, double[][] coefficients) {
        this.limits = limits;
        this.coefficients = coefficients;
        lowestMillivolts = sum(lowestInvertible());
        highestMillivolts = sum(highest());
        double low = lowestInvertible();
        for (int i = 0; i <= GRID; i++) {
            double target = lowestMillivolts + (highestMillivolts - lowestMillivolts) * i / GRID;
            double high = highest();
            for (int n = 0; n < 60; n++) {
                double middle = 0.5 * (low + high);
                if (sum(middle) < target) {
                    low = middle;
                } else {
                    high = middle;
                }
            }
            grid[i] = low;
        }
    }

    /** @return the lowest temperature of its range, in °C */
    public double lowest() {
        return limits[0];
    }

    /** @return the highest temperature of its range, in °C */
    public double highest() {
        return limits[limits.length - 1];
    }

    private double lowestInvertible() {
        return this.ordinal() == 7 ? B_LOWEST : limits[0];
    }

    /** @return the voltage at the lowest temperature that a voltage stands for, in mV */
    public double lowestMillivolts() {
        return lowestMillivolts;
    }

    /** @return the voltage at its highest temperature, in mV */
    public double highestMillivolts() {
        return highestMillivolts;
    }

    /** @return mV at that temperature in °C; NaN outside its range */
    public double millivolts(double celsius) {
        return celsius >= lowest() && celsius <= highest() ? sum(celsius) : Double.NaN;
    }

    private int part(double celsius) {
        int part = 0;
        while (part < coefficients.length - 1 && celsius >= limits[part + 1]) {
            part++;
        }
        return part;
    }

    private double sum(double celsius) {
        int part = part(celsius);
        double[] c = coefficients[part];
        double e = 0;
        for (int i = c.length - 1; i >= 0; i--) {
            e = e * celsius + c[i];
        }
        return bells(part) ? e + bell(celsius) : e;
    }

    private boolean bells(int part) {
        return ordinal() == 0 && part == 1;
    }

    private static double bell(double celsius) {
        double off = celsius - BELL_CENTRE;
        return BELL_HEIGHT * Math.exp(BELL_WIDTH * off * off);
    }

    /**
     * The reference function turned round by Newton's method, from a grid that is within a fraction of a degree.
     *
     * @return °C at that voltage; NaN outside its range
     */
    public double celsius(double millivolts) {
        if (!(millivolts >= lowestMillivolts - ROUNDED && millivolts <= highestMillivolts + ROUNDED)) {
            return Double.NaN;
        }
        double place = (millivolts - lowestMillivolts) / (highestMillivolts - lowestMillivolts) * GRID;
        int i = (int) Math.max(0, Math.min(GRID - 1, place));
        double low = grid[i];
        double high = grid[i + 1];
        double t = low + (place - i) * (high - low);
        for (int n = 0; n < 30; n++) {
            int part = part(t);
            double[] c = coefficients[part];
            double e = 0;
            double slope = 0;
            for (int k = c.length - 1; k >= 0; k--) {
                slope = slope * t + e;
                e = e * t + c[k];
            }
            if (bells(part)) {
                double bell = bell(t);
                e += bell;
                slope += 2 * BELL_WIDTH * (t - BELL_CENTRE) * bell;
            }
            double step = (e - millivolts) / slope;
            // Never out of the grid's cell by more than its width: near the cold end the slope is next to nothing.
            t = Math.max(low - (high - low), Math.min(high + (high - low), t - step));
            // What is left after a step is its square times half the bend over the slope: below 1e-3 but at the cold
            // end.
            if (Math.abs(step) < (i < STEEP_CELLS ? 1e-11 : 5e-5) * (1 + Math.abs(t))) {
                break;
            }
        }
        return t;
    }
}
