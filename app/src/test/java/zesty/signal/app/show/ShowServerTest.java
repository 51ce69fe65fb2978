package zesty.signal.app.show;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.Socket;
import java.net.SocketException;
import java.net.URI;
import java.net.URLConnection;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.rig.Rig;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.Trail;

/** The page's server against callers who mean no good, over real sockets; a trail runs beside it. */
@Timeout(240)
class ShowServerTest {
    private final List<String> marked = new CopyOnWriteArrayList<>();
    private Trail trail;
    private ShowServer server;
    private String host;
    private int port;
    private String token;

    @BeforeEach
    void open() throws Exception {
        trail = Trail.start(Rig.blank("Wren", "sim:battery"));
        server = new ShowServer(Where.HERE, 0, () -> trail.snapshot(System.nanoTime()), marked::add);
        take();
    }

    private void take() {
        URI address = URI.create(server.address());
        host = address.getAuthority();
        port = address.getPort();
        token = address.getPath().replace("/", "");
    }

    @AfterEach
    void close() {
        server.close();
        trail.close();
    }

    /** @return all that comes back to bytes sent as they are; empty where the caller is let go without an answer */
    private String raw(byte[] request) throws IOException {
        try (Socket socket = new Socket("127.0.0.1", port)) {
            socket.setSoTimeout(20_000);
            OutputStream out = socket.getOutputStream();
            out.write(request);
            out.flush();
            socket.shutdownOutput();
            return new String(socket.getInputStream().readAllBytes(), StandardCharsets.ISO_8859_1);
        } catch (SocketException e) {
            return "";
        }
    }

    private String ask(String line, String headers, String body) throws IOException {
        return raw((line + " HTTP/1.1\r\n" + headers.replace("|", "\r\n") + "\r\nConnection: close\r\n\r\n" + body)
                .getBytes(StandardCharsets.UTF_8));
    }

    private String ours() {
        return "Host: " + host;
    }

    private static int status(String answer) {
        return answer.startsWith("HTTP/1.1 ") ? Integer.parseInt(answer.substring(9, 12)) : 0;
    }

    private void rest() throws InterruptedException {
        TimeUnit.MILLISECONDS.sleep(1500);
    }

    @ParameterizedTest
    @CsvSource({
        "GET /TOKEN/, 200",
        "GET /TOKEN/page.js, 200",
        "GET /TOKEN/page.css?x=1, 200",
        "GET /, 404",
        "GET /TOKEN, 404",
        "GET /TOKENx/, 404",
        "GET /x/, 404",
        "GET //TOKEN/, 404",
        "GET /TOKEN/../TOKEN/, 404",
        "GET /TOKEN/%2e%2e/zesty.css, 404",
        "GET /TOKEN/..%2fwindow%2fzesty.css, 404",
        "GET /TOKEN/page.html, 404",
        "GET /TOKEN/ShowServer.class, 404",
        "GET /TOKEN/%00, 404",
        "GET /favicon.ico, 404",
        "POST /TOKEN/, 405",
        "PUT /TOKEN/page.js, 405",
        "DELETE /TOKEN/anything, 404",
        "GET /TOKEN/marker, 405",
        "POST /TOKEN/marker, 403"
    })
    void onlyThePagesOwnPathsAreAnswered(String line, int status) throws Exception {
        String answer = ask(line.replace("TOKEN", token), ours(), "");
        assertThat(status(answer)).as(answer).isEqualTo(status);
        String[] parts = answer.split("\r\n\r\n", 2);
        assertThat(parts[0].toLowerCase(java.util.Locale.ROOT))
                .contains("content-security-policy: default-src 'none'")
                .contains("x-content-type-options: nosniff")
                .contains("cache-control: no-store")
                .contains("referrer-policy: no-referrer");
        if (status != 200) {
            assertThat(parts[1]).isEmpty();
        }
    }

    /** A page from elsewhere whose name points here, or that asks under none, gets nothing. */
    @Test
    void onlyItsOwnHostIsTaken() throws Exception {
        String page = "GET /" + token + "/";
        for (String wrong : List.of(
                "Host: evil.example:" + port,
                "Host: evil.example",
                "Host: 127.0.0.1",
                "Host: " + host + ".evil.example",
                "X-Other: 1",
                ours() + "|Host: evil.example")) {
            assertThat(status(ask(page, wrong, ""))).as(wrong).isIn(421, 400, 0);
        }
        assertThat(status(ask(page, "Host: localhost:" + port, ""))).isEqualTo(200);
        assertThat(status(ask(page, ours(), ""))).isEqualTo(200);
    }

