package zesty.signal.core.rig;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import zesty.signal.core.read.kinds.ReaderKinds;

/** What is guessed for a reader of several signals, as makers name and order their columns. */
class PortsTest {
    private static List<String> motion(String chosen, String... offered) {
        return Ports.guess(ReaderKinds.of("motion"), chosen, List.of(offered));
    }

    @Test
    void namesCountWhereverTheyStand() {
        assertThat(motion("gy", "temp", "gx", "gy", "gz", "ax", "ay", "az"))
                .containsExactly("ax", "ay", "az", "gx", "gy", "gz");
        assertThat(motion("mast/acc_AY", "mast/acc_AX", "mast/acc_AY", "mast/acc_AZ", "mast/heat"))
                .containsExactly("mast/acc_AX", "mast/acc_AY", "mast/acc_AZ");
        // Of four axes three make a body, of eight six.
        assertThat(motion("ax", "ax", "ay", "az", "gx")).hasSize(3);
        assertThat(motion("ax", "mx", "my", "ax", "ay", "az", "gx", "gy", "gz")).hasSize(6);
        assertThat(motion("ax", "mz", "mx", "my", "ax", "ay", "az", "gx", "gy", "gz"))
                .endsWith("mx", "my", "mz")
                .hasSize(9);
        // A word that only ends alike is no axis.
        assertThat(motion("relax", "relax", "okay", "topaz")).containsExactly("relax", "okay", "topaz");
    }

    @Test
    void namesThatSayNothingGoByTheirOrderFromTheChosenOne() {
        assertThat(motion("c", "a", "b", "c", "d")).containsExactly("c", "d", "a");
        assertThat(motion("a", "a", "b")).isEmpty();
        assertThat(Ports.guess(ReaderKinds.of("step"), "heat", List.of("air", "heat")))
                .containsExactly("heat", "air");
        assertThat(Ports.guess(ReaderKinds.of("step"), "heat", List.of("heat"))).isEmpty();
        assertThat(Ports.guess(ReaderKinds.of("pulse"), "finger", List.of("clock", "finger")))
                .containsExactly("finger");
        // One axis shakes as well as three: the others are added by hand.
        assertThat(Ports.guess(ReaderKinds.of("vibration"), "ay", List.of("ax", "ay", "az")))
                .containsExactly("ay");
    }
}
