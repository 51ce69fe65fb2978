package zesty.signal.app.command;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.hivemq.client.mqtt.MqttClient;
import com.hivemq.client.mqtt.datatypes.MqttQos;
import com.hivemq.client.mqtt.mqtt3.Mqtt3BlockingClient;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.stream.Stream;
import java.util.zip.CRC32;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import zesty.signal.app.RealBroker;
import zesty.signal.app.show.Browser;
import zesty.signal.takes.Take;

/** Boards behind a real broker, recorded by a process of its own, and watched in a real browser. */
@Timeout(240)
@Execution(ExecutionMode.CONCURRENT)
class OverTheAirTest {
    private static final String[] BOATS = {"dunlin", "robin", "snipe", "teal", "wren"};

    @TempDir
    Path folder;

    private RealBroker broker;
    private Process recording;
    private int port;

    @BeforeEach
    void aBroker() throws Exception {
        assumeTrue(RealBroker.isThere(), "a broker, mosquitto, is not on this machine");
        broker = new RealBroker(folder);
        port = broker.port();
    }

    @AfterEach
    void stop() throws Exception {
        if (recording != null) {
            recording.destroyForcibly().waitFor();
        }
        if (broker != null) {
            broker.close();
        }
    }

    private void record(Map<String, String> environment, String... words) throws IOException {
        ProcessBuilder builder = new ProcessBuilder(Run.line("256m", words))
                .directory(folder.toFile())
                .redirectOutput(folder.resolve("out.txt").toFile())
                .redirectError(folder.resolve("err.txt").toFile());
        builder.environment().putAll(environment);
        recording = builder.start();
    }

    private String said(String wanted) throws Exception {
        String text = "";
        for (int i = 0; i < 1200; i++) {
            text = Files.exists(folder.resolve("err.txt")) ? Files.readString(folder.resolve("err.txt")) : "";
            if (text.contains(wanted) && text.endsWith("\n")) {
                return text;
            }
            TimeUnit.MILLISECONDS.sleep(50);
        }
        throw new AssertionError("'" + wanted + "' was never said; but: " + text);
    }

    /** As the documents have it: the topic's CRC-32 modulo a million, plus one. */
    private static String number(String topic) {
        CRC32 sum = new CRC32();
        sum.update(topic.getBytes(StandardCharsets.UTF_8));
        return String.valueOf(sum.getValue() % 1_000_000 + 1);
    }