    /** The newest frame that comes within the time, on a line of its own. */
    private static JsonNode frame(BufferedReader in) throws IOException {
        for (String line = in.readLine(); line != null; line = in.readLine()) {
            if (line.startsWith("data: ")) {
                return new ObjectMapper().readTree(line.substring(6));
            }
        }
        return null;
    }

    private Socket viewer() throws IOException {
        Socket socket = new Socket("127.0.0.1", port);
        socket.setSoTimeout(20_000);
        socket.getOutputStream()
                .write(("GET /" + token + "/events HTTP/1.1\r\n" + ours() + "\r\n\r\n")
                        .getBytes(StandardCharsets.UTF_8));
        return socket;
    }

    /** A viewer who reads; its parts are joined again. */
    private BufferedReader reader() throws IOException {
        URLConnection line = URI.create(server.address() + "events").toURL().openConnection();
        line.setReadTimeout(20_000);
        return new BufferedReader(new InputStreamReader(line.getInputStream(), StandardCharsets.UTF_8));
    }

    /** Cards come with value and lane; whoever is put out is out until the address is renewed, and the old address is none then. */
    @Test
    void viewersSeeTheCardsAndCanBePutOut() throws Exception {
        try (BufferedReader in = reader()) {
            JsonNode frame = frame(in);
            while (frame.path("cards").size() < 5
                    || frame.path("cards").get(0).path("lane").size() < 100) {
                frame = frame(in);
            }
            assertThat(frame.path("rig").asText()).isEqualTo("Wren");
            JsonNode card = frame.path("cards").get(0);
            assertThat(card.path("name").asText()).startsWith("volts ");
            assertThat(Double.parseDouble(card.path("value").asText())).isBetween(10.0, 14.0);
            assertThat(card.path("state").asText()).isEqualTo("live");
            assertThat(server.lookers()).hasSize(1);
            assertThat(server.lookers().get(0).address()).isEqualTo("127.0.0.1");
            server.putOut("127.0.0.1");
            while (frame != null) {
                frame = frame(in);
            }
        }
        assertThat(status(ask("GET /" + token + "/", ours(), ""))).isEqualTo(403);
        String old = token;
        server.renew();
        take();
        assertThat(token).isNotEqualTo(old).hasSize(24);
        assertThat(status(ask("GET /" + old + "/", ours(), ""))).isEqualTo(404);
        assertThat(status(ask("GET /" + token + "/", ours(), ""))).isEqualTo(200);
    }

    @Test
    void markersAreTakenOnlyWhereTheOwnerTakesThemAndAreShort() throws Exception {
        server.takeMarkers(true);
        String line = "POST /" + token + "/marker";
        assertThat(status(ask(line, ours() + "|Content-Length: 5", "tack\n"))).isEqualTo(204);
        assertThat(status(ask(line, ours() + "|Content-Length: 300", "x".repeat(300))))
                .isEqualTo(413);
        assertThat(status(ask(line, ours() + "|Content-Length: 70", "y".repeat(70))))
                .isEqualTo(400);
        assertThat(status(ask(line, ours() + "|Content-Length: 2", "\u0007 "))).isEqualTo(400);
        server.takeMarkers(false);
        assertThat(status(ask(line, ours() + "|Content-Length: 4", "gybe"))).isEqualTo(403);
        assertThat(marked).containsExactly("tack");
    }

    private static long used() throws InterruptedException {
        for (int i = 0; i < 3; i++) {
            System.gc();
            TimeUnit.MILLISECONDS.sleep(100);
        }
        return Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory();
    }

