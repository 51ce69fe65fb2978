package zesty.signal.app.help;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import zesty.signal.core.text.Messages;

/** The help as one page for a browser: the user's guide, without a network. */
public final class Guide {
    private Guide() {}

    /** @return the page, as HTML */
    public static String page(HelpBook book) {
        Map<String, List<HelpTopic>> groups = book.all().stream()
                .collect(Collectors.groupingBy(HelpTopic::group, LinkedHashMap::new, Collectors.toList()));
        StringBuilder page = new StringBuilder();
        page.append(
                """
                <!doctype html>
                <html lang="%s">
                <head>
                <meta charset="utf-8">
                <meta name="viewport" content="width=device-width, initial-scale=1">
                <title>%s</title>
                <style>
                body { margin: 0 auto; max-width: 46rem; padding: 1rem; background: #F7F3EA; color: #22302A; font: 1rem/1.5 system-ui, sans-serif; }
                h1, h2, h3 { line-height: 1.25; }
                h2 { border-bottom: 2px solid #2F4038; }
                nav ul { columns: 14rem; padding-left: 1.2rem; }
                a { color: #2F4038; }
                </style>
                </head>
                <body>
                <h1>%s</h1>
                <p>%s</p>
                """
                        .formatted(
                                Messages.language().getLanguage(),
                                Messages.of("help.zesty-signal-the-guide"),
                                Messages.of("help.zesty-signal-the-guide"),
                                Messages.of("help.the-same-texts-that-f1-shows")));
        page.append("<nav>\n");
        groups.forEach((group, topics) -> {
            page.append("<h2>").append(escaped(group)).append("</h2>\n<ul>\n");
            topics.forEach(one -> page.append("<li><a href=\"#")
                    .append(one.id())
                    .append("\">")
                    .append(escaped(one.title()))
                    .append("</a></li>\n"));
            page.append("</ul>\n");
        });
        page.append("</nav>\n");
        groups.forEach((group, topics) -> {
            page.append("<h2>").append(escaped(group)).append("</h2>\n");
            for (HelpTopic one : topics) {
                page.append("<h3 id=\"").append(one.id()).append("\">").append(escaped(one.title()));
                page.append("</h3>\n");
                HelpDrawing.of(one.id()).ifPresent(drawing -> page.append(picture(drawing)));
                one.paragraphs()
                        .forEach(
                                text -> page.append("<p>").append(escaped(text)).append("</p>\n"));
            }
        });
        return page.append("</body>\n</html>\n").toString();
    }

    private static String picture(HelpDrawing drawing) {
        String path = "<path fill=\"none\" stroke=\"%s\" stroke-width=\"%s\" d=\"%s\"/>";
        return "<svg aria-hidden=\"true\" width=\"240\" height=\"60\">" + path.formatted("#9AA39D", "1", drawing.pale())
                + path.formatted("#22302A", "1.8", drawing.strong()) + "</svg>\n";
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;")
                .replace("\"", "&quot;");
    }
}
