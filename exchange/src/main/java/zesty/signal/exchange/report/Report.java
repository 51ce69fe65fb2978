package zesty.signal.exchange.report;

import java.util.List;
import zesty.signal.core.picture.Region;
import zesty.signal.core.picture.Turned;

/**
 * What a report says, apart from how it looks.
 *
 * @param title of the whole
 * @param made when and by what, a line
 * @param sections one a take, and one before them that compares where there are several
 */
public record Report(String title, String made, List<Section> sections) {
    public Report {
        sections = List.copyOf(sections);
    }

    /**
     * @param facts short lines with a name each
     * @param pictures heat pictures, one a source that has some
     * @param paragraphs text of its own, such as notes and cautions
     */
    public record Section(
            String title,
            List<Fact> facts,
            List<Lane> lanes,
            List<Pictures> pictures,
            List<Table> tables,
            List<Paragraph> paragraphs) {
        public Section {
            facts = List.copyOf(facts);
            pictures = List.copyOf(pictures);
            lanes = List.copyOf(lanes);
            tables = List.copyOf(tables);
            paragraphs = List.copyOf(paragraphs);
        }
    }

    /**
     * Heat pictures of one source on one scale.
     *
     * @param low and {@code high} ends of the scale, in {@code unit}
     */
    public record Pictures(
            String title, String unit, double low, double high, List<Region> regions, Turned how, List<Frame> frames) {
        public Pictures {
            regions = List.copyOf(regions);
            frames = List.copyOf(frames);
        }
    }

    /** @param values row by row from the top; NaN for missing pixels */
    public record Frame(String caption, double[] values) {}

    /** A name and what it is. */
    public record Fact(String name, String value) {}

    /** A heading and its text. */
    public record Paragraph(String title, List<String> lines) {
        public Paragraph {
            lines = List.copyOf(lines);
        }
    }

    /** A table; every row has as many cells as the head. */
    public record Table(String title, List<String> head, List<List<String>> rows) {
        public Table {
            head = List.copyOf(head);
            rows = List.copyOf(rows);
        }
    }

    /**
     * A signal over time, as lowest and highest of each of equally long columns from left to right.
     *
     * @param low and {@code high} NaN where there is nothing
     * @param marks times in s that are marked
     */
    public record Lane(
            String name, String unit, double fromSeconds, double toSeconds, float[] low, float[] high, double[] marks) {
        /** @return lowest and highest of all, a little apart where they are one; nothing where nothing is there */
        public double[] range() {
            double least = Double.POSITIVE_INFINITY;
            double most = Double.NEGATIVE_INFINITY;
            for (int i = 0; i < low.length; i++) {
                if (low[i] == low[i]) {
                    least = Math.min(least, low[i]);
                    most = Math.max(most, high[i]);
                }
            }
            if (!(most >= least)) {
                return new double[] {0, 1};
            }
            double apart = most > least ? 0 : Math.max(1e-3, Math.abs(most) * 0.01);
            return new double[] {least - apart, most + apart};
        }
    }
}
