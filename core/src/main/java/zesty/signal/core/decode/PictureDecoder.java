package zesty.signal.core.decode;

import java.nio.charset.StandardCharsets;
import zesty.signal.core.picture.PictureSetup;
import zesty.signal.core.text.Messages;

/** Decodes pictures. A picture that lacks a line, or whose line lacks a number, is set aside whole. */
final class PictureDecoder extends LineDecoder {
    private final PictureFormat format;
    private final NumberText number;
    private double[] frame;
    private final int lineWidth;
    private int gathered;
    private boolean spoiled;
    /** Out of step until a heading or a blank line shows where a picture begins. */
    private boolean inStep = true;

    PictureDecoder(PictureFormat format, RejectedLines rejectedLines) {
        super(PictureFormat.SUMMARIES, "", rejectedLines);
        this.format = format;
        number = new NumberText(format.decimalComma());
        frame = new double[format.rows() * format.width()];
        lineWidth = format.perLine() ? format.rows() * format.width() : format.width();
    }

    @Override
    public PictureFormat format() {
        return format;
    }

    @Override
    public void restart(boolean midStream) {
        super.restart(midStream);
        gathered = 0;
        inStep = !midStream || format.perLine();
    }

    @Override
    boolean passesOver(String line) {
        if (format.perLine()) {
            return false;
        }
        boolean parts = line.isEmpty() || isHeading(line);
        if (parts) {
            unfinished();
            inStep = true;
        }
        return parts;
    }

    /** A line that does not begin with a number, nor with a word for a missing one, says that a picture begins. */
    private boolean isHeading(String line) {
        String first = Fields.split(line, format.delimiter(), true)[0];
        byte[] bytes = first.getBytes(StandardCharsets.UTF_8);
        number.parse(bytes, 0, bytes.length);
        return number.stop != bytes.length && !NumberText.isMissing(first) && !Character.isDigit(first.charAt(0));
    }

    private void unfinished() {
        if (gathered > 0 || spoiled) {
            rejectedLines.add(
                    lines,
                    Messages.of("decode.good-lines", gathered),
                    Messages.of("decode.a-picture-with-less-than-good", format.rows()));
        }
        gathered = 0;
        spoiled = false;
    }

    @Override
    String accept(String line) {
        String[] fields = Fields.split(line, format.delimiter(), true);
        if (fields.length != lineWidth) {
            spoiled = !format.perLine();
            return Messages.of("decode.numbers-where-a-line-of-the", fields.length, lineWidth);
        }
        if (!inStep || spoiled) {
            return spoiled
                    ? Messages.of("decode.of-a-picture-with-a-damaged-line")
                    : Messages.of("decode.of-a-picture-that-began-before-the");
        }
        int at = gathered * lineWidth;
        for (String field : fields) {
            byte[] bytes = field.getBytes(StandardCharsets.UTF_8);
            double value = number.parse(bytes, 0, bytes.length);
            if (number.stop != bytes.length && !NumberText.isMissing(field)) {
                spoiled = !format.perLine();
                return Messages.of("decode.is-not-a-number", field);
            }
            frame[at++] = number.stop == bytes.length ? value : Double.NaN;
        }
        gathered++;
        if (gathered * lineWidth == format.rows() * format.width()) {
            rows.add(PictureSetup.summaries(frame), frame);
            frame = new double[frame.length];
            gathered = 0;
            inStep = format.perLine();
        }
        return null;
    }
}
