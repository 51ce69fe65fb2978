package zesty.signal.exchange.report;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import javax.imageio.ImageIO;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** One page for a browser that needs nothing else: pictures are drawn in it, no address is asked. */
public final class ReportHtml {
    private static final int WIDTH = 900;
    private static final int HEIGHT = 150;
    private static final int LEFT = 70;
    private static final int BOTTOM = 24;
    private static final String STYLE =
            "body{font:16px/1.45 sans-serif;max-width:60rem;margin:2rem auto;padding:0 1rem;color:#1d2730;"
                    + "background:#fff}h1{font-size:1.7rem;margin:0}h2{font-size:1.25rem;margin:2.2rem 0 .5rem;border-top:2px solid #1d2730;"
                    + "padding-top:.8rem}h3{font-size:1rem;margin:1.2rem 0 .3rem}table{border-collapse:collapse;margin:.3rem 0}"
                    + "th,td{text-align:left;padding:.2rem .9rem .2rem 0;border-bottom:1px solid #c9d1d6;vertical-align:top}"
                    + "td.n{text-align:right;font-variant-numeric:tabular-nums}dl{display:grid;grid-template-columns:max-content 1fr;gap:.15rem 1rem;"
                    + "margin:.4rem 0}dt{color:#4d5c66}dd{margin:0}p{margin:.2rem 0}svg{width:100%;height:auto;display:block}.made{color:#4d5c66}"
                    + ".heat{display:grid;grid-template-columns:repeat(auto-fill,minmax(15rem,1fr));gap:1rem}figure{margin:0}.heat img{width:100%}"
                    + ".scale img{width:16rem;height:.8rem;vertical-align:middle}"
                    + "@media print{h2{break-before:auto}svg,table{break-inside:avoid}}";

    private ReportHtml() {}

    /** The stream stays the caller's. */
    public static void write(Report report, OutputStream out) throws IOException {
        StringBuilder html = new StringBuilder("<!doctype html>\n<html lang=\"en\"><head><meta charset=\"utf-8\">"
                + "<meta name=\"viewport\" content=\"width=device-width,initial-scale=1\"><title>");
        html.append(text(report.title()))
                .append("</title><style>")
                .append(STYLE)
                .append("</style></head><body>\n");
        html.append("<h1>").append(text(report.title())).append("</h1>\n");
        html.append("<p class=\"made\">").append(text(report.made())).append("</p>\n");
        for (Report.Section section : report.sections()) {
            section(section, html);
        }
        html.append("</body></html>\n");
        out.write(html.toString().getBytes(StandardCharsets.UTF_8));
    }

    private static void section(Report.Section section, StringBuilder html) throws IOException {
        html.append("<h2>").append(text(section.title())).append("</h2>\n<dl>");
        for (Report.Fact fact : section.facts()) {
            html.append("<dt>").append(text(fact.name())).append("</dt><dd>");
            html.append(text(fact.value())).append("</dd>");
        }
        html.append("</dl>\n");
        section.lanes().forEach(lane -> lane(lane, html));
        for (Report.Pictures pictures : section.pictures()) {
            pictures(pictures, html);
        }
        for (Report.Table table : section.tables()) {
            html.append("<h3>").append(text(table.title())).append("</h3>\n<table><tr>");
            table.head().forEach(cell -> html.append("<th>").append(text(cell)).append("</th>"));
            html.append("</tr>\n");
            for (List<String> row : table.rows()) {
                html.append("<tr>");
                row.forEach(cell -> html.append(cell.matches("[-\u2212\\d].*") ? "<td class=\"n\">" : "<td>")
                        .append(text(cell))
                        .append("</td>"));
                html.append("</tr>\n");
            }
            html.append("</table>\n");
        }
        for (Report.Paragraph paragraph : section.paragraphs()) {
            html.append("<h3>").append(text(paragraph.title())).append("</h3>\n");
            paragraph
                    .lines()
                    .forEach(line -> html.append("<p>").append(text(line)).append("</p>\n"));
        }
    }