    /**
     * Five batteries through the broker, in three ways of writing: one is weak and alarms, one falls silent and looks lost, one comes late.
     * They are watched on the page of a real browser while a take records; a marker comes from the page, and what is ticked is published.
     */
    @Test
    void fiveBatteriesAreWatchedOnAPhoneWhileATakeRecords() throws Exception {
        assumeTrue(Browser.isThere(), "a browser, chromium, is not on this machine");
        broker.start("allow_anonymous true");
        Path rig = folder.resolve("rig.json");
        Files.writeString(
                rig,
                ("{'zesty_rig':3,'name':'Club batteries','source':{'address':'stdin'},'decide':{'rules':[{'name':'teal is weak',"
                                + "'watch':{'column':'volts " + number("boats/teal/battery")
                                + "'},'when':'below','limit':11.9}]}}")
                        .replace('\'', '"'));
        Path take = folder.resolve("take.zest");
        record(
                Map.of(),
                "record",
                "mqtt://127.0.0.1:" + port + "/boats/+/battery",
                "--rig",
                rig.toString(),
                "--out",
                take.toString(),
                "--show",
                "--show-markers",
                "--publish",
                "mqtt://127.0.0.1:" + port + "/club",
                "--publish-what",
                "teal volts,teal is weak,wren volts",
                "--publish-every",
                "0.5s");
        String address = said("page: ").replaceAll("(?s).*page: (\\S+).*", "$1");
        broker.awaitListener();
        Map<String, JsonNode> published = new ConcurrentHashMap<>();
        Mqtt3BlockingClient listener = broker.board();
        listener.toAsync()
                .subscribeWith()
                .topicFilter("club/#")
                .callback(message -> {
                    try {
                        published.put(
                                message.getTopic().toString(),
                                new ObjectMapper().readTree(message.getPayloadAsBytes()));
                    } catch (IOException e) {
                        throw new IllegalStateException(e);
                    }
                })
                .send()
                .get(10, TimeUnit.SECONDS);
        Mqtt3BlockingClient board = broker.board();
        int[] sent = new int[BOATS.length];
        try (Browser browser = new Browser(Files.createDirectories(folder.resolve("browser")))) {
            browser.open(address, 412, 1300);
            browser.until("document.getElementById('link').textContent.length > 0");
            long silent = Long.MAX_VALUE;
            boolean marked = false;
            for (int round = 0; round < 1500; round++) {
                boolean quiet = silent != Long.MAX_VALUE;
                for (int b = 0; b < BOATS.length; b++) {
                    // The snipe falls silent, and the wren comes late.
                    if (BOATS[b].equals("snipe") && quiet || BOATS[b].equals("wren") && round < 15) {
                        continue;
                    }
                    double volts = (BOATS[b].equals("teal") ? 11.6 : 12.5 + 0.05 * b) + 0.004 * (round % 5);
                    String text = b % 3 == 0
                            ? String.format(Locale.ROOT, "{\"volts\":%.3f,\"amps\":%d}", volts, 1 + b)
                            : b % 3 == 1
                                    ? String.format(Locale.ROOT, "volts=%.3f amps=%d", volts, 1 + b)
                                    : String.format(Locale.ROOT, "{\"t\":%d,\"volts\":%.3f}", 50 * round, volts);
                    RealBroker.say(board, "boats/" + BOATS[b] + "/battery", text);
                    sent[b]++;
                }
                TimeUnit.MILLISECONDS.sleep(100);
                if (round % 10 == 9
                        && !quiet
                        && browser.says("document.querySelectorAll('.card').length")
                                .equals("5")) {
                    silent = round;
                }
                if (quiet
                        && browser.says("document.querySelectorAll('.lost').length")
                                .equals("1")) {
                    if (!marked) {
                        marked = true;
                        browser.says("(document.getElementById('mark').value = 'snipe is silent',"
                                + " document.querySelector('form').requestSubmit())");
                    } else if (browser.says("document.getElementById('marked').textContent")
                            .equals("Marked: snipe is silent")) {
                        break;
                    }
                }
            }
            String text = browser.says("document.body.innerText");
            assertThat(text)
                    .contains(
                            "Club batteries", "recording", "dunlin volts", "wren volts", "✕ lost", "station lost for");
            assertThat(browser.says("document.getElementById('alarms').innerText"))
                    .isEqualTo("teal is weak");
            assertThat(
                            Double.parseDouble(
                                    browser.says(
                                            "[...document.querySelectorAll('.card')].find(c =>"
                                                    + " c.querySelector('.name').textContent == 'robin volts').querySelector('.value').textContent")))
                    .isBetween(12.54, 12.57);
            assertThat(
                            browser.says(
                                    "[...document.querySelectorAll('.card')].every(c => c.getAttribute('aria-label').includes(':'))"))
                    .isEqualTo("true");
            // Nothing is wider than the phone, and whatever is pressed is as large as a thumb.
            assertThat(browser.says("document.documentElement.scrollWidth")).isEqualTo("412");
            assertThat(browser.says("[...document.querySelectorAll('button, input')].filter(b => b.offsetParent)"
                            + ".every(b => b.offsetHeight >= 44)"))
                    .isEqualTo("true");
            browser.says("document.getElementById('look').click()");
            browser.picture(folder.resolve("page.png"));
            assertThat(Files.size(folder.resolve("page.png"))).isGreaterThan(20_000);
            awaitRows(take, Arrays.stream(sent).sum());
            recording.destroy();
            assertThat(recording.waitFor(30, TimeUnit.SECONDS)).isTrue();
            browser.until("document.getElementById('link').textContent.includes('No connection')");
        }
        assertThat(published.keySet())
                .containsExactlyInAnyOrder("club/teal-volts", "club/wren-volts", "club/rules/teal-is-weak");
        assertThat(published.get("club/teal-volts").path("value").asDouble()).isBetween(11.59, 11.63);
        assertThat(published.get("club/teal-volts").path("state").asText()).isEqualTo("live");
        assertThat(published.get("club/rules/teal-is-weak").path("state").asBoolean())
                .isTrue();
        try (Take read = Take.open(take)) {
            double[] topics = read.column(indexOf(read, "topic"));
            assertThat(topics).hasSize(Arrays.stream(sent).sum());
            for (int b = 0; b < BOATS.length; b++) {
                double own = Double.parseDouble(number("boats/" + BOATS[b] + "/battery"));
                assertThat(Arrays.stream(topics).filter(t -> t == own).count())
                        .as("%s, %s, in %s; %s", BOATS[b], own, Arrays.toString(topics), read.damage())
                        .isEqualTo(sent[b]);
            }
            assertThat(read.marks()).anyMatch(mark -> mark.text().equals("snipe is silent"));
            assertThat(read.gaps()).isEmpty();
        }
        board.disconnect();
        listener.disconnect();
    }

