package zesty.signal.boards.link;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.SocketTimeoutException;

/** Packets that boards send to a UDP port of this computer; each is taken as bytes of one stream. */
final class UdpLink implements Link {
    private static final int READ_TIMEOUT_MS = 100;

    private final LinkAddress.Udp address;
    private volatile DatagramSocket socket;

    UdpLink(LinkAddress.Udp address) {
        this.address = address;
    }

    @Override
    public void open() throws LinkException {
        try {
            DatagramSocket candidate = new DatagramSocket(address.port());
            candidate.setSoTimeout(READ_TIMEOUT_MS);
            socket = candidate;
        } catch (IOException e) {
            throw new LinkException(
                    "port " + address.port() + " is taken (" + e.getMessage()
                            + "). Close the other program or use another",
                    false);
        }
    }

    @Override
    public int read(byte[] buffer) throws LinkException {
        DatagramSocket open = socket;
        if (open == null) {
            throw new LinkException(address.words() + " is closed", false);
        }
        try {
            DatagramPacket packet = new DatagramPacket(buffer, buffer.length);
            open.receive(packet);
            return packet.getLength();
        } catch (SocketTimeoutException e) {
            return NOTHING;
        } catch (IOException e) {
            throw new LinkException(address.words() + " broke off: " + e.getMessage(), false);
        }
    }

    @Override
    public void write(byte[] bytes) throws LinkException {
        throw new LinkException(address.words() + ": this link only listens", true);
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
