package zesty.signal.app.show;

import java.util.LinkedHashMap;
import java.util.Map;

/** How often an address may ask: so many at once, and so many a second. Any thread. */
final class Rates {
    private static final double MOST_AT_ONCE = 40;
    private static final double A_SECOND = 10;
    /** More addresses than these are not kept in mind; the oldest are forgotten. */
    private static final int MOST_ADDRESSES = 1024;

    private record Bucket(double left, long nanos) {}

    private final Map<String, Bucket> buckets = new LinkedHashMap<>() {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Bucket> eldest) {
            return size() > MOST_ADDRESSES;
        }
    };

    synchronized boolean allows(String address, long nanoTime) {
        Bucket bucket = buckets.getOrDefault(address, new Bucket(MOST_AT_ONCE, nanoTime));
        double left = Math.min(MOST_AT_ONCE, bucket.left() + A_SECOND * (nanoTime - bucket.nanos()) * 1e-9);
        boolean allowed = left >= 1;
        buckets.put(address, new Bucket(allowed ? left - 1 : left, nanoTime));
        return allowed;
    }
}
