package zesty.signal.app.report;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.Locale;
import zesty.signal.exchange.report.Report;
import zesty.signal.exchange.report.ReportHtml;
import zesty.signal.exchange.report.ReportPdf;
import zesty.signal.takes.NewFile;

/** Writes a report as the file's name says, whole or not at all, with the fonts that ship with the application. */
public final class ReportFile {
    private static final String FONTS = "/zesty/signal/app/window/fonts/AtkinsonHyperlegibleNext_";

    private ReportFile() {}

    /**
     * @param to ends in .pdf or .html
     * @param replace whether a file of that name may be written over
     */
    public static void write(Report report, Path to, boolean replace) throws IOException {
        try (NewFile file = NewFile.begin(to, replace)) {
            if (to.toString().toLowerCase(Locale.ROOT).endsWith(".pdf")) {
                try (InputStream plain = ReportFile.class.getResourceAsStream(FONTS + "400Regular.ttf");
                        InputStream bold = ReportFile.class.getResourceAsStream(FONTS + "600SemiBold.ttf")) {
                    ReportPdf.write(report, plain, bold, file.stream());
                }
            } else {
                ReportHtml.write(report, file.stream());
            }
            file.keep();
        }
    }
}
