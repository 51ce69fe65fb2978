package zesty.signal.core.clean;

import java.util.List;
import java.util.stream.Collectors;
import zesty.signal.core.text.Messages;

/** Reads one step of a recipe and refuses what makes no sense, with what would be right. */
final class StepParser {
    /** One of each, the most wanted first: what is known is what is here. */
    private static final List<String> EXAMPLES = List.of(
            "bandpass:0.5..8@2",
            "lowpass:8@2",
            "highpass:0.5@2",
            "bandstop:48..52@2",
            "notch:50@30",
            "comb:50@15",
            "hum:50@1",
            "baseline:0.6",
            "median:5",
            "despike:3@3",
            "mean:10",
            "mean:0.1s",
            "smooth:11@3",
            "wavelet:4@3",
            "exp:0.2",
            "rectify",
            "rms:0.1",
            "envelope:6",
            "differentiate",
            "integrate:0.5",
            "detrend",
            "offset:-2.5",
            "scale:0.1",
            "fill:0.5",
            "unclip:0.05",
            "resample:100");

    static final int LONGEST_WINDOW = 1_000_000;
    /** A median, smoothing or spike window costs more the longer it is. */
    static final int LONGEST_CENTRED = 10_001;

    private final String text;
    private final String name;
    private final String arguments;

    private StepParser(String text) {
        this.text = text;
        int colon = text.indexOf(':');
        name = (colon < 0 ? text : text.substring(0, colon)).strip();
        arguments = colon < 0 ? null : text.substring(colon + 1).strip();
    }

    /** @return one step of each kind, the most wanted first */
    static List<Step> examples() {
        return EXAMPLES.stream().map(StepParser::parse).toList();
    }

    private static String known() {
        return EXAMPLES.stream()
                .map(example -> example.replaceFirst(":.*", ""))
                .distinct()
                .collect(Collectors.joining(", "));
    }

    static Step parse(String text) {
        if (text.isEmpty()) {
            throw new RecipeException(Messages.of("clean.an-empty-step-a-recipe-is-steps"));
        }
        return new StepParser(text).step();
    }

    private Step step() {
        return switch (name) {
            case "mean", "median" -> window();
            case "comb" -> {
                String[] parts = two("comb:50@15");
                double q = positive(parts[1], "comb:50@15");
                if (q <= 0.5) {
                    throw wrong(Messages.of("clean.a-q-of-would-be-wider-than-the", parts[1]), "comb:50@15");
                }
                yield new Comb(positive(parts[0], "comb:50@15"), q);
            }
            case "hum" -> {
                String[] parts = two("hum:50@1");
                yield new Hum(positive(parts[0], "hum:50@1"), positive(parts[1], "hum:50@1"));
            }
            case "baseline" -> new BaselineRemoval(positive(one("baseline:0.6"), "baseline:0.6"));
            case "fill" -> new Fill(positive(one("fill:0.5"), "fill:0.5"));
            case "unclip" -> new Declipper(positive(one("unclip:0.05"), "unclip:0.05"));
            case "wavelet" -> {
                String[] parts = two("wavelet:4@3");
                double levels = number(parts[0], "wavelet:4@3");
                if (levels != Math.rint(levels) || levels < 1 || levels > Wavelet.MOST_LEVELS) {
                    throw wrong(
                            Messages.of("clean.the-levels-are-a-whole-number-from", Wavelet.MOST_LEVELS),
                            "wavelet:4@3");
                }
                yield new Wavelet((int) levels, positive(parts[1], "wavelet:4@3"));
            }
            case "resample" -> new Resample(positive(one("resample:100"), "resample:100"));
            case "differentiate" -> {
                none("differentiate");
                yield new Differentiate();
            }
            case "integrate" -> new Integrate(positive(one("integrate:0.5"), "integrate:0.5"));
            case "lowpass" -> {
                String[] parts = two("lowpass:8@2");
                yield new LowPass(positive(parts[0], "lowpass:8@2"), order(parts[1]));
            }
            case "highpass" -> {
                String[] parts = two("highpass:0.5@2");
                yield new HighPass(positive(parts[0], "highpass:0.5@2"), order(parts[1]));
            }
            case "bandpass" -> {
                double[] band = band("bandpass:0.5..8@2");
                yield new BandPass(band[0], band[1], (int) band[2]);
            }
            case "bandstop" -> {
                double[] band = band("bandstop:48..52@2");
                yield new BandStop(band[0], band[1], (int) band[2]);
            }
            case "notch" -> {
                String[] parts = two("notch:50@30");
                double q = positive(parts[1], "notch:50@30");
                if (q <= 0.5) {
                    throw wrong(Messages.of("clean.a-q-of-would-be-wider-than-the", parts[1]), "notch:50@30");
                }
                yield new Notch(positive(parts[0], "notch:50@30"), q);
            }
            case "smooth" -> smooth();
            case "rectify" -> {
                none("rectify");
                yield new Rectify();
            }
            case "rms" -> new Rms(positive(one("rms:0.1"), "rms:0.1"));
            case "envelope" -> new Envelope(positive(one("envelope:6"), "envelope:6"));
            case "detrend" -> {
                none("detrend");
                yield new Detrend();
            }
            case "offset" -> new Offset(number(one("offset:-2.5"), "offset:-2.5"));
            case "scale" -> new Scale(number(one("scale:0.1"), "scale:0.1"));
            case "exp" -> {
                double alpha = positive(one("exp:0.2"), "exp:0.2");
                if (alpha > 1) {
                    throw wrong(Messages.of("clean.the-weight-of-the-new-sample-is"), "exp:0.2");
                }
                yield new Exponential(alpha);
            }
            case "despike" -> {
                String[] parts = two("despike:3@3");
                int half = samples(parts[0], "despike:3@3", false, LONGEST_CENTRED / 2);
                yield new Despike(half, positive(parts[1], "despike:3@3"));
            }
            default -> throw new RecipeException(Messages.of("clean.no-step-is-called-there-are", name, known()));
        };
    }

