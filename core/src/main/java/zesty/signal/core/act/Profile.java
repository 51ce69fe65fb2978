package zesty.signal.core.act;

import java.util.List;
import java.util.Optional;
import zesty.signal.core.text.Messages;

/**
 * What is usual for one person, boat or room: limits in percent lie between two values that were measured of it.
 *
 * @param name "the helm"
 * @param spans one for each thing that is watched, none twice
 */
public record Profile(String name, List<Span> spans) {
    /**
     * @param rest what counts as 0 %: rest, quiet, the resting pulse
     * @param full what counts as 100 %: the hardest pull; another value than rest, above or below
     */
    public record Span(Watch watch, double rest, double full) {
        public Span {
            if (!Double.isFinite(rest) || !Double.isFinite(full) || rest == full) {
                throw new IllegalArgumentException(
                        Messages.of("act.0-and-100-of-must-be-two-different", watch.words(), rest, full));
            }
        }

        /** @return the value at so many percent */
        public double at(double percent) {
            return rest + percent / 100 * (full - rest);
        }

        /** @return how much so many percent are of it, never negative */
        public double width(double percent) {
            return Math.abs(percent / 100 * (full - rest));
        }
    }

    public Profile {
        spans = List.copyOf(spans);
        if (name.isBlank()) {
            throw new IllegalArgumentException(Messages.of("act.a-profile-needs-a-name"));
        }
        if (spans.stream().map(Span::watch).distinct().count() < spans.size()) {
            throw new IllegalArgumentException(Messages.of("act.profile-has-two-spans-of-the-same", name));
        }
    }

    public Optional<Span> of(Watch watch) {
        return spans.stream().filter(span -> span.watch().equals(watch)).findFirst();
    }

    /** @return the same profile with a span, in the place of the one of the same thing */
    public Profile with(Span span) {
        List<Span> more = new java.util.ArrayList<>(spans);
        more.removeIf(one -> one.watch().equals(span.watch()));
        more.add(span);
        return new Profile(name, more);
    }
}
