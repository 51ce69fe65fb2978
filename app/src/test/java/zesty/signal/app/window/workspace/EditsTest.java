package zesty.signal.app.window.workspace;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Undo and redo against a list of all states there ever were. */
class EditsTest {
    private int value;

    @Test
    void backAndForthIsThroughTheStatesThatThereWere() {
        Edits edits = new Edits();
        List<Integer> states = new ArrayList<>(List.of(0));
        int at = 0;
        Random random = new Random(6);
        for (int i = 1; i < 400; i++) {
            int what = random.nextInt(5);
            if (what < 2) {
                int before = value;
                int after = i;
                edits.did(new Edits.Edit("change " + i, () -> value = before, () -> value = after));
                value = after;
                states.subList(at + 1, states.size()).clear();
                states.add(after);
                at++;
            } else if (what < 4) {
                String words = words(edits.undo());
                assertThat(words == null).isEqualTo(at == 0 || states.size() > 51 && at == states.size() - 51);
                assertThat(words == null || words.equals("change " + states.get(at)))
                        .isTrue();
                at -= words == null ? 0 : 1;
            } else {
                String words = words(edits.redo());
                assertThat(words == null).isEqualTo(at == states.size() - 1);
                at += words == null ? 0 : 1;
            }
            assertThat(value).isEqualTo(states.get(at));
        }
        edits.forget();
        assertThat(words(edits.undo())).isNull();
        assertThat(words(edits.redo())).isNull();
    }

    private static String words(Edits.Step step) {
        return step.outcome() == Edits.Outcome.DONE ? step.words() : null;
    }

    @Test
    void whatCannotBeTakenBackNowStaysToBeTakenBackLater() {
        Edits edits = new Edits();
        boolean[] recording = {true};
        edits.did(new Edits.Edit(
                "the rig",
                () -> {
                    value = recording[0] ? value : 1;
                    return !recording[0];
                },
                () -> true));
        value = 2;
        assertThat(edits.undo().outcome()).isEqualTo(Edits.Outcome.REFUSED);
        assertThat(value).isEqualTo(2);
        assertThat(edits.redo().outcome()).isEqualTo(Edits.Outcome.NOTHING_THERE);
        recording[0] = false;
        assertThat(edits.undo()).isEqualTo(new Edits.Step(Edits.Outcome.DONE, "the rig"));
        assertThat(value).isEqualTo(1);
    }

    @Test
    void fiftyChangesAreKept() {
        Edits edits = new Edits();
        for (int i = 1; i <= 60; i++) {
            int before = value;
            edits.did(new Edits.Edit("one more", () -> value = before, () -> {}));
            value = i;
        }
        int taken = 0;
        while (words(edits.undo()) != null) {
            taken++;
        }
        assertThat(taken).isEqualTo(50);
        assertThat(value).isEqualTo(10);
    }
}
