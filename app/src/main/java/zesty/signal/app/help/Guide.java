package zesty.signal.app.help;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

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
                <html lang="en">
                <head>
                <meta charset="utf-8">
                <meta name="viewport" content="width=device-width, initial-scale=1">
                <title>Zesty Signal: the guide</title>
                <style>
                body { margin: 0 auto; max-width: 46rem; padding: 1rem; background: #F7F3EA; color: #22302A; font: 1rem/1.5 system-ui, sans-serif; }
                h1, h2, h3 { line-height: 1.25; }
                h2 { border-bottom: 2px solid #2F4038; }
                nav ul { columns: 14rem; padding-left: 1.2rem; }
                a { color: #2F4038; }
                </style>
                </head>
                <body>
                <h1>Zesty Signal: the guide</h1>
                <p>The same texts that F1 shows in the window.</p>
                """);
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
                one.paragraphs()
                        .forEach(
                                text -> page.append("<p>").append(escaped(text)).append("</p>\n"));
            }
        });
        return page.append("</body>\n</html>\n").toString();
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;")
                .replace("\"", "&quot;");
    }
}
