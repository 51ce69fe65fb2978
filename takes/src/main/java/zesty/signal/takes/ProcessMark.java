package zesty.signal.takes;

import java.time.Instant;

/** Names a running process so that it can be told from a later one with the same number. */
final class ProcessMark {
    private ProcessMark() {}

    static String own() {
        return of(ProcessHandle.current());
    }

    private static String of(ProcessHandle process) {
        return process.pid() + " "
                + process.info().startInstant().map(Instant::toEpochMilli).orElse(0L);
    }

    /** @return whether this process is meant */
    static boolean isOwn(String mark) {
        return own().equals(mark);
    }

    /** @return whether the process so named is still running */
    static boolean runs(String mark) {
        try {
            long pid = Long.parseLong(mark.substring(0, mark.indexOf(' ')));
            return ProcessHandle.of(pid)
                    .map(p -> p.isAlive() && of(p).equals(mark))
                    .orElse(false);
        } catch (NumberFormatException | StringIndexOutOfBoundsException e) {
            return false;
        }
    }
}
