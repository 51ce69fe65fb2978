package zesty.signal.engine;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import zesty.signal.core.plan.Bar;
import zesty.signal.core.plan.Bars;
import zesty.signal.core.plan.Draft;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.scale.Digits;
import zesty.signal.exchange.report.Report;

/** A plan as a page to print: what is asked, its budgets, a row as it will be sent, the wiring to tick, cautions. */
public final class PlanReport {
    private static final DateTimeFormatter WHEN =
            DateTimeFormatter.ofPattern("d MMMM uuuu, HH:mm", Locale.ENGLISH).withZone(ZoneId.systemDefault());

    private PlanReport() {}

    /** @param now when it is made */
    public static Report of(Draft plan, Instant now) {
        ReaderKind kind = ReaderKinds.of(plan.kind());
        List<Report.Fact> facts = new ArrayList<>();
        facts.add(new Report.Fact("Question", kind.words()));
        facts.add(new Report.Fact("Sensor", plan.need().sensor()));
        facts.add(new Report.Fact("Limits", plan.need().limits()));
        facts.add(new Report.Fact("Rows", Digits.of(plan.rateHz()) + " a second, " + plan.channels() + " channels"));
        facts.add(new Report.Fact("Line", Digits.of(plan.baud()) + " baud, " + (plan.packets() ? "packets" : "text")));
        facts.add(new Report.Fact(
                "Converter",
                plan.converter().bits() + " bits at "
                        + Digits.of(plan.converter().ref()) + " V, averaging "
                        + Digits.of(plan.converter().average())));
        facts.add(new Report.Fact("Recipe", plan.recipe().isBlank() ? "none" : plan.recipe()));
        if (!plan.packets()) {
            facts.add(new Report.Fact("A row as sent", plan.rowText().strip()));
        }
        List<List<String>> rows = new ArrayList<>();
        for (Bar bar : Bars.of(plan)) {
            rows.add(List.of(bar.name(), bar.value(), (bar.over() ? "not enough: " : "") + bar.says()));
        }
        List<Report.Paragraph> paragraphs = new ArrayList<>();
        paragraphs.add(new Report.Paragraph(
                "Wiring, to tick",
                plan.need().wiring().stream().map(line -> "[  ]  " + line).toList()));
        List<String> cautions = new ArrayList<>();
        if (kind.onBody()) {
            cautions.add(Caution.BODY.words());
        }
        cautions.add(Caution.VOLTAGE.words());
        paragraphs.add(new Report.Paragraph("Cautions", cautions));
        return new Report(
                "Plan: " + kind.title(),
                "Made " + WHEN.format(now),
                List.of(new Report.Section(
                        "The plan",
                        facts,
                        List.of(),
                        List.of(),
                        List.of(new Report.Table("Budgets", List.of("budget", "value", "what follows"), rows)),
                        paragraphs)));
    }
}
