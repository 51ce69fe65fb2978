package zesty.signal.app.command;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Decisions over a file as the command prints them, worked by hand. */
@Timeout(240)
class DecideTest {
    @TempDir
    Path folder;

    private String file(String name, String text) throws Exception {
        Path file = folder.resolve(name);
        Files.writeString(file, text);
        return file.toString();
    }

    private static final String HEAT =
            "t,heat,fan\n10,20,0\n11,61,0\n12,,1\n13,62,1\n14,NaN,1\n15,50,1\n16,70,0\n17,70,0\n";

    @Test
    void decisionsLinesAndSumsAreThoseOfTheRules() throws Exception {
        String rules =
                """
                {"rules": [
                   {"name": "hot", "watch": {"column": "heat"}, "when": "above", "limit": 60, "hysteresis": 4, "for_s": 2},
                   {"name": "cool", "not": "hot"},
                   {"name": "stage", "watch": {"column": "heat"}, "bands": [30, 65]}],
                 "outputs": [
                   {"name": "vent", "safe": "vent 0", "rule": "hot", "on": "vent 1", "off": "vent 0"},
                   {"name": "dial", "safe": "dial 0", "watch": {"column": "heat"}, "map": [[0, 0], [100, 1]],
                    "period_s": 2, "dead_zone": 0.2, "line": "dial {value}"}]}""";
        JsonNode out = Said.zesty("decide", file("heat.csv", HEAT), "--rules", file("rules.json", rules), "--json")
                .json();
        // 62 at 3 s is no two seconds yet: 61 does not reach 62; the empty cell and NaN break nothing; 50 does.
        JsonNode wanted = new ObjectMapper()
                .readTree(
                        """
                        {"decisions": [
                           {"t_s": 0.0, "rule": "cool", "state": true},
                           {"t_s": 1.0, "rule": "stage", "state": 1},
                           {"t_s": 6.0, "rule": "stage", "state": 2}],
                         "sent": [
                           {"t_s": 0.0, "output": "dial", "line": "dial 0.2", "why": "value"},
                           {"t_s": 2.0, "output": "dial", "line": "dial 0.61", "why": "value"},
                           {"t_s": 7.0, "output": "dial", "line": "dial 0", "why": "end"}],
                         "time_on": {"hot": 0.0, "cool": 7.0, "stage": [1.0, 5.0, 1.0]},
                         "turns": {"hot": 0, "cool": 1, "stage": 2},
                         "left_on": ["cool"]}""");
        assertThat(out).isEqualTo(wanted);
    }

    /** A level of 5 with a tone of a second's period: its reader's number and its hits are what the rule goes by. */
    @Test
    void aReadersNumberIsTakenOnceASecondAndItsEventsAreCounted() throws Exception {
        StringBuilder text = new StringBuilder("t,x\n");
        for (int i = 0; i < 600; i++) {
            double level = i < 300 ? 1 : 9;
            double knock = i % 150 == 75 ? 40 : 0;
            text.append(i / 50.0)
                    .append(',')
                    .append(level + (i % 2 == 0 ? 0.01 : -0.01) + knock)
                    .append('\n');
        }
        String rules =
                """
                {"rules": [
                   {"name": "up", "watch": {"reader": "level", "column": "x", "number": "mean", "window_s": 2}, "when": "above", "limit": 6},
                   {"name": "knocks", "watch": {"reader": "hits", "column": "x", "set": {"threshold": 20}}, "when": "event", "count": 2,
                    "within_s": 3.1}]}""";
        JsonNode out = Said.zesty("decide", file("x.csv", text.toString()), "--rules", file("r.json", rules), "--json")
                .json();
        JsonNode up = null;
        int knocks = 0;
        for (JsonNode one : out.path("decisions")) {
            if (one.path("rule").asText().equals("up") && up == null) {
                up = one;
            }
            knocks += one.path("rule").asText().equals("knocks") ? 1 : 0;
        }
        // The step is at 6 s; of the two seconds before 7 s more than half lie above it, the knock at 7.5 s not yet.
        assertThat(up).isNotNull();
        assertThat(up.path("t_s").asDouble()).isEqualTo(8);
        // Knocks at 1.5, 4.5, 7.5, 10.5 s: two within 3.1 s from the second on, for 0.1 s less than three.
        assertThat(knocks).isGreaterThanOrEqualTo(5);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{'rules':[{'name':'a','watch':{'column':'heat'},'when':'over','limit':3}]} | rule 'a': \"when\" is one of above",
                "{'rules':[{'name':'a','watch':{'column':'heat'},'when':'above','limit':3,'hold':1}]} | \"hold\" is no key",
                "{'rules':[{'name':'a','watch':{'column':'cold'},'when':'above','limit':3}]} | no column 'cold'",
                "{'rules':[{'name':'a','watch':{'column':'heat'},'when':'inside','low':3,'high':3}]} | low must be below high",
                "{'rules':[{'name':'a','watch':{'column':'heat'},'when':'above'}]} | \"limit\" must be a number",
                "{'rules':[{'name':'a','not':'b'}]} | 'a' names the rule 'b', which does not stand above it",
                "{'rules':[{'name':'a','watch':{'reader':'puls','column':'heat','number':'x'},'when':'above','limit':3}]} | no reader is called 'puls'",
                "{'rules':[{'name':'a','watch':{'reader':'level','column':'heat','number':'meen'},'when':'above','limit':3}]} | level has no number 'meen'",
                "{'outputs':[{'name':'o','safe':'x','watch':{'column':'heat'},'line':'go'}]} | line must hold {value}",
                "{'outputs':[{'name':'o','safe':'x','rule':'a','on':'1','off':'0'}]} | 'o' names the rule 'a'",
                "[1] | rules are an object",
                "{'rules':[} | is no JSON"
            })
    void whatMakesNoSenseIsRefusedByNameAndPlace(String rules, String message) throws Exception {
        Said said = Said.zesty(
                "decide", file("heat.csv", HEAT), "--rules", file("rules.json", rules.replace('\'', '"')), "--json");
        assertThat(said.status()).as(said.err()).isEqualTo(2);
        assertThat(said.err().replace('"', '\'')).contains(message.replace('"', '\''));
        assertThat(said.out()).isEmpty();
    }

    @Test
    void textInACellIsRefusedByItsLine() throws Exception {
        String rules = "{\"rules\":[{\"name\":\"a\",\"watch\":{\"column\":\"x\"},\"when\":\"above\",\"limit\":3}]}";
        Said said = Said.zesty("decide", file("x.csv", "t,x\n0,1\n1,off\n"), "--rules", file("r.json", rules));
        assertThat(said.status()).isEqualTo(2);
        assertThat(said.err()).contains("line 3, column x: 'off' where a number should be");
    }
}
