package zesty.signal.boards.link;

import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zesty.signal.boards.sim.SimulatedBoards;
import zesty.signal.core.text.Messages;

/** Where bytes come from, as a maker writes it. The text form reads back to an equal address. */
public sealed interface LinkAddress {
    String FORMS = Messages.of("link.serial-path-baud-tcp-host-port-tcp");

    /** Stands for a network board's host where it is waited for a board to call, from whatever network. */
    String ANYONE = "*";

    /** Followed by one of this computer's own addresses, the only one to be called at. */
    String ANYONE_AT = "*@";

    /** This computer only. */
    String HERE = "127.0.0.1";

    /** @return the address as it is written */
    String text();

    /** @return the same in words for a person */
    String words();

    /** @return the shortest name that tells it from others, for the columns of a source */
    default String shortName() {
        String rest = text().replaceFirst("^[a-z]+:", "").replaceFirst("[@+#].*", "");
        String last = rest.substring(rest.lastIndexOf('/') + 1);
        return last.isBlank() ? text() : last;
    }

    /** @return a link to it, not yet open */
    Link link();

    /** @throws IllegalArgumentException when it is none of the forms, saying what is wrong and what would be right */
    static LinkAddress parse(String text) {
        int colon = text.indexOf(':');
        String kind = colon < 0 ? text : text.substring(0, colon);
        String rest = colon < 0 ? "" : text.substring(colon + 1);
        return switch (kind) {
            case "stdin" -> {
                if (!text.equals("stdin")) {
                    throw wrong(text, Messages.of("link.nothing-goes-after-stdin"));
                }
                yield new StandardInput();
            }
            case "serial" -> serial(text, rest);
            case "tcp" -> {
                int last = rest.lastIndexOf(':');
                if (last < 1) {
                    throw wrong(text, Messages.of("link.a-network-board-needs-host-and"));
                }
                if (rest.startsWith(ANYONE) && last > 1 && !(rest.startsWith(ANYONE_AT) && last > 2)) {
                    throw wrong(text, Messages.of("link.to-be-called-at-one-address-only"));
                }
                yield new Tcp(rest.substring(0, last), port(text, rest.substring(last + 1)));
            }
            case "udp" -> {
                int last = rest.lastIndexOf(':');
                yield new Udp(last < 0 ? HERE : rest.substring(0, last), port(text, rest.substring(last + 1)));
            }
            case "mqtt", "mqtts" -> broker(text, kind.endsWith("s"), rest);
            case "file" -> {
                if (rest.isBlank()) {
                    throw wrong(text, Messages.of("link.a-file-needs-a-path-file-path"));
                }
                yield new File(Path.of(rest));
            }
            case "sim" -> {
                String name = rest.contains("#") ? rest.substring(0, rest.indexOf('#')) : rest;
                long seed = rest.contains("#") ? seed(text, rest.substring(rest.indexOf('#') + 1)) : 1;
                SimulatedBoards.create(name, seed);
                yield new Simulated(name, seed);
            }
            default -> throw wrong(text, Messages.of("link.it-is-none-of-the-known-kinds"));
        };
    }

    private static LinkAddress serial(String text, String rest) {
        int at = rest.lastIndexOf('@');
        if (at < 1) {
            throw wrong(text, Messages.of("link.a-serial-port-needs-a-path-and-a"));
        }
        String[] words = rest.substring(at + 1).split(",", -1);
        try {
            int baud = Integer.parseInt(words[0]);
            if (baud >= 50 && baud <= 12_000_000) {
                SerialSettings settings = SerialSettings.USUAL;
                for (int i = 1; i < words.length; i++) {
                    settings = settings.with(words[i]);
                }
                return new Serial(rest.substring(0, at), baud, settings);
            }
        } catch (NumberFormatException e) {
            // Said below.
        } catch (IllegalArgumentException e) {
            throw wrong(text, e.getMessage());
        }
        throw wrong(text, Messages.of("link.is-not-a-baud-rate-usual-are-9600", words[0]));
    }

    private static LinkAddress broker(String text, boolean secure, String rest) {
        Matcher parts = Broker.PARTS.matcher(rest);
        if (!parts.matches()) {
            throw wrong(text, Messages.of("link.a-broker-needs-a-host-and-a-topic"));
        }
        String user = parts.group(1) == null ? "" : parts.group(1);
        if (user.contains(":")) {
            throw wrong(text, Messages.of("link.a-password-does-not-belong-into-an", BrokerLink.PASSWORD));
        }
        String topic = parts.group(4);
        for (String level : topic.split("/", -1)) {
            boolean whole = level.equals("+") || level.equals("#");
            if (!whole && (level.contains("+") || level.contains("#")) || level.equals("#") && !topic.endsWith("#")) {
                throw wrong(text, Messages.of("link.stands-for-a-whole-level-of-a"));
            }
        }
        int usual = secure ? Broker.SECURE_PORT : Broker.PORT;
        return new Broker(
                parts.group(2), parts.group(3) == null ? usual : port(text, parts.group(3)), user, topic, secure);
    }

