package zesty.signal.exchange.report;

import java.awt.Color;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.List;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.pdmodel.font.PDType0Font;
import org.apache.pdfbox.pdmodel.graphics.image.LosslessFactory;
import org.apache.pdfbox.pdmodel.graphics.image.PDImageXObject;
import zesty.signal.core.scale.Digits;

/** Pages for a printer, A4 upright. One report a writer. */
public final class ReportPdf implements AutoCloseable {
    private static final float MARGIN = 48;
    private static final float WIDTH = PDRectangle.A4.getWidth() - 2 * MARGIN;
    private static final float LANE = 96;
    private static final float AXIS = 44;
    /** Heat pictures beside each other. */
    private static final int ACROSS = 3;

    private static final Color INK = new Color(0x1d2730);
    private static final Color PALE = new Color(0xc9d1d6);
    private static final Color TRACE = new Color(0x12506b);
    private static final Color MARK = new Color(0xb4531a);

    private final PDDocument document = new PDDocument();
    private final PDFont plain;
    private final PDFont bold;
    private PDPageContentStream page;
    private float y;

    private ReportPdf(InputStream plainFont, InputStream boldFont) throws IOException {
        plain = PDType0Font.load(document, plainFont);
        bold = PDType0Font.load(document, boldFont);
    }

    /**
     * Writes all of it; the streams stay the caller's.
     *
     * @param plainFont and {@code boldFont} TrueType fonts; what is used of them goes into the file
     */
    public static void write(Report report, InputStream plainFont, InputStream boldFont, OutputStream out)
            throws IOException {
        try (ReportPdf pdf = new ReportPdf(plainFont, boldFont)) {
            pdf.document.getDocumentInformation().setTitle(report.title());
            pdf.turn();
            pdf.line(report.title(), pdf.bold, 18);
            pdf.line(report.made(), pdf.plain, 9);
            for (Report.Section section : report.sections()) {
                pdf.section(section);
            }
            pdf.page.close();
            pdf.page = null;
            pdf.number();
            pdf.document.save(out);
        }
    }

    @Override
    public void close() throws IOException {
        if (page != null) {
            page.close();
        }
        document.close();
    }

    private void turn() throws IOException {
        if (page != null) {
            page.close();
        }
        PDPage fresh = new PDPage(PDRectangle.A4);
        document.addPage(fresh);
        page = new PDPageContentStream(document, fresh);
        y = PDRectangle.A4.getHeight() - MARGIN;
    }

    private void number() throws IOException {
        int pages = document.getNumberOfPages();
        for (int p = 0; p < pages; p++) {
            try (PDPageContentStream foot = new PDPageContentStream(
                    document, document.getPage(p), PDPageContentStream.AppendMode.APPEND, true)) {
                text(foot, "page " + (p + 1) + " of " + pages, plain, 8, MARGIN, MARGIN / 2, INK);
            }
        }
    }

    /** Makes room for something that must not be parted. */
    private void room(float height) throws IOException {
        if (y - height < MARGIN) {
            turn();
        }
    }

    private void section(Report.Section section) throws IOException {
        y -= 10;
        room(120);
        stroke(PALE, 1, MARGIN, y, MARGIN + WIDTH, y);
        y -= 6;
        line(section.title(), bold, 13);
        for (Report.Fact fact : section.facts()) {
            List<String> lines = wrapped(fact.value(), plain, 9.5f, WIDTH - 110);
            for (int i = 0; i < lines.size(); i++) {
                room(13);
                y -= 13;
                if (i == 0) {
                    text(page, fact.name(), plain, 9.5f, MARGIN, y, new Color(0x4d5c66));
                }
                text(page, lines.get(i), plain, 9.5f, MARGIN + 110, y, INK);
            }
        }
        for (Report.Lane lane : section.lanes()) {
            lane(lane);
        }
        for (Report.Pictures pictures : section.pictures()) {
            pictures(pictures);
        }
        for (Report.Table table : section.tables()) {
            table(table);
        }
        for (Report.Paragraph paragraph : section.paragraphs()) {
            room(40);
            y -= 4;
            line(paragraph.title(), bold, 10.5f);
            for (String one : paragraph.lines()) {
                line(one, plain, 9.5f);
            }
        }
    }

