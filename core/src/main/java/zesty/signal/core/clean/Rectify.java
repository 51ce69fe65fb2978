package zesty.signal.core.clean;

/** The size of each sample without its sign. */
public record Rectify() implements Step {
    @Override
    public String text() {
        return "rectify";
    }

    @Override
    public String words() {
        return "upright";
    }

    @Override
    public String about() {
        return "what swings below zero is turned up";
    }

    @Override
    public Stage stage(double rate, Start start) {
        return new Pointwise(Math::abs);
    }
}