    /** Waits until a recording has written so many rows; not longer than a minute, so that a test tells what it has. */
    private static void awaitRows(Path take, long wanted) throws Exception {
        long rows = 0;
        for (int i = 0; i < 600 && rows < wanted; i++) {
            TimeUnit.MILLISECONDS.sleep(100);
            // Read only: a file that is not there yet is not made.
            try (Connection looked = DriverManager.getConnection("jdbc:sqlite:file:" + take + "?mode=ro");
                    ResultSet sum = looked.createStatement().executeQuery("SELECT sum(rows) FROM block")) {
                rows = sum.next() ? sum.getLong(1) : 0;
            } catch (SQLException e) {
                rows = 0;
            }
        }
    }

    private static int indexOf(Take take, String column) {
        for (int c = 0; c < take.columns().size(); c++) {
            if (take.columns().get(c).name().equals(column)) {
                return c;
            }
        }
        throw new AssertionError(take.columns());
    }

    /** A broker that is killed and started again, a message as large as a film, and one that is no text: what came while it was there is counted exactly. */
    @Test
    void aBrokerThatIsKilledAndAMessageTooLargeLoseNothingElse() throws Exception {
        broker.start("allow_anonymous true");
        Path take = folder.resolve("take.zest");
        Mqtt3BlockingClient before = broker.board();
        before.publishWith()
                .topic("wren/locker")
                .payload("99".getBytes(StandardCharsets.UTF_8))
                .retain(true)
                .send();
        before.disconnect();
        record(Map.of(), "record", "mqtt://127.0.0.1:" + port + "/wren/#", "--out", take.toString(), "--show");
        said("page: ");
        int sent = 0;
        for (int life = 0; life < 3; life++) {
            if (life > 0) {
                broker.kill();
                broker.start("allow_anonymous true");
            }
            broker.awaitListener();
            Mqtt3BlockingClient board = broker.board();
            for (int i = 0; i < 40; i++) {
                RealBroker.say(board, "wren/locker", String.valueOf(20 + i % 7));
                sent++;
                TimeUnit.MILLISECONDS.sleep(10);
            }
            if (life == 2) {
                // Kept by the broker for whoever comes: the recorder is there already, and takes it as new.
                board.publishWith()
                        .topic("wren/knot")
                        .payload("3".getBytes(StandardCharsets.UTF_8))
                        .retain(true)
                        .send();
                sent++;
            }
            if (life == 1) {
                board.publishWith()
                        .topic("wren/film")
                        .payload(new byte[40 << 20])
                        .send();
                board.publishWith()
                        .topic("wren/knot")
                        .payload(new byte[] {1, 2, 3})
                        .send();
                RealBroker.say(board, "wren/locker", "21.5");
                sent++;
            }
            awaitRows(take, sent);
            board.disconnect();
        }
        recording.destroy();
        assertThat(recording.waitFor(30, TimeUnit.SECONDS)).isTrue();
        try (Take read = Take.open(take)) {
            int value = indexOf(read, "value");
            assertThat(read.column(value)).hasSize(sent).contains(21.5).doesNotContain(99);
            // Twice it was away, and what came meanwhile nobody can count.
            assertThat(read.gaps()).hasSize(2).allMatch(gap -> gap.missing() == 0);
        }
        assertThat(Files.readString(folder.resolve("out.txt")))
                .contains("1 rejected", "1 old message of the broker left out");
    }

