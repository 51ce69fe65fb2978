package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** Mains and its harmonics, followed as they drift. */
public record Hum(double hz, double widthHz) implements Step {
    /** In widths: what it followed so long ago is forgotten to e^(−2π · 3). */
    private static final double FORGOTTEN = 6;

    @Override
    public String text() {
        return "hum:" + Digits.exact(hz) + "@" + Digits.exact(widthHz);
    }

    @Override
    public String words() {
        return Messages.of("clean.hum-of-hz-followed", Digits.of(hz));
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.frequency-hz"), Messages.of("clean.width-hz"));
    }

    @Override
    public String about() {
        return Messages.of("clean.mains-and-its-multiples-go");
    }

    @Override
    public Stage stage(double rate, Start start) {
        return follower(rate);
    }

    private HumFollower follower(double rate) {
        Words.corner(text(), hz, rate);
        if (!(widthHz < hz / 2)) {
            throw new RecipeException(
                    Messages.of("clean.a-width-of-hz-reaches-half-way-to", text(), Digits.exact(widthHz)));
        }
        return new HumFollower(rate, hz, widthHz);
    }

    @Override
    public long context(double rate) {
        return (long) Math.ceil(FORGOTTEN / widthHz * rate);
    }

    /** What comes first is not known yet: it runs back over the beginning before it runs forward. */
    @Override
    public void bothWays(double[] data, double rate) {
        HumFollower follower = follower(rate);
        int lead = (int) Math.min(data.length, Math.ceil(3 / widthHz * rate));
        double[] mirrored = new double[lead];
        for (int i = 0; i < lead; i++) {
            mirrored[i] = data[lead - 1 - i];
        }
        follower.apply(mirrored, 0, lead);
        follower.turnRound();
        follower.apply(data, 0, data.length);
    }
}
