package zesty.signal.core.read.pulse;

import java.util.Arrays;

/** Whether something was so, the last few times. One thread. */
final class Flags {
    private final boolean[] newest;
    private int seen;

    Flags(int memory) {
        newest = new boolean[memory];
    }

    void add(boolean flag) {
        newest[seen++ % newest.length] = flag;
    }

    /** @return how many times of the last few it was so */
    int count() {
        int n = 0;
        for (boolean one : newest) {
            n += one ? 1 : 0;
        }
        return n;
    }

    /** @return how many times in a row it was so at last */
    int run() {
        int n = 0;
        while (n < newest.length && n < seen && newest[(seen - 1 - n) % newest.length]) {
            n++;
        }
        return n;
    }

    void clear() {
        Arrays.fill(newest, false);
    }
}
