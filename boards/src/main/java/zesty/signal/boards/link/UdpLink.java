package zesty.signal.boards.link;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetSocketAddress;
import java.net.SocketTimeoutException;
import zesty.signal.core.text.Messages;

/** Packets that boards send to a UDP port of this computer; each is taken as bytes of one stream. */
final class UdpLink implements Link {
    private static final int READ_TIMEOUT_MS = 100;

    private final LinkAddress.Udp address;
    private volatile DatagramSocket socket;
    /** Once a packet was no text, none is taken for a line any more. */
    private boolean binary;

    UdpLink(LinkAddress.Udp address) {
        this.address = address;
    }

    @Override
    public void open() throws LinkException {
        try {
            InetSocketAddress at = address.address().equals(LinkAddress.ANYONE)
                    ? new InetSocketAddress(address.port())
                    : new InetSocketAddress(address.address(), address.port());
            if (at.isUnresolved()) {
                throw new LinkException(Messages.of("link.no-address-of-this-computer-is", address.address()), true);
            }
            DatagramSocket candidate = new DatagramSocket(at);
            candidate.setSoTimeout(READ_TIMEOUT_MS);
            socket = candidate;
        } catch (LinkException e) {
            throw e;
        } catch (IOException e) {
            throw new LinkException(
                    Messages.of("link.packets-on-port-cannot-be-taken", address.port(), Reasons.of(e)), false);
        }
    }

    @Override
    public int read(byte[] buffer) throws LinkException {
        DatagramSocket open = socket;
        if (open == null) {
            throw new LinkException(Messages.of("link.is-closed", address.words()), false);
        }
        try {
            DatagramPacket packet = new DatagramPacket(buffer, buffer.length - 1);
            open.receive(packet);
            return withEnding(buffer, packet.getLength());
        } catch (SocketTimeoutException e) {
            return NOTHING;
        } catch (IOException e) {
            throw new LinkException(Messages.of("link.broke-off", address.words(), Reasons.of(e)), false);
        }
    }

    /** A packet of text is a line, also without an ending. */
    private int withEnding(byte[] buffer, int length) {
        for (int i = 0; i < length && !binary; i++) {
            int one = buffer[i] & 0xff;
            binary = one < ' ' && one != '\t' && one != '\n' && one != '\r' || one == 0x7f;
        }
        if (binary || length == 0 || buffer[length - 1] == '\n' || buffer[length - 1] == '\r') {
            return length;
        }
        buffer[length] = '\n';
        return length + 1;
    }

    @Override
    public void write(byte[] bytes) throws LinkException {
        throw new LinkException(Messages.of("link.this-link-only-listens", address.words()), true);
    }

    @Override
    public void close() {
        DatagramSocket open = socket;
        socket = null;
        if (open != null) {
            open.close();
        }
    }

    @Override
    public boolean joinsMidStream() {
        return false;
    }
}
