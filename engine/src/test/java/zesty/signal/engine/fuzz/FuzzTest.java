package zesty.signal.engine.fuzz;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** A slice of what {@code benchmarks/run soak} spoils. */
class FuzzTest {
    @Test
    void whatIsSpoiltIsTakenOrRefusedInWords() {
        assertThat(Fuzz.run(1, 8_000)).isEmpty();
    }
}
