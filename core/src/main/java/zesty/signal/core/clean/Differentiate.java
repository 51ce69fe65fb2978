package zesty.signal.core.clean;

import zesty.signal.core.text.Messages;

/** The change a second: on a stream since the sample before, over a record about each sample. */
public record Differentiate() implements Step {
    @Override
    public String text() {
        return "differentiate";
    }

    @Override
    public String words() {
        return Messages.of("clean.change-a-second");
    }

    @Override
    public String about() {
        return Messages.of("clean.how-fast-it-changes");
    }

    @Override
    public boolean removesLevel() {
        return true;
    }

    @Override
    public Stage stage(double rate, Start start) {
        return new SectionFilter(new Sections(new double[] {rate, -rate, 0, 0, 0}, 0), start);
    }

    @Override
    public void bothWays(double[] data, double rate) {
        double before = data.length == 0 ? 0 : data[0];
        for (int i = 0; i < data.length; i++) {
            double here = data[i];
            double after = i + 1 < data.length ? data[i + 1] : here;
            boolean inside = i > 0 && i + 1 < data.length;
            data[i] = (after - before) * rate / (inside ? 2 : 1);
            before = here;
        }
    }

    @Override
    public long context(double rate) {
        return 1;
    }

    @Override
    public double delaySamples(double rate) {
        return 0.5;
    }
}
