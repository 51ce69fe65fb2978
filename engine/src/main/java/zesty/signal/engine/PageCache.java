package zesty.signal.engine;

import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.Map;

/** The pages of a long take that were looked at last, as many as fit into so much memory. Any thread. */
final class PageCache {
    private record Key(Object of, long page) {}

    private final long mostValues;
    private final LinkedHashMap<Key, double[]> pages = new LinkedHashMap<>(64, 0.75f, true);
    private long values;

    /** @param mostValues 8 bytes each; the newest page is kept however long it is */
    PageCache(long mostValues) {
        this.mostValues = mostValues;
    }

    /** @return null when it is not there */
    synchronized double[] get(Object of, long page) {
        return pages.get(new Key(of, page));
    }

    synchronized boolean holds(Object of, long page) {
        return pages.containsKey(new Key(of, page));
    }

    synchronized void put(Object of, long page, double[] made) {
        double[] before = pages.put(new Key(of, page), made);
        values += made.length - (before == null ? 0 : before.length);
        Iterator<Map.Entry<Key, double[]>> oldest = pages.entrySet().iterator();
        while (values > mostValues && pages.size() > 1) {
            values -= oldest.next().getValue().length;
            oldest.remove();
        }
    }
}
