package zesty.signal.core.clean;

import zesty.signal.core.text.Messages;

/** The size of each sample without its sign. */
public record Rectify() implements Step {
    @Override
    public String text() {
        return "rectify";
    }

    @Override
    public String words() {
        return Messages.of("clean.upright");
    }

    @Override
    public String about() {
        return Messages.of("clean.what-swings-below-zero-is-turned");
    }

    @Override
    public Stage stage(double rate, Start start) {
        return new Pointwise(Math::abs);
    }
}