    /** A hundred topics, each with a board of its own, ten messages a second: each is a station, and all of it is there. */
    @Test
    void aHundredTopicsAreAllThere() throws Exception {
        broker.start("allow_anonymous true");
        Path take = folder.resolve("take.zest");
        record(Map.of(), "record", "mqtt://127.0.0.1:" + port + "/fleet/#", "--out", take.toString(), "--show");
        said("page: ");
        broker.awaitListener();
        Mqtt3BlockingClient board = broker.board();
        List<CompletableFuture<?>> sent = new ArrayList<>();
        for (int round = 0; round < 30; round++) {
            long begun = System.nanoTime();
            for (int boat = 0; boat < 100; boat++) {
                sent.add(board.toAsync()
                        .publishWith()
                        .topic("fleet/" + boat)
                        .qos(MqttQos.AT_LEAST_ONCE)
                        .payload((boat + 0.5 + "").getBytes(StandardCharsets.UTF_8))
                        .send());
            }
            TimeUnit.NANOSECONDS.sleep(100_000_000 - (System.nanoTime() - begun));
        }
        CompletableFuture.allOf(sent.toArray(CompletableFuture[]::new)).get(120, TimeUnit.SECONDS);
        RealBroker.say(board, "fleet/end", "1");
        awaitRows(take, 3001);
        board.disconnect();
        recording.destroy();
        assertThat(recording.waitFor(30, TimeUnit.SECONDS)).isTrue();
        try (Take read = Take.open(take)) {
            double[] topics = read.column(indexOf(read, "topic"));
            double[] values = read.column(indexOf(read, "value"));
            assertThat(topics.length)
                    .as(Files.readString(folder.resolve("out.txt")))
                    .isEqualTo(3001);
            Map<Double, Double> wanted = new HashMap<>(Map.of(Double.valueOf(number("fleet/end")), 1.0));
            for (int boat = 0; boat < 100; boat++) {
                wanted.put(Double.valueOf(number("fleet/" + boat)), boat + 0.5);
            }
            Map<Double, Integer> often = new HashMap<>();
            for (int i = 0; i < topics.length; i++) {
                assertThat(wanted).as("row %d", i).containsEntry(topics[i], values[i]);
                often.merge(topics[i], 1, Integer::sum);
            }
            wanted.forEach((topic, value) -> assertThat(often.get(topic))
                    .as("fleet/%s in %s", value, often)
                    .isEqualTo(value == 1 ? 1 : 30));
            assertThat(read.rig().channels()).hasSizeGreaterThanOrEqualTo(100).anyMatch(one -> one.name()
                    .equals("99"));
        }
        assertThat(Files.readString(folder.resolve("out.txt"))).contains("0 rejected, 0 lost");
    }

    /** An output over the air stays a dry run until its board watches itself; then it is driven, and made safe at the end. */
    @Test
    void anOutputOverTheAirDrivesOnlyABoardThatWatchesItself() throws Exception {
        broker.start("allow_anonymous true");
        Path rig = folder.resolve("rig.json");
        String address = "mqtt://127.0.0.1:" + port + "/club/cupboard";
        Files.writeString(
                rig,
                """
                {"zesty_rig": 3, "name": "Wren", "source": {"address": "%s"}, "acknowledged": ["heat"],
                 "decide": {"rules": [{"name": "cool", "watch": {"column": "air"}, "when": "below", "limit": 60}],
                  "outputs": [{"name": "heater", "safe": "heat 0", "rule": "cool", "on": "heat 40", "off": "heat 5",
                   "longest_on_s": 600, "live": true, "caution": "heat", "watchdog": "watch 800"}]}}"""
                        .formatted(address));
        Mqtt3BlockingClient board = broker.board();
        List<String> heard = new CopyOnWriteArrayList<>();
        AtomicBoolean answers = new AtomicBoolean();
        board.toAsync()
                .subscribeWith()
                .topicFilter("club/cupboard/order")
                .callback(message -> {
                    String line = new String(message.getPayloadAsBytes(), StandardCharsets.UTF_8);
                    heard.add(line);
                    if (answers.get()) {
                        board.toAsync()
                                .publishWith()
                                .topic("club/cupboard")
                                .payload(("ok " + line).getBytes(StandardCharsets.UTF_8))
                                .send();
                    }
                })
                .send()
                .get(10, TimeUnit.SECONDS);
        record(
                Map.of(),
                "record",
                address,
                "--rig",
                rig.toString(),
                "--out",
                folder.resolve("it.zest").toString());
        int asked = 0;
        for (int i = 0; i < 600 && !heard.contains("heat 40"); i++) {
            // Warm and cool by turns: a rule that was on before the board said yes has to turn on anew.
            RealBroker.say(board, "club/cupboard", "air=" + (i / 15 % 2 == 0 ? 70 : 50));
            TimeUnit.MILLISECONDS.sleep(100);
            asked += heard.contains("watch 800") ? 1 : 0;
            if (asked == 60) {
                assertThat(heard).doesNotContain("heat 40");
                answers.set(true);
            }
        }
        assertThat(heard).contains("heat 40");
        int before = heard.size();
        recording.destroy();
        assertThat(recording.waitFor(30, TimeUnit.SECONDS)).isTrue();
        for (int i = 0; i < 200 && !heard.subList(before, heard.size()).contains("heat 0"); i++) {
            TimeUnit.MILLISECONDS.sleep(50);
        }
        assertThat(heard.subList(before, heard.size())).contains("heat 0");
        board.disconnect();
    }

