package zesty.signal.app.show;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.File;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.WebSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;

/** A real browser without a screen, as wide as a phone, told what to do over its own line for developers. */
public final class Browser implements AutoCloseable {
    private static final List<String> NAMES = List.of("chromium", "chromium-browser");

    private final ObjectMapper json = new ObjectMapper();
    private final Map<Integer, CompletableFuture<JsonNode>> asked = new ConcurrentHashMap<>();
    private final StringBuilder half = new StringBuilder();
    private final Process process;
    private final WebSocket socket;
    private int count;

    public static boolean isThere() {
        return NAMES.stream().anyMatch(name -> path(name) != null);
    }

    private static String path(String name) {
        return Arrays.stream(System.getenv("PATH").split(File.pathSeparator))
                .map(folder -> Path.of(folder, name))
                .filter(Files::isExecutable)
                .map(Path::toString)
                .findFirst()
                .orElse(null);
    }

    /** @param folder of its own, empty */
    public Browser(Path folder) throws Exception {
        String program = NAMES.stream()
                .map(Browser::path)
                .filter(p -> p != null)
                .findFirst()
                .orElseThrow();
        List<String> line = new ArrayList<>(List.of(program, "--headless", "--no-sandbox", "--disable-gpu"));
        line.addAll(List.of("--disable-quic", "--no-first-run", "--disable-background-networking"));
        line.addAll(List.of("--disable-component-update", "--disable-sync", "--remote-debugging-port=0"));
        line.addAll(List.of("--remote-allow-origins=*", "--user-data-dir=" + folder, "about:blank"));
        process = new ProcessBuilder(line)
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start();
        Path port = folder.resolve("DevToolsActivePort");
        while (!Files.exists(port) || Files.readAllLines(port).size() < 2) {
            if (!process.isAlive()) {
                throw new IOException("the browser ended at once");
            }
            TimeUnit.MILLISECONDS.sleep(50);
        }
        HttpClient client = HttpClient.newHttpClient();
        String here = "127.0.0.1:" + Files.readAllLines(port).get(0);
        JsonNode pages = json.createArrayNode();
        while (pages.isEmpty()) {
            pages = json.readTree(client.send(
                            HttpRequest.newBuilder(URI.create("http://" + here + "/json/list"))
                                    .build(),
                            HttpResponse.BodyHandlers.ofString())
                    .body());
        }
        socket = client.newWebSocketBuilder()
                .buildAsync(URI.create(pages.get(0).path("webSocketDebuggerUrl").asText()), new WebSocket.Listener() {
                    @Override
                    public CompletionStage<?> onText(WebSocket web, CharSequence data, boolean last) {
                        half.append(data);
                        if (last) {
                            answered(half.toString());
                            half.setLength(0);
                        }
                        return WebSocket.Listener.super.onText(web, data, last);
                    }
                })
                .get(20, TimeUnit.SECONDS);
    }

    private void answered(String text) {
        try {
            JsonNode answer = json.readTree(text);
            CompletableFuture<JsonNode> waits = asked.remove(answer.path("id").asInt(-1));
            if (waits != null) {
                waits.complete(answer.path("result"));
            }
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    private JsonNode ask(String method, ObjectNode parameters) throws Exception {
        CompletableFuture<JsonNode> waits = new CompletableFuture<>();
        int id = ++count;
        asked.put(id, waits);
        ObjectNode all = json.createObjectNode().put("id", id).put("method", method);
        all.set("params", parameters);
        socket.sendText(all.toString(), true).get(20, TimeUnit.SECONDS);
        return waits.get(30, TimeUnit.SECONDS);
    }

    /** Opens an address on a screen of that size. */
    public void open(String address, int width, int height) throws Exception {
        ask(
                "Emulation.setDeviceMetricsOverride",
                json.createObjectNode()
                        .put("width", width)
                        .put("height", height)
                        .put("deviceScaleFactor", 1)
                        .put("mobile", true));
        ask("Page.navigate", json.createObjectNode().put("url", address));
    }

    /** @return what an expression is in the page, as text */
    public String says(String expression) throws Exception {
        return ask(
                        "Runtime.evaluate",
                        json.createObjectNode()
                                .put("expression", "String(" + expression + ")")
                                .put("returnByValue", true))
                .path("result")
                .path("value")
                .asText();
    }

    /** Waits until an expression is true in the page. */
    public void until(String expression) throws Exception {
        String last = "";
        for (int i = 0; i < 600; i++) {
            last = says(expression);
            if (last.equals("true")) {
                return;
            }
            TimeUnit.MILLISECONDS.sleep(100);
        }
        throw new AssertionError(expression + " is " + last + " in " + says("document.body.innerText"));
    }

    /** Keeps a picture of the page. */
    public void picture(Path file) throws Exception {
        String data = ask("Page.captureScreenshot", json.createObjectNode().put("format", "png"))
                .path("data")
                .asText();
        Files.write(file, Base64.getDecoder().decode(data));
    }

    @Override
    public void close() {
        socket.abort();
        List<ProcessHandle> all = process.descendants().toList();
        process.destroy();
        process.onExit().orTimeout(10, TimeUnit.SECONDS).join();
        all.forEach(ProcessHandle::destroyForcibly);
    }
}