    private void line(String words, PDFont font, float size) throws IOException {
        for (String one : wrapped(words, font, size, WIDTH)) {
            room(size * 1.4f);
            y -= size * 1.4f;
            text(page, one, font, size, MARGIN, y, INK);
        }
    }

    private static List<String> wrapped(String words, PDFont font, float size, float width) throws IOException {
        List<String> lines = new ArrayList<>();
        StringBuilder line = new StringBuilder();
        for (String word : words.split(" ")) {
            String longer = line.isEmpty() ? word : line + " " + word;
            if (width(longer, font, size) > width && !line.isEmpty()) {
                lines.add(line.toString());
                line = new StringBuilder(word);
            } else {
                line = new StringBuilder(longer);
            }
        }
        lines.add(line.toString());
        return lines;
    }

    /** What the font has no sign for is shown as a question mark, so that nothing stops a page. */
    private static String drawn(String words, PDFont font) {
        StringBuilder drawn = new StringBuilder();
        words.codePoints().forEach(sign -> {
            String one = new String(Character.toChars(sign));
            try {
                font.encode(one);
                drawn.append(one);
            } catch (IOException | IllegalArgumentException e) {
                drawn.append(Character.isWhitespace(sign) ? ' ' : '?');
            }
        });
        return drawn.toString();
    }

    private static float width(String words, PDFont font, float size) throws IOException {
        return font.getStringWidth(drawn(words, font)) / 1000 * size;
    }

    private static void text(
            PDPageContentStream on, String words, PDFont font, float size, float x, float at, Color colour)
            throws IOException {
        on.beginText();
        on.setFont(font, size);
        on.setNonStrokingColor(colour);
        on.newLineAtOffset(x, at);
        on.showText(drawn(words, font));
        on.endText();
    }

    private void stroke(Color colour, float width, float x1, float y1, float x2, float y2) throws IOException {
        page.setStrokingColor(colour);
        page.setLineWidth(width);
        page.moveTo(x1, y1);
        page.lineTo(x2, y2);
        page.stroke();
    }

    private void lane(Report.Lane lane) throws IOException {
        room(LANE + 44);
        y -= 4;
        line(lane.name() + (lane.unit().isEmpty() ? "" : ", " + lane.unit()), bold, 10);
        float top = y - 5;
        float left = MARGIN + AXIS;
        float wide = WIDTH - AXIS;
        double[] range = lane.range();
        for (Ticks.Tick tick : Ticks.of(range[0], range[1], 3)) {
            float at = high(tick.value(), range, top);
            stroke(PALE, 0.4f, left, at, left + wide, at);
            text(page, tick.text(), plain, 8, left - 5 - width(tick.text(), plain, 8), at - 3, INK);
        }
        for (Ticks.Tick tick : Ticks.of(lane.fromSeconds(), lane.toSeconds(), 8)) {
            float x = x(tick.value(), lane, left, wide);
            stroke(PALE, 0.3f, x, top, x, top - LANE);
            String words = tick.text() + " s";
            text(page, words, plain, 8, x - width(words, plain, 8) / 2, top - LANE - 10, INK);
        }
        for (double mark : lane.marks()) {
            float x = x(mark, lane, left, wide);
            stroke(MARK, 0.8f, x, top, x, top - LANE);
        }
        page.setStrokingColor(TRACE);
        page.setLineWidth(0.6f);
        boolean pen = false;
        int n = lane.low().length;
        for (int i = 0; i < n; i++) {
            if (!(lane.low()[i] == lane.low()[i])) {
                pen = false;
                continue;
            }
            float x = left + wide * (i + 0.5f) / n;
            if (pen) {
                page.lineTo(x, high(lane.high()[i], range, top));
            } else {
                page.moveTo(x, high(lane.high()[i], range, top));
            }
            page.lineTo(x, high(lane.low()[i], range, top));
            pen = true;
        }
        page.stroke();
        y = top - LANE - 16;
    }

