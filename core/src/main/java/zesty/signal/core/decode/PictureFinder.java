package zesty.signal.core.decode;

import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/** Recognises pictures of numbers. */
final class PictureFinder {
    private static final int FEWEST_COLUMNS = 4;
    private static final int FEWEST_ROWS = 4;
    /** One line of so many numbers is a picture, not a row of columns. */
    static final int MANY = 64;

    /** Pixels beside and below each other correlate at least so; columns that have nothing to do with each other do not. */
    private static final double ALIKE = 0.25;

    private static final int MOST_LOOKED_AT = 6;

    private PictureFinder() {}

    static Optional<StreamFormat> find(TextLines text) {
        Optional<StreamFormat> best = Optional.empty();
        int most = 0;
        for (char delimiter : DelimitedFormat.DELIMITERS.toCharArray()) {
            for (boolean comma : new boolean[] {false, true}) {
                if (comma && (delimiter == ',' || !text.has(',')) || !text.has(delimiter)) {
                    continue;
                }
                Blocks blocks = blocks(text, delimiter, comma);
                if (blocks.lines() > most) {
                    most = blocks.lines();
                    best = Optional.of(blocks.format(delimiter, comma));
                }
            }
        }
        return best;
    }

    /** Blocks of lines alike. @param lines how many lines they are in all; 0 when there are none */
    private record Blocks(int rows, int width, int lines, String unit) {
        StreamFormat format(char delimiter, boolean comma) {
            boolean perLine = rows == 1;
            int[] shape = perLine ? shape(width) : new int[] {rows, width};
            return PictureFormat.of(shape[0], shape[1], delimiter, comma, perLine, unit);
        }
    }

    private static Blocks blocks(TextLines text, char delimiter, boolean comma) {
        Map<Integer, Integer> widths = new HashMap<>();
        int[] own = new int[text.lines().size()];
        for (int i = 0; i < own.length; i++) {
            String line = text.lines().get(i);
            String[] fields = line.isEmpty() ? new String[0] : Fields.split(line, delimiter, true);
            own[i] = fields.length >= FEWEST_COLUMNS && DelimitedFinder.allNumbers(fields, comma) ? fields.length : 0;
            if (own[i] > 0) {
                widths.merge(own[i], 1, Integer::sum);
            }
        }
        int width = widths.entrySet().stream()
                .max(Map.Entry.comparingByValue())
                .map(Map.Entry::getKey)
                .orElse(0);
        int high = height(own, width);
        boolean blocks = high >= FEWEST_ROWS && (width < MANY || repeats(text, own, width, high, delimiter, comma));
        if (!blocks
                && width >= MANY
                && shape(width)[0] > 1
                && width <= PictureFormat.MOST_PIXELS
                && smooth(text, own, width, delimiter, comma)) {
            return new Blocks(1, width, widths.get(width), "");
        }
        Map<Integer, Integer> heights = heights(own, width);
        boolean picture = high >= FEWEST_ROWS
                && heights.get(high) * 2
                        > heights.values().stream().mapToInt(i -> i).sum()
                && (long) high * width <= PictureFormat.MOST_PIXELS;
        return new Blocks(high, width, picture ? high * heights.get(high) : 0, "");
    }

    /** @return of how many lines blocks are that are parted from the others, most often; 0 for none */
    private static int height(int[] own, int width) {
        return heights(own, width).entrySet().stream()
                .max(Map.Entry.comparingByValue())
                .map(Map.Entry::getKey)
                .orElse(0);
    }

    /**
     * Whether a line is more like the one a block further on, the same of the next picture, than like the next one. Where each line
     * is a whole picture it is the other way round, however often something else stands between.
     */
    private static boolean repeats(TextLines text, int[] own, int width, int high, char delimiter, boolean comma) {
        double next = 0;
        double later = 0;
        int compared = 0;
        int step = Math.max(1, high / MOST_LOOKED_AT);
        for (int i = 0; i + high + 1 < own.length && compared < 2 * MOST_LOOKED_AT; i += step) {
            int further = i + high + 1;
            boolean three = own[i] == width && own[i + 1] == width && own[further] == width;
            if (three) {
                double[] one = pixels(text.lines().get(i), width, delimiter, comma);
                next += apart(one, pixels(text.lines().get(i + 1), width, delimiter, comma));
                later += apart(one, pixels(text.lines().get(further), width, delimiter, comma));
                compared++;
            }
        }
        return compared > 0 && later < next;
    }

    private static double apart(double[] a, double[] b) {
        double sum = 0;
        for (int p = 0; p < a.length; p++) {
            double difference = Math.abs(a[p] - b[p]);
            sum += difference == difference ? difference : 0;
        }
        return sum;
    }

    private static double[] pixels(String line, int width, char delimiter, boolean comma) {
        NumberText number = new NumberText(comma);
        String[] fields = Fields.split(line, delimiter, true);
        double[] pixels = new double[width];
        for (int p = 0; p < width; p++) {
            byte[] field = fields[p].strip().getBytes(StandardCharsets.UTF_8);
            pixels[p] = number.parse(field, 0, field.length);
        }
        return pixels;
    }

    private static Map<Integer, Integer> heights(int[] own, int width) {
        Map<Integer, Integer> heights = new HashMap<>();
        int run = 0;
        boolean parted = false;
        for (int each : own) {
            if (width > 0 && each == width) {
                run++;
                continue;
            }
            if (run > 0 && parted) {
                heights.merge(run, 1, Integer::sum);
            }
            parted = true;
            run = 0;
        }
        return heights;
    }

    /** Whether pixels that would lie beside and below each other are alike, as those of a picture are and columns are not. */
    private static boolean smooth(TextLines text, int[] own, int width, char delimiter, boolean comma) {
        int columns = shape(width)[1];
        double beside = 0;
        double below = 0;
        int lines = 0;
        for (int i = 0; i < own.length && lines < MOST_LOOKED_AT; i++) {
            if (own[i] != width) {
                continue;
            }
            double[] pixels = pixels(text.lines().get(i), width, delimiter, comma);
            beside += alike(pixels, 1);
            below += alike(pixels, columns);
            lines++;
        }
        return lines > 0 && beside > ALIKE * lines && below > ALIKE * lines;
    }

    /** @return the correlation of each pixel with the one so many further on */
    private static double alike(double[] x, int further) {
        double mean = 0;
        int n = 0;
        for (double value : x) {
            mean += value == value ? value : 0;
            n += value == value ? 1 : 0;
        }
        mean /= Math.max(1, n);
        double xy = 0;
        double xx = 0;
        for (int i = 0; i + further < x.length; i++) {
            double own = x[i] - mean;
            double other = x[i + further] - mean;
            if (own == own && other == other) {
                xy += own * other;
                xx += (own * own + other * other) / 2;
            }
        }
        return xx > 0 ? xy / xx : 1;
    }

    /** The shape nearest to 3 : 4 that so many pixels have. */
    private static int[] shape(int pixels) {
        int[] best = {1, pixels};
        double nearest = Double.POSITIVE_INFINITY;
        for (int rows = 2; rows <= pixels / 2; rows++) {
            if (pixels % rows == 0) {
                double off = Math.abs(Math.log(rows * 4.0 / (pixels / rows * 3.0)));
                if (off < nearest) {
                    nearest = off;
                    best = new int[] {rows, pixels / rows};
                }
            }
        }
        return nearest < 0.6 ? best : new int[] {1, pixels};
    }
}
