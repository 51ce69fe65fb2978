package zesty.signal.boards.link;

import zesty.signal.core.text.Messages;

/** Messages to a broker, under a prefix. One thread; opens anew after it broke. */
public final class BrokerOut implements AutoCloseable {
    private final LinkAddress.Broker address;
    private BrokerSession session;
    private volatile String broken = "";

    /** @param address {@code mqtt://[user@]host[:port]/prefix}. @throws IllegalArgumentException when it is none, saying what would do */
    public BrokerOut(String address) {
        LinkAddress parsed = LinkAddress.parse(address);
        if (!(parsed instanceof LinkAddress.Broker broker) || broker.many()) {
            throw new IllegalArgumentException(Messages.of("link.is-no-place-to-publish-mqtt-host", address));
        }
        this.address = broker;
    }

    /** @return its words for a person */
    public String words() {
        return address.words();
    }

    /** Sends a message under the prefix; whoever comes later gets the newest. @throws LinkException when the broker has it not */
    public void publish(String below, byte[] payload) throws LinkException {
        if (session != null && !broken.isEmpty()) {
            close();
        }
        if (session == null) {
            broken = "";
            BrokerSession fresh = new BrokerSession(address, why -> broken = why);
            try {
                fresh.connect();
            } catch (LinkException e) {
                fresh.close();
                throw e;
            }
            session = fresh;
        }
        session.publish(address.topic() + "/" + below, payload, true);
    }

    @Override
    public void close() {
        if (session != null) {
            session.close();
            session = null;
        }
    }
}
