package zesty.signal.core.clean;

import java.util.List;

/** The polynomial of that degree fitted to so many samples about each, an odd number. */
public record Smooth(int samples, int degree) implements Step {
    @Override
    public String text() {
        return "smooth:" + samples + "@" + degree;
    }

    @Override
    public String words() {
        return "smooth over " + samples;
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named("window, samples", "degree");
    }

    @Override
    public String about() {
        return "noise evens out, the height of peaks stays";
    }

    @Override
    public Stage stage(double rate, Start start) {
        return new PolynomialSmoother(samples, degree);
    }
}