    /**
     * Ten thousand requests that are right in part: nothing but refusals, or the page where all of it is right; memory stays, and somebody
     * who looks on goes on looking.
     */
    @Test
    void fuzzedRequestsGetRefusalsAndNothingGrows() throws Exception {
        Random random = new Random(26);
        String[] methods = {"GET", "POST", "HEAD", "OPTIONS", "TRACE", "G\u0000T", "", "GET GET"};
        String[] paths = {
            "/", "/" + token, "/" + token.substring(1) + "/", "/" + token + "x/", "/..", "/%", "*", "http://"
        };
        String[] headers = {
            ours(), "Host: x", "Host:", "Content-Length: -5", "Content-Length: 99999999999", "A".repeat(9000)
        };
        Set<Integer> seen = new TreeSet<>();
        try (BufferedReader in = reader()) {
            assertThat(frame(in)).isNotNull();
            long before = 0;
            for (int i = 0; i < 10_000; i++) {
                StringBuilder request = new StringBuilder();
                request.append(methods[random.nextInt(methods.length)]).append(' ');
                request.append(paths[random.nextInt(paths.length)])
                        .append(" HTTP/1.")
                        .append(random.nextInt(3));
                for (int h = random.nextInt(4); h > 0; h--) {
                    request.append("\r\n").append(headers[random.nextInt(headers.length)]);
                }
                byte[] bytes = request.append("\r\n\r\n").toString().getBytes(StandardCharsets.ISO_8859_1);
                for (int k = random.nextInt(4); k > 0; k--) {
                    bytes[random.nextInt(bytes.length)] = (byte) random.nextInt(256);
                }
                seen.add(status(raw(bytes)));
                if (i == 1000) {
                    before = used();
                }
            }
            assertThat(seen).doesNotContain(200, 204, 500).contains(421);
            assertThat(used() - before).isLessThan(64L << 20);
            JsonNode frame = frame(in);
            // What was sent meanwhile is read first, from when the board was not understood yet.
            for (int i = 0; i < 20 || i < 400 && frame.path("cards").isEmpty(); i++) {
                frame = frame(in);
            }
            assertThat(frame.path("cards")).isNotEmpty();
        }
        rest();
        assertThat(status(ask("GET /" + token + "/", ours(), ""))).isEqualTo(200);
        assertThat(trail.snapshot(System.nanoTime()).health().state()).isEqualTo(LinkState.LIVE);
    }

    /** Callers who take their time, and five hundred at once: whoever looks on sees frames, and the slow ones are let go. */
    @Test
    void slowCallersAndCrowdsHoldUpNobody() throws Exception {
        List<Socket> slow = new ArrayList<>();
        try (BufferedReader in = reader()) {
            while (!frame(in).path("link").asText().equals("live")) {
                TimeUnit.MILLISECONDS.sleep(10);
            }
            for (int i = 0; i < 60; i++) {
                Socket one = new Socket("127.0.0.1", port);
                one.setSoTimeout(60_000);
                one.getOutputStream()
                        .write(("GET /" + token + "/ HTTP/1.1\r\nHost: ").getBytes(StandardCharsets.UTF_8));
                slow.add(one);
            }
            List<Thread> crowd = new ArrayList<>();
            Set<Integer> seen = java.util.concurrent.ConcurrentHashMap.newKeySet();
            for (int i = 0; i < 500; i++) {
                Thread one = new Thread(() -> {
                    try {
                        seen.add(status(ask("GET /" + token + "/page.css", ours(), "")));
                    } catch (IOException e) {
                        seen.add(0);
                    }
                });
                one.start();
                crowd.add(one);
            }
            for (int i = 0; i < 30; i++) {
                assertThat(frame(in).path("link").asText()).isEqualTo("live");
            }
            for (Thread one : crowd) {
                one.join();
            }
            assertThat(seen).contains(429).isSubsetOf(0, 200, 429, 503);
            for (Socket one : slow) {
                InputStream answer = one.getInputStream();
                assertThat(end(answer)).isEqualTo(-1);
            }
            assertThat(frame(in)).isNotNull();
        } finally {
            for (Socket one : slow) {
                one.close();
            }
        }
    }

    private static int end(InputStream answer) {
        try {
            int c = answer.read();
            while (c >= 0) {
                c = answer.read();
            }
            return c;
        } catch (SocketException e) {
            return -1;
        } catch (IOException e) {
            throw new AssertionError("a slow caller was not let go", e);
        }
    }

    /** Viewers who read nothing hold up no other; too many are told that there is no room. */
    @Test
    void viewersWhoDoNotReadHoldUpNoOther() throws Exception {
        List<Socket> deaf = new ArrayList<>();
        try (BufferedReader in = reader()) {
            assertThat(frame(in)).isNotNull();
            for (int i = 0; i < 5; i++) {
                deaf.add(viewer());
            }
            for (int i = 0; i < 300 && server.lookers().size() < 6; i++) {
                TimeUnit.MILLISECONDS.sleep(20);
            }
            assertThat(server.lookers()).hasSize(6);
            assertThat(status(ask("GET /" + token + "/events", ours(), ""))).isEqualTo(503);
            for (int i = 0; i < 20; i++) {
                assertThat(frame(in)).isNotNull();
            }
            server.close();
            String line = "";
            while (line != null) {
                line = in.readLine();
            }
        } finally {
            for (Socket one : deaf) {
                one.close();
            }
        }
        assertThatThrownBy(() -> new Socket("127.0.0.1", port)).isInstanceOf(IOException.class);
    }
}
