package zesty.signal.boards.link;

import java.nio.file.Path;
import zesty.signal.boards.sim.SimulatedBoards;

/** Where bytes come from, as a maker writes it. The text form reads back to an equal address. */
public sealed interface LinkAddress {
    String FORMS = "serial:PATH@BAUD, tcp:HOST:PORT, udp:PORT, file:PATH, sim:BOARD or stdin";

    /** The host of a TCP address that waits for a board to call. */
    String ANYONE = "*";

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
                    throw wrong(text, "nothing goes after stdin");
                }
                yield new StandardInput();
            }
            case "serial" -> serial(text, rest);
            case "tcp" -> {
                int last = rest.lastIndexOf(':');
                if (last < 1) {
                    throw wrong(text, "a network board needs host and port, tcp:HOST:PORT");
                }
                yield new Tcp(rest.substring(0, last), port(text, rest.substring(last + 1)));
            }
            case "udp" -> new Udp(port(text, rest));
            case "file" -> {
                if (rest.isBlank()) {
                    throw wrong(text, "a file needs a path, file:PATH");
                }
                yield new File(Path.of(rest));
            }
            case "sim" -> {
                String name = rest.contains("#") ? rest.substring(0, rest.indexOf('#')) : rest;
                long seed = rest.contains("#") ? seed(text, rest.substring(rest.indexOf('#') + 1)) : 1;
                SimulatedBoards.create(name, seed);
                yield new Simulated(name, seed);
            }
            default -> throw wrong(text, "it is none of the known kinds");
        };
    }

    private static LinkAddress serial(String text, String rest) {
        int at = rest.lastIndexOf('@');
        if (at < 1) {
            throw wrong(text, "a serial port needs a path and a speed, serial:PATH@BAUD");
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
        throw wrong(text, "'" + words[0] + "' is no speed; usual are 9600, 57600 and 115200");
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
        throw wrong(text, "'" + part + "' is no port from 1 to 65535");
    }

    private static long seed(String text, String part) {
        try {
            return Long.parseLong(part);
        } catch (NumberFormatException e) {
            throw wrong(text, "the seed after # is a whole number");
        }
    }

    private static IllegalArgumentException wrong(String text, String why) {
        return new IllegalArgumentException("source '" + text + "': " + why + "; a source is " + FORMS);
    }

    /** @param settings of the line; usually 8 data bits, no parity, 1 stop bit */
    record Serial(String path, int baud, SerialSettings settings) implements LinkAddress {
        @Override
        public String text() {
            return "serial:" + path + "@" + baud + settings.text();
        }

        @Override
        public String words() {
            return "port " + path + ", " + baud + " baud" + settings.text().replace(",", ", ");
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
            return listens() ? "whoever calls on port " + port : "network board " + host + ":" + port;
        }

        @Override
        public Link link() {
            return listens() ? new ListeningLink(port) : new TcpLink(this);
        }

        /** @return whether it waits for a board to call instead of calling one */
        public boolean listens() {
            return host.equals(ANYONE);
        }
    }

    record Udp(int port) implements LinkAddress {
        @Override
        public String text() {
            return "udp:" + port;
        }

        @Override
        public String words() {
            return "packets on port " + port;
        }

        @Override
        public Link link() {
            return new UdpLink(this);
        }
    }

    record File(Path path) implements LinkAddress {
        @Override
        public String text() {
            return "file:" + path;
        }

        @Override
        public String words() {
            return "file " + path.getFileName();
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
            return "standard input";
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
            return "simulated " + board + " board";
        }

        @Override
        public Link link() {
            return new SimulatedLink(SimulatedBoards.create(board, seed), 1);
        }
    }
}
