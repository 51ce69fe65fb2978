package zesty.signal.core.clean;

import java.util.function.DoubleUnaryOperator;

/** A stage without memory: each sample by itself. */
record Pointwise(DoubleUnaryOperator function) implements Stage {
    @Override
    public void apply(double[] data, int offset, int length) {
        for (int i = offset; i < offset + length; i++) {
            data[i] = function.applyAsDouble(data[i]);
        }
    }

    @Override
    public void reset() {}
}