    private static int port(String text, String part) {
        try {
            int port = Integer.parseInt(part);
            if (port >= 1 && port <= 65535) {
                return port;
            }
        } catch (NumberFormatException e) {
            // Said below.
        }
        throw wrong(text, Messages.of("link.is-no-port-from-1-to-65535", part));
    }

    private static long seed(String text, String part) {
        try {
            return Long.parseLong(part);
        } catch (NumberFormatException e) {
            throw wrong(text, Messages.of("link.the-seed-after-is-a-whole-number"));
        }
    }

    private static IllegalArgumentException wrong(String text, String why) {
        return new IllegalArgumentException(Messages.of("link.source-a-source-is", text, why, FORMS));
    }

    /** @param settings of the line; usually 8 data bits, no parity, 1 stop bit */
    record Serial(String path, int baud, SerialSettings settings) implements LinkAddress {
        @Override
        public String text() {
            return "serial:" + path + "@" + baud + settings.text();
        }

        @Override
        public String words() {
            return Messages.of("link.port-baud", path, baud, settings.text().replace(",", ", "));
        }

        @Override
        public Link link() {
            return new SerialLink(this);
        }

        /** @return the same port and settings at another speed */
        public Serial withBaud(int other) {
            return new Serial(path, other, settings);
        }
    }

    record Tcp(String host, int port) implements LinkAddress {
        @Override
        public String text() {
            return "tcp:" + host + ":" + port;
        }

        @Override
        public String words() {
            if (!listens()) {
                return Messages.of("link.network-board", host, port);
            }
            String at = listensOn();
            return Messages.of("link.whoever-calls-on-port", port, from(at == null ? ANYONE : at));
        }

        @Override
        public Link link() {
            return listens() ? new ListeningLink(this) : new TcpLink(this);
        }

        /** @return whether it waits for a board to call instead of calling one */
        public boolean listens() {
            return host.startsWith(ANYONE);
        }

        /** @return the one address to be called at; null for every one this computer has */
        public String listensOn() {
            return host.startsWith(ANYONE_AT) ? host.substring(ANYONE_AT.length()) : null;
        }
    }

    private static String from(String address) {
        return switch (address) {
            case ANYONE -> Messages.of("link.from-any-network");
            case HERE -> Messages.of("link.from-this-computer-only");
            default -> ", at " + address;
        };
    }

    /** @param address of this computer that packets are taken at: {@link #HERE}, {@link #ANYONE} or one of its own */
    record Udp(String address, int port) implements LinkAddress {
        @Override
        public String text() {
            return "udp:" + (address.equals(HERE) ? "" : address + ":") + port;
        }

        @Override
        public String words() {
            return Messages.of("link.packets-on-port", port, from(address));
        }

        @Override
        public Link link() {
            return new UdpLink(this);
        }
    }

    /** A topic of a broker (MQTT). @param user empty for none */
    record Broker(String host, int port, String user, String topic, boolean secure) implements LinkAddress {
        static final int PORT = 1883;
        static final int SECURE_PORT = 8883;
        static final Pattern PARTS = Pattern.compile("//(?:([^@/]*)@)?([^:/@]+)(?::([^/]*))?/(.+)");

        @Override
        public String text() {
            int usual = secure ? SECURE_PORT : PORT;
            return (secure ? "mqtts://" : "mqtt://") + (user.isEmpty() ? "" : user + "@") + host
                    + (port == usual ? "" : ":" + port) + "/" + topic;
        }

        @Override
        public String words() {
            return Messages.of(
                    "link.broker", host, (many() ? Messages.of("link.topics") : Messages.of("link.topic")), topic);
        }

        /** @return whether it is not one topic but all that are like it, each a station */
        public boolean many() {
            return topic.contains("+") || topic.contains("#");
        }

        @Override
        public Link link() {
            return new BrokerLink(this);
        }
    }

    record File(Path path) implements LinkAddress {
        @Override
        public String text() {
            return "file:" + path;
        }

        @Override
        public String words() {
            return Messages.of("link.file", path.getFileName());
        }

        @Override
        public Link link() {
            return StreamLink.ofFile(path);
        }
    }

    record StandardInput() implements LinkAddress {
        @Override
        public String text() {
            return "stdin";
        }

        @Override
        public String words() {
            return Messages.of("link.standard-input");
        }

        @Override
        public Link link() {
            return StreamLink.ofStandardInput();
        }
    }

    /** @param seed the same seed gives the same bytes */
    record Simulated(String board, long seed) implements LinkAddress {
        @Override
        public String text() {
            return "sim:" + board + (seed == 1 ? "" : "#" + seed);
        }

        @Override
        public String words() {
            return Messages.of("link.simulated-board", board);
        }

        @Override
        public Link link() {
            return new SimulatedLink(SimulatedBoards.create(board, seed), 1);
        }
    }
}
