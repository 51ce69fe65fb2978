package zesty.signal.core.decode;

import zesty.signal.core.text.Messages;

/** How a stream of bytes is parted into packets. */
public enum Framing {
    /** Fixed start bytes, then a fixed number of bytes. */
    START_BYTES("frames", Messages.of("decode.frames-with-start-bytes")),
    /** Zero bytes are taken out and put between packets (Cheshire and Baker 1999, Consistent overhead byte stuffing). */
    ZERO_STUFFED("cobs", Messages.of("decode.zero-byte-stuffed-packets")),
    /** C0 ends a packet; within it, DB DC stands for C0 and DB DD for DB (Romkey 1988, RFC 1055). */
    ESCAPED("slip", Messages.of("decode.escape-framed-packets")),
    /** A line of text holds the packet's bytes, two hexadecimal digits each. */
    HEX_LINE("registers", Messages.of("decode.lines-of-register-bytes"));

    private final String kind;
    private final String words;

    Framing(String kind, String words) {
        this.kind = kind;
        this.words = words;
    }

    /** @return the word the command line and the files use */
    public String kind() {
        return kind;
    }

    public String words() {
        return words;
    }
}
