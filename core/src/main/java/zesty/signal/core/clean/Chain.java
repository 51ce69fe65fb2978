package zesty.signal.core.clean;

import java.util.List;

/** Stages one after the other. */
final class Chain implements Stage {
    private final List<Stage> stages;

    Chain(List<Stage> stages) {
        this.stages = List.copyOf(stages);
    }

    @Override
    public void apply(double[] data, int offset, int length) {
        for (Stage stage : stages) {
            stage.apply(data, offset, length);
        }
    }

    @Override
    public void reset() {
        stages.forEach(Stage::reset);
    }

    @Override
    public int delaySamples() {
        return stages.stream().mapToInt(Stage::delaySamples).sum();
    }
}
