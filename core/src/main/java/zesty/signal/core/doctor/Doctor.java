package zesty.signal.core.doctor;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;

/** Examines a stretch of a signal, some twenty seconds of it, and says at most three things, the most harmful first. */
public final class Doctor {
    /** So many seconds are looked at where a rate allows it. */
    public static final double SECONDS = 20;

    private static final int MOST = 3;
    /** Fewer numbers, or a shorter time, say nothing. */
    private static final int LEAST = 40;

    private static final double LEAST_SECONDS = 2;

    private Doctor() {}

    /** @return what is wrong; empty when nothing is, or when there is too little to tell */
    public static List<Finding> examine(Examined examined) {
        Measures measures = new Measures(examined);
        if (measures.count() < LEAST || measures.span() < LEAST_SECONDS) {
            return List.of();
        }
        Finding flat = Levels.flat(examined, measures);
        if (flat != null) {
            return List.of(flat);
        }
        List<Finding> found = new ArrayList<>();
        found.add(Levels.atEnd(examined, measures));
        found.add(Levels.clipped(examined, measures));
        found.add(Levels.fewBits(examined, measures));
        found.add(Jumps.dropouts(examined, measures));
        found.add(Jumps.uneven(examined, measures));
        found.addAll(Jumps.shifts(examined, measures));
        found.add(InStep.find(examined, measures));
        found.addAll(Tones.find(examined, measures));
        found.addAll(Slow.find(examined, measures));
        found.removeIf(Objects::isNull);
        found.sort(Comparator.comparing(Finding::diagnosis));
        return withoutEchoes(found);
    }

    /** What another finding brings about is not told beside it. */
    private static List<Finding> withoutEchoes(List<Finding> found) {
        List<Finding> told = new ArrayList<>();
        for (Finding one : found) {
            boolean jumpy = told.stream()
                    .anyMatch(f -> f.diagnosis() == Diagnosis.LOOSE || f.diagnosis() == Diagnosis.DROPOUTS);
            boolean ended = told.stream().anyMatch(f -> f.diagnosis() == Diagnosis.AT_END);
            boolean cut = told.stream().anyMatch(f -> f.diagnosis() == Diagnosis.CLIPPED);
            boolean stepped = told.stream().anyMatch(f -> f.diagnosis() == Diagnosis.STEPPED);
            boolean echo =
                    switch (one.diagnosis()) {
                        case STEPPED, WANDER, NOISE -> jumpy;
                        case DRIFT -> jumpy || stepped;
                        case CLIPPED, FEW_BITS -> ended;
                        case LOOSE -> cut;
                        default -> false;
                    };
            if (!echo && told.size() < MOST) {
                told.add(one);
            }
        }
        return List.copyOf(told);
    }
}