    private static void lane(Report.Lane lane, StringBuilder html) {
        double[] range = lane.range();
        double wide = WIDTH - LEFT - 8;
        double high = HEIGHT - BOTTOM - 8;
        String unit = lane.unit().isEmpty() ? "" : ", " + lane.unit();
        html.append("<h3>")
                .append(text(lane.name() + unit))
                .append("</h3>\n<svg viewBox=\"0 0 ")
                .append(WIDTH);
        html.append(' ')
                .append(HEIGHT)
                .append("\" role=\"img\" aria-label=\"")
                .append(text(Messages.of("report.over-time", lane.name())));
        html.append("\" font-size=\"12\" font-family=\"sans-serif\" fill=\"#1d2730\">");
        for (Ticks.Tick tick : Ticks.of(range[0], range[1], 3)) {
            double y = y(tick.value(), range, high);
            line(html, LEFT, y, LEFT + wide, y, "#dfe5e8");
            words(html, LEFT - 6, y + 4, "end", tick.text());
        }
        for (Ticks.Tick tick : Ticks.of(lane.fromSeconds(), lane.toSeconds(), 8)) {
            double x = x(tick.value(), lane, wide);
            line(html, x, 8, x, 8 + high, "#eef1f3");
            words(html, x, HEIGHT - 6, "middle", tick.text() + " s");
        }
        for (double mark : lane.marks()) {
            double x = x(mark, lane, wide);
            line(html, x, 8, x, 8 + high, "#b4531a");
        }
        html.append("<path fill=\"none\" stroke=\"#12506b\" stroke-width=\"1.2\" d=\"");
        boolean pen = false;
        for (int i = 0; i < lane.low().length; i++) {
            if (!(lane.low()[i] == lane.low()[i])) {
                pen = false;
                continue;
            }
            double x = LEFT + wide * (i + 0.5) / lane.low().length;
            point(html, pen ? 'L' : 'M', x, y(lane.high()[i], range, high));
            point(html, 'L', x, y(lane.low()[i], range, high));
            pen = true;
        }
        html.append("\"/></svg>\n");
    }

    private static void pictures(Report.Pictures pictures, StringBuilder html) throws IOException {
        html.append("<h3>").append(text(pictures.title())).append("</h3>\n<p class=\"scale\">");
        html.append(text(Digits.about(pictures.low(), 3))).append(' ');
        image(HeatImage.scale(), Messages.of("report.scale-from-cold-to-hot"), html);
        html.append(' ').append(text(Digits.about(pictures.high(), 3) + " " + pictures.unit()));
        html.append("</p>\n<div class=\"heat\">");
        for (Report.Frame frame : pictures.frames()) {
            html.append("<figure>");
            image(HeatImage.of(pictures, frame), frame.caption(), html);
            html.append("<figcaption>").append(text(frame.caption())).append("</figcaption></figure>");
        }
        html.append("</div>\n");
    }

    private static void image(BufferedImage image, String words, StringBuilder html) throws IOException {
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(image, "png", png);
        html.append("<img alt=\"").append(text(words)).append("\" src=\"data:image/png;base64,");
        html.append(Base64.getEncoder().encodeToString(png.toByteArray())).append("\">");
    }

    private static double y(double value, double[] range, double high) {
        return 8 + high * (range[1] - value) / (range[1] - range[0]);
    }

    private static double x(double seconds, Report.Lane lane, double wide) {
        return LEFT + wide * (seconds - lane.fromSeconds()) / (lane.toSeconds() - lane.fromSeconds());
    }

    private static void point(StringBuilder html, char command, double x, double y) {
        html.append(command).append(String.format(Locale.ROOT, "%.1f %.1f", x, y));
    }

    private static void line(StringBuilder html, double x1, double y1, double x2, double y2, String colour) {
        html.append(String.format(
                Locale.ROOT,
                "<line x1=\"%.1f\" y1=\"%.1f\" x2=\"%.1f\" y2=\"%.1f\" stroke=\"%s\"/>",
                x1,
                y1,
                x2,
                y2,
                colour));
    }

    private static void words(StringBuilder html, double x, double y, String anchor, String words) {
        html.append(String.format(Locale.ROOT, "<text x=\"%.1f\" y=\"%.1f\" text-anchor=\"%s\">", x, y, anchor))
                .append(text(words))
                .append("</text>");
    }

    private static String text(String words) {
        return words.replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;")
                .replace("\"", "&quot;");
    }
}
