package zesty.signal.app.show;

import java.io.IOException;
import java.net.Inet4Address;
import java.net.InetAddress;
import java.net.NetworkInterface;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import zesty.signal.core.text.Messages;

/** Who can reach the page. */
public enum Where {
    /** Programs on this computer. */
    HERE,
    /** Whoever is in the same network and has the address. */
    NETWORK;

    /** @return the address to be reached at. @throws IOException when this computer is in no network */
    InetAddress address() throws IOException {
        if (this == HERE) {
            return InetAddress.getByAddress("localhost", new byte[] {127, 0, 0, 1});
        }
        List<InetAddress> all = new ArrayList<>();
        for (NetworkInterface one : Collections.list(NetworkInterface.getNetworkInterfaces())) {
            if (one.isUp() && !one.isLoopback() && !one.isPointToPoint()) {
                for (InetAddress address : Collections.list(one.getInetAddresses())) {
                    if (address instanceof Inet4Address && !address.isLinkLocalAddress()) {
                        all.add(address);
                    }
                }
            }
        }
        // A private network's address before one that the world may reach.
        return all.stream()
                .filter(InetAddress::isSiteLocalAddress)
                .findFirst()
                .or(() -> all.stream().findFirst())
                .orElseThrow(() -> new IOException(Messages.of("show.this-computer-is-in-no-network")));
    }
}