    /** A mean or a median over a number of samples, or over so many seconds. */
    private Step window() {
        boolean median = name.equals("median");
        String example = median ? "median:5" : "mean:10";
        String window = one(example).strip();
        if (window.endsWith("s")) {
            return new Timed(median, positive(window.substring(0, window.length() - 1), name + ":0.5s"));
        }
        return median
                ? new Median(samples(window, example, true, LONGEST_CENTRED))
                : new Mean(samples(window, example, false, LONGEST_WINDOW));
    }

    private Step smooth() {
        String example = "smooth:11@3";
        String[] parts = two(example);
        int samples = samples(parts[0], example, true, 1001);
        double degree = number(parts[1], example);
        if (degree != Math.rint(degree) || degree < 0 || degree >= samples || degree > 10) {
            throw wrong(Messages.of("clean.the-degree-is-a-whole-number-from"), example);
        }
        return new Smooth(samples, (int) degree);
    }

    private double[] band(String example) {
        String[] parts = two(example);
        int dots = parts[0].indexOf("..");
        if (dots < 0) {
            throw wrong(Messages.of("clean.a-band-is-written-low-high"), example);
        }
        double low = positive(parts[0].substring(0, dots), example);
        double high = positive(parts[0].substring(dots + 2), example);
        if (!(low < high)) {
            throw wrong(Messages.of("clean.the-low-corner-must-be-below-the"), example);
        }
        return new double[] {low, high, order(parts[1])};
    }

    private int order(String part) {
        double order = number(part, "order 2");
        if (order != Math.rint(order) || order < 1 || order > FilterDesign.HIGHEST_ORDER) {
            throw wrong(
                    Messages.of("clean.the-order-is-a-whole-number-from-1", FilterDesign.HIGHEST_ORDER),
                    name + " … @2");
        }
        return (int) order;
    }

    private int samples(String part, String example, boolean odd, int longest) {
        double samples = number(part, example);
        if (samples != Math.rint(samples) || samples < 1 || samples > longest || odd && samples % 2 == 0) {
            throw wrong(
                    Messages.of(
                            "clean.the-window-is-number-of-samples",
                            (odd ? Messages.of("clean.an-odd") : Messages.of("clean.a-whole")),
                            longest),
                    example);
        }
        return (int) samples;
    }

    private double positive(String part, String example) {
        double value = number(part, example);
        if (!(value > 0)) {
            throw wrong(Messages.of("clean.must-be-above-0", part.strip()), example);
        }
        return value;
    }

    private double number(String part, String example) {
        try {
            double value = Double.parseDouble(part.strip());
            if (Double.isFinite(value) && !part.strip().matches(".*[a-df-zA-DF-Z]")) {
                return value;
            }
        } catch (NumberFormatException e) {
            // Said below, with the rest.
        }
        throw wrong(Messages.of("clean.is-not-a-number", part.strip()), example);
    }

    private void none(String example) {
        if (arguments != null) {
            throw wrong(Messages.of("clean.it-takes-nothing-after-it"), example);
        }
    }

    private String one(String example) {
        if (arguments == null || arguments.isEmpty() || arguments.contains("@")) {
            throw wrong(Messages.of("clean.it-takes-one-number"), example);
        }
        return arguments;
    }

    private String[] two(String example) {
        String[] parts = arguments == null ? new String[0] : arguments.split("@", -1);
        if (parts.length != 2) {
            throw wrong(Messages.of("clean.it-takes-two-numbers-parted-by"), example);
        }
        return parts;
    }

    private RecipeException wrong(String why, String example) {
        return new RecipeException(Messages.of("clean.step-for-example", text, why, example));
    }
}
