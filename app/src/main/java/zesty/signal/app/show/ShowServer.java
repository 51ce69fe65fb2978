package zesty.signal.app.show;

import com.sun.net.httpserver.Headers;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.SecureRandom;
import java.time.Instant;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.Executors;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.Snapshot;

/**
 * Serves the page for a phone. Everything lies under a random token in the address; whoever has it may look, and send markers where the
 * owner takes them; nothing else can be done. Any thread.
 */
public final class ShowServer implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(ShowServer.class);
    private static final int TOKEN_BYTES = 18;
    private static final long FRAME_MS = 100;
    /** A caller that takes its time holds one until it is let go. */
    private static final int THREADS = 160;

    private static final int MOST_WAITING = 400;
    private static final int MOST_VIEWERS = 12;
    private static final int MOST_OF_ONE_ADDRESS = 6;
    private static final int MOST_MARKER_BYTES = 200;
    private static final int MOST_MARKER_LETTERS = 60;
    /** A viewer that takes nothing for so long is let go. */
    private static final double STUCK_SECONDS = 10;

    private static final Map<String, String> FILES = Map.of(
            "", "text/html; charset=utf-8",
            "page.css", "text/css; charset=utf-8",
            "page.js", "text/javascript; charset=utf-8",
            "icon.svg", "image/svg+xml");

    static {
        // A caller that takes its time over a request, or says nothing more, is let go; the server reads these once.
        System.setProperty("sun.net.httpserver.maxReqTime", "5");
        System.setProperty("sun.net.httpserver.idleInterval", "10");
        System.setProperty("sun.net.httpserver.maxIdleConnections", "32");
        System.setProperty("sun.net.httpserver.maxReqHeaders", "40");
        System.setProperty("jdk.httpserver.maxConnections", "256");
    }

    /** Who looks on. @param what it looks with, in a word or two */
    public record Looker(String address, String what, Instant since) {}

    private final Supplier<Snapshot> snapshots;
    private final Consumer<String> markers;
    private final Where where;
    private final HttpServer server;
    private final String host;
    private final ThreadPoolExecutor pool;
    private final ScheduledExecutorService clock;
    private final List<Viewer> viewers = new CopyOnWriteArrayList<>();
    private final Set<String> putOut = ConcurrentHashMap.newKeySet();
    private final Rates rates = new Rates();
    private final Frames frames = new Frames();
    private final Map<String, byte[]> files = new ConcurrentHashMap<>();
    private volatile String token = fresh();
    private volatile boolean takesMarkers;

    /**
     * Opens the page.
     *
     * @param port to be reached at; 0 for any that is free
     * @param snapshots gives what there is to see now, on a thread of its own
     * @param markers takes a marker that a viewer sends, on a thread of its own
     * @throws IOException when there is no network, or the port is taken
     */
    public ShowServer(Where where, int port, Supplier<Snapshot> snapshots, Consumer<String> markers)
            throws IOException {
        this.where = where;
        this.snapshots = snapshots;
        this.markers = markers;
        InetAddress address = where.address();
        server = HttpServer.create(new InetSocketAddress(address, port), 64);
        host = address.getHostAddress() + ":" + server.getAddress().getPort();
        pool = new ThreadPoolExecutor(
                THREADS,
                THREADS,
                10,
                TimeUnit.SECONDS,
                new LinkedBlockingQueue<>(MOST_WAITING),
                task -> thread(task, "page"),
                new ThreadPoolExecutor.DiscardPolicy());
        pool.allowCoreThreadTimeOut(true);
        clock = Executors.newSingleThreadScheduledExecutor(task -> thread(task, "page-frames"));
        server.setExecutor(pool);
        server.createContext("/", this::answer);
        server.start();
        clock.scheduleAtFixedRate(this::frame, FRAME_MS, FRAME_MS, TimeUnit.MILLISECONDS);
    }

    private static Thread thread(Runnable task, String name) {
        Thread thread = new Thread(task, name);
        thread.setDaemon(true);
        return thread;
    }

    private static String fresh() {
        byte[] bytes = new byte[TOKEN_BYTES];
        new SecureRandom().nextBytes(bytes);
        return Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
    }

    /** @return the page's address, with its token */
    public String address() {
        return "http://" + host + "/" + token + "/";
    }

    public Where where() {
        return where;
    }

    /** Makes a new address; the old one is none any more, and whoever looked on by it is put out. */
    public void renew() {
        token = fresh();
        putOut.clear();
        viewers.forEach(Viewer::end);
    }

    /** @return who looks on now */
    public List<Looker> lookers() {
        return viewers.stream()
                .map(one -> new Looker(one.address(), one.what(), one.since()))
                .toList();
    }

    /** Puts out whoever looks on from there; it does not come in again before the address is renewed. */
    public void putOut(String address) {
        putOut.add(address);
        viewers.stream().filter(one -> one.address().equals(address)).forEach(Viewer::end);
    }

    /** Whether viewers may send markers; at first they may not. */
    public void takeMarkers(boolean on) {
        takesMarkers = on;
    }

    public boolean takesMarkers() {
        return takesMarkers;
    }

    /** Closes the page; whoever looked on sees that it is gone. */
    @Override
    public void close() {
        clock.shutdownNow();
        viewers.forEach(Viewer::end);
        server.stop(0);
        pool.shutdownNow();
    }

    private void frame() {
        if (viewers.isEmpty()) {
            return;
        }
        try {
            long now = System.nanoTime();
            String frame = frames.of(snapshots.get(), takesMarkers, now);
            for (Viewer viewer : viewers) {
                if (viewer.stuckSeconds(now) > STUCK_SECONDS) {
                    viewer.end();
                } else {
                    viewer.show(frame);
                }
            }
        } catch (RuntimeException e) {
            // One frame that fails is no reason to show none any more; the log tells.
            LOG.error("a frame for the page could not be made", e);
        }
    }

    private void answer(HttpExchange exchange) throws IOException {
        try {
            if (!answered(exchange)) {
                exchange.close();
            }
        } catch (RuntimeException e) {
            LOG.error("the page could not answer", e);
            exchange.close();
        }
    }

    /** @return whether the exchange goes on elsewhere */
    private boolean answered(HttpExchange exchange) throws IOException {
        String from = exchange.getRemoteAddress().getAddress().getHostAddress();
        String path = exchange.getRequestURI().getRawPath();
        String method = exchange.getRequestMethod();
        guard(exchange.getResponseHeaders());
        if (!hostIsOurs(exchange.getRequestHeaders())) {
            // A page from elsewhere whose name was made to point here asks under its own name.
            return refused(exchange, 421);
        }
        if (!rates.allows(from, System.nanoTime())) {
            return refused(exchange, 429);
        }
        String own = path == null ? null : below(path);
        if (own == null) {
            return refused(exchange, 404);
        }
        if (putOut.contains(from)) {
            return refused(exchange, 403);
        }
        if (own.equals("marker")) {
            return method.equals("POST") ? marker(exchange) : refused(exchange, 405);
        }
        if (!method.equals("GET")) {
            return refused(exchange, own.equals("events") || FILES.containsKey(own) ? 405 : 404);
        }
        if (own.equals("events")) {
            return events(exchange, from);
        }
        return FILES.containsKey(own) ? file(exchange, own) : refused(exchange, 404);
    }

    private static void guard(Headers headers) {
        headers.set(
                "Content-Security-Policy",
                "default-src 'none'; script-src 'self'; style-src 'self'; connect-src 'self'; img-src 'self';"
                        + " base-uri 'none'; form-action 'none'; frame-ancestors 'none'");
        headers.set("X-Content-Type-Options", "nosniff");
        headers.set("Cache-Control", "no-store");
        headers.set("Referrer-Policy", "no-referrer");
        headers.set("Cross-Origin-Resource-Policy", "same-origin");
        headers.set("Cross-Origin-Opener-Policy", "same-origin");
    }

    private boolean hostIsOurs(Headers headers) {
        List<String> hosts = headers.get("Host");
        if (hosts == null || hosts.size() != 1) {
            return false;
        }
        String port = host.substring(host.lastIndexOf(':'));
        return hosts.get(0).equals(host) || where == Where.HERE && hosts.get(0).equals("localhost" + port);
    }

    /** @return what lies below the token; null where the path does not begin with it. Takes as long for any wrong token */
    private String below(String path) {
        int end = path.indexOf('/', 1);
        if (!path.startsWith("/") || end < 0) {
            return null;
        }
        byte[] said = path.substring(1, end).getBytes(StandardCharsets.UTF_8);
        boolean right = MessageDigest.isEqual(said, token.getBytes(StandardCharsets.UTF_8));
        return right ? path.substring(end + 1) : null;
    }

    private static boolean refused(HttpExchange exchange, int status) throws IOException {
        exchange.getResponseHeaders().set("Connection", "close");
        exchange.sendResponseHeaders(status, -1);
        return false;
    }

    private boolean file(HttpExchange exchange, String name) throws IOException {
        byte[] bytes = files.computeIfAbsent(name.isEmpty() ? "page.html" : name, ShowServer::read);
        exchange.getResponseHeaders().set("Content-Type", FILES.get(name));
        exchange.sendResponseHeaders(200, bytes.length);
        try (OutputStream out = exchange.getResponseBody()) {
            out.write(bytes);
        }
        return false;
    }

    private static byte[] read(String name) {
        try (InputStream in = ShowServer.class.getResourceAsStream(name)) {
            byte[] bytes = in.readAllBytes();
            return name.endsWith(".html") ? PageWords.in(bytes) : bytes;
        } catch (IOException e) {
            throw new UncheckedIOException(Messages.of("show.does-not-ship", name), e);
        }
    }

    private boolean events(HttpExchange exchange, String from) throws IOException {
        long own = viewers.stream().filter(one -> one.address().equals(from)).count();
        if (viewers.size() >= MOST_VIEWERS || own >= MOST_OF_ONE_ADDRESS) {
            return refused(exchange, 503);
        }
        exchange.getResponseHeaders().set("Content-Type", "text/event-stream; charset=utf-8");
        exchange.sendResponseHeaders(200, 0);
        Viewer viewer = new Viewer(exchange, what(exchange.getRequestHeaders().getFirst("User-Agent")));
        viewers.add(viewer);
        thread(
                        () -> {
                            viewer.run();
                            viewers.remove(viewer);
                        },
                        "page-viewer")
                .start();
        return true;
    }

    private static String what(String agent) {
        String all = agent == null ? "" : agent;
        return all.contains("Mobile") || all.contains("Android") || all.contains("Phone")
                ? Messages.of("show.a-phone")
                : all.contains("Mozilla") ? Messages.of("show.a-browser") : Messages.of("show.a-program");
    }

    private boolean marker(HttpExchange exchange) throws IOException {
        if (!takesMarkers) {
            return refused(exchange, 403);
        }
        byte[] body = exchange.getRequestBody().readNBytes(MOST_MARKER_BYTES + 1);
        if (body.length > MOST_MARKER_BYTES) {
            return refused(exchange, 413);
        }
        String text = new String(body, StandardCharsets.UTF_8)
                .replaceAll("\\p{Cntrl}", " ")
                .strip();
        if (text.isEmpty() || text.length() > MOST_MARKER_LETTERS) {
            return refused(exchange, 400);
        }
        markers.accept(text);
        exchange.sendResponseHeaders(204, -1);
        return false;
    }
}