    private String ended() throws Exception {
        assertThat(recording.waitFor(60, TimeUnit.SECONDS)).isTrue();
        assertThat(recording.exitValue()).isNotZero();
        return Files.readString(folder.resolve("err.txt"));
    }

    /** A wrong password and a certificate that is not trusted are told in one sentence; the password stands nowhere afterwards. */
    @Test
    void whoIsNotLetInIsToldOnceAndNoPasswordIsKept() throws Exception {
        run(
                RealBroker.program("mosquitto_passwd"),
                "-b",
                "-c",
                folder.resolve("people").toString(),
                "ann",
                "right-pass-7");
        run(
                "openssl",
                "req",
                "-x509",
                "-newkey",
                "rsa:2048",
                "-nodes",
                "-days",
                "2",
                "-subj",
                "/CN=127.0.0.1",
                "-addext",
                "subjectAltName=IP:127.0.0.1",
                "-keyout",
                folder.resolve("key.pem").toString(),
                "-out",
                folder.resolve("cert.pem").toString());
        broker.start("allow_anonymous false\npassword_file " + folder.resolve("people") + "\ncertfile "
                + folder.resolve("cert.pem") + "\nkeyfile " + folder.resolve("key.pem"));
        String address = "mqtts://ann@127.0.0.1:" + port + "/wren/locker";
        String take = folder.resolve("take.zest").toString();
        Map<String, String> home = new HashMap<>(Map.of("HOME", folder.toString()));

        home.put("ZESTY_MQTT_PASSWORD", "right-pass-7");
        record(home, "record", address, "--out", take);
        assertThat(ended()).containsOnlyOnce("cannot be reached").contains("goes back to none that is trusted");

        home.put("ZESTY_MQTT_CERTIFICATE", folder.resolve("cert.pem").toString());
        home.put("ZESTY_MQTT_PASSWORD", "wrong-pass-8");
        record(home, "record", address, "--out", take);
        assertThat(ended())
                .containsOnlyOnce("cannot be reached")
                .contains("does not take this user with this password");

        home.put("ZESTY_MQTT_PASSWORD", "right-pass-7");
        record(home, "record", address, "--samples", "30", "--out", take);
        Mqtt3BlockingClient board = MqttClient.builder()
                .useMqttVersion3()
                .serverHost("127.0.0.1")
                .serverPort(port)
                .sslConfig()
                .trustManagerFactory(io.netty.handler.ssl.util.InsecureTrustManagerFactory.INSTANCE)
                .hostnameVerifier((name, session) -> true)
                .applySslConfig()
                .simpleAuth()
                .username("ann")
                .password("right-pass-7".getBytes(StandardCharsets.UTF_8))
                .applySimpleAuth()
                .buildBlocking();
        board.connect();
        for (int i = 0; i < 2000 && recording.isAlive(); i++) {
            RealBroker.say(board, "wren/locker", i + ";" + 20 + i % 3);
            TimeUnit.MILLISECONDS.sleep(20);
        }
        assertThat(recording.waitFor(30, TimeUnit.SECONDS)).isTrue();
        assertThat(recording.exitValue())
                .as(Files.readString(folder.resolve("err.txt")))
                .isZero();
        board.disconnect();
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path one : all.filter(Files::isRegularFile).toList()) {
                String bytes = Files.readString(one, StandardCharsets.ISO_8859_1);
                assertThat(bytes).as(one.toString()).doesNotContain("right-pass-7", "wrong-pass-8");
            }
        }
    }

    private void run(String... line) throws Exception {
        Process process = new ProcessBuilder(List.of(line))
                .redirectErrorStream(true)
                .redirectOutput(folder.resolve("tool.txt").toFile())
                .start();
        assertThat(process.waitFor())
                .as(Files.readString(folder.resolve("tool.txt")))
                .isZero();
    }
}
