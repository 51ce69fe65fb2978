package zesty.signal.core.doctor;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.function.IntToDoubleFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import zesty.signal.core.read.Nature;

/** Signals small enough to be counted by hand, and what the doctor says of them. */
final class Paper {
    private Paper() {}

    static double[] made(int count, IntToDoubleFunction of) {
        return IntStream.range(0, count).mapToDouble(of).toArray();
    }

    static Examined examined(double[] values, double rateHz, Nature nature) {
        return new Examined(values, made(values.length, i -> i / rateHz), Double.NaN, Double.NaN, nature, Map.of());
    }

    /**
     * @param levels "100:10 300:0": from sample 100 on it is 10, from 300 on 0 again; 0 before
     * @return that course over so many samples
     */
    static double[] course(int count, String levels) {
        double[] x = new double[count];
        for (String one : levels.isBlank() ? new String[0] : levels.split(" ")) {
            String[] parts = one.split(":");
            Arrays.fill(x, Integer.parseInt(parts[0]), count, Double.parseDouble(parts[1]));
        }
        return x;
    }

    static String said(Finding finding) {
        return finding == null ? "nothing" : finding.diagnosis() + ": " + finding.evidence();
    }

    static String said(List<Finding> findings) {
        return findings.isEmpty()
                ? "nothing"
                : findings.stream().map(Paper::said).collect(Collectors.joining("; "));
    }
}