    private void pictures(Report.Pictures pictures) throws IOException {
        float wide = (WIDTH - (ACROSS - 1) * 12) / ACROSS;
        float high = wide * pictures.how().seenHeight() / pictures.how().seenWidth();
        room(high + 74);
        y -= 4;
        line(pictures.title(), bold, 10);
        y -= 4;
        PDImageXObject scale = LosslessFactory.createFromImage(document, HeatImage.scale());
        String cold = Digits.about(pictures.low(), 3);
        float at = MARGIN + width(cold, plain, 8) + 5;
        text(page, cold, plain, 8, MARGIN, y - 7, INK);
        page.drawImage(scale, at, y - 8, 160, 8);
        text(page, Digits.about(pictures.high(), 3) + " " + pictures.unit(), plain, 8, at + 165, y - 7, INK);
        y -= 16;
        for (int i = 0; i < pictures.frames().size(); i++) {
            if (i % ACROSS == 0) {
                room(high + 28);
                y -= high + 12;
            }
            Report.Frame frame = pictures.frames().get(i);
            float x = MARGIN + i % ACROSS * (wide + 12);
            page.drawImage(
                    LosslessFactory.createFromImage(document, HeatImage.of(pictures, frame)), x, y + 8, wide, high);
            text(page, frame.caption(), plain, 8, x, y - 3, INK);
            if (i % ACROSS == ACROSS - 1 || i == pictures.frames().size() - 1) {
                y -= 12;
            }
        }
    }

    private static float high(double value, double[] range, float top) {
        return (float) (top - LANE * (range[1] - value) / (range[1] - range[0]));
    }

    private static float x(double seconds, Report.Lane lane, float left, float wide) {
        return (float) (left + wide * (seconds - lane.fromSeconds()) / (lane.toSeconds() - lane.fromSeconds()));
    }

    private void table(Report.Table table) throws IOException {
        room(50);
        y -= 4;
        line(table.title(), bold, 10.5f);
        float[] widths = widths(table);
        row(table.head(), widths, bold);
        for (List<String> row : table.rows()) {
            row(row, widths, plain);
        }
        y -= 4;
    }

    /** Columns as wide as their longest cell, narrowed alike where that is too much. */
    private float[] widths(Report.Table table) throws IOException {
        float[] widths = new float[table.head().size()];
        List<List<String>> all = new ArrayList<>(table.rows());
        all.add(table.head());
        float sum = 0;
        for (int c = 0; c < widths.length; c++) {
            for (List<String> row : all) {
                widths[c] = Math.max(widths[c], width(row.get(c), bold, 9) + 10);
            }
            sum += widths[c];
        }
        for (int c = 0; sum > WIDTH && c < widths.length; c++) {
            widths[c] *= WIDTH / sum;
        }
        return widths;
    }

    private void row(List<String> cells, float[] widths, PDFont font) throws IOException {
        List<List<String>> wrapped = new ArrayList<>();
        int lines = 1;
        for (int c = 0; c < widths.length; c++) {
            wrapped.add(wrapped(cells.get(c), font, 9, widths[c] - 6));
            lines = Math.max(lines, wrapped.get(c).size());
        }
        room(12.5f * lines);
        float x = MARGIN;
        for (int c = 0; c < widths.length; c++) {
            for (int i = 0; i < wrapped.get(c).size(); i++) {
                text(page, wrapped.get(c).get(i), font, 9, x, y - 12.5f * (i + 1) + 2, INK);
            }
            x += widths[c];
        }
        y -= 12.5f * lines;
        stroke(PALE, 0.4f, MARGIN, y - 1, MARGIN + WIDTH, y - 1);
    }
}
