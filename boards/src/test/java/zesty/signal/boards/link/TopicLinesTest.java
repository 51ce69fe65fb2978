package zesty.signal.boards.link;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.BrokenBarrierException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentMap;
import java.util.concurrent.CyclicBarrier;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What boards write under topics becomes lines with the topic's number; what nobody can read is told as such. */
class TopicLinesTest {
    private static String of(TopicLines lines, String topic, String payload) {
        return new String(lines.lines(1.25, topic, payload.getBytes(StandardCharsets.UTF_8)), StandardCharsets.UTF_8);
    }

    /** 720220 is the CRC-32 of boats/robin/battery, by another program, modulo a million, plus one. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "12.5 | \"value\":12.5",
                "-1e-3 | \"value\":-0.001",
                "12.5,3;  | boats/robin/battery: 12.5,3;",
                "1,2.5,-3 | \"column1\":1.0,\"column2\":2.5,\"column3\":-3.0",
                "12,5;3 | \"column1\":12.5,\"column2\":3.0",
                "[4, 5] | \"column1\":4.0,\"column2\":5.0",
                "volts=12.5 amps=-2 | \"volts\":12.5,\"amps\":-2.0",
                "Volts: 12.5 V, Amps: 2 A | \"Volts\":12.5,\"Amps\":2.0",
                "{\"t\":5,\"volts\":12.5,\"on\":true,\"who\":\"x\",\"a\":{\"b\":\"7\"}} | \"board_t\":5,\"volts\":12.5,\"on\":1,\"a b\":7.0",
                "{\"topic\":3} | \"board_topic\":3",
                "ON | \"value\":1",
                "closed | \"value\":0",
                "hello there | boats/robin/battery: hello there",
                "{\"volts\": | boats/robin/battery: {\"volts\":",
                "{\"who\":\"x\"} | boats/robin/battery: {\"who\":\"x\"}"
            })
    void eachWayOfWritingIsRead(String payload, String wanted) {
        TopicLines lines = new TopicLines("boats/+/battery");
        String said = of(lines, "boats/robin/battery", payload);
        if (wanted.startsWith("boats")) {
            assertThat(said).isEqualTo(wanted + "\n");
        } else {
            assertThat(said).isEqualTo("{\"t\":1.25,\"topic\":720220," + wanted + "}\n");
        }
    }

    @Test
    void linesOfAMessageAreLinesAndBytesAreToldAsNone() {
        TopicLines lines = new TopicLines("wren/#");
        assertThat(of(lines, "wren/a", "1\r\n\n2\n").lines()).hasSize(2);
        assertThat(new String(lines.lines(0, "wren/a", new byte[] {1, (byte) 0xff, 'x'}), StandardCharsets.UTF_8))
                .isEqualTo("wren/a: ??x\n");
    }

    @ParameterizedTest
    @CsvSource({
        "boats/+/battery, boats/wren/battery, wren",
        "boats/#, boats/wren/battery, wren battery",
        "+/+/volts, wren/aft/volts, wren aft",
        "#, wren/volts, wren volts"
    })
    void aTopicIsCalledByWhatTheFilterLeavesOpen(String filter, String topic, String name) {
        TopicLines lines = new TopicLines(filter);
        String line = of(lines, topic, "1");
        int number = Integer.parseInt(line.replaceAll(".*\"topic\":(\\d+).*\\n", "$1"));
        assertThat(lines.nameOf(number)).isEqualTo(name);
        assertThat(lines.nameOf(number + 1)).isEmpty();
        // The same on another day.
        assertThat(of(new TopicLines(filter), topic, "1")).isEqualTo(line);
    }

    /** A link that is opened anew may hear the last of the old session while the new one begins: a topic keeps its number. */
    @Test
    void aTopicHasOneNumberWhoeverAsks() throws Exception {
        for (int round = 0; round < 40; round++) {
            TopicLines lines = new TopicLines("fleet/#");
            ConcurrentMap<String, Set<String>> numbers = new ConcurrentHashMap<>();
            List<Thread> all = new ArrayList<>();
            CyclicBarrier together = new CyclicBarrier(4);
            for (int t = 0; t < 4; t++) {
                Thread one = new Thread(() -> {
                    try {
                        together.await();
                    } catch (InterruptedException | BrokenBarrierException e) {
                        throw new IllegalStateException(e);
                    }
                    for (int boat = 0; boat < 300; boat++) {
                        String said = of(lines, "fleet/" + boat, "1");
                        numbers.computeIfAbsent("fleet/" + boat, name -> ConcurrentHashMap.newKeySet())
                                .add(said.replaceAll(".*\"topic\":(\\d+).*\n", "$1"));
                    }
                });
                all.add(one);
                one.start();
            }
            for (Thread one : all) {
                one.join();
            }
            assertThat(numbers)
                    .hasSize(300)
                    .allSatisfy((topic, its) -> assertThat(its).as(topic).hasSize(1));
        }
    }
}
