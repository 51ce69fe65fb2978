package zesty.signal.boards.link;

import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/** Passwords of brokers for as long as the program runs: in memory, never in a rig, a take or a log. Any thread. */
public final class BrokerSecrets {
    private static final Map<String, byte[]> TYPED = new ConcurrentHashMap<>();

    private BrokerSecrets() {}

    private static String key(LinkAddress.Broker address) {
        return address.user() + "@" + address.host() + ":" + address.port();
    }

    /** Keeps a password that the maker typed until the program ends. */
    public static void keep(LinkAddress.Broker address, String password) {
        TYPED.put(key(address), password.getBytes(StandardCharsets.UTF_8));
    }

    /** @return what was typed, or what the environment has; null for neither */
    static byte[] of(LinkAddress.Broker address) {
        byte[] typed = TYPED.get(key(address));
        String set = System.getenv(BrokerLink.PASSWORD);
        return typed != null ? typed : set == null ? null : set.getBytes(StandardCharsets.UTF_8);
    }
}
