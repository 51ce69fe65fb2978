package zesty.signal.engine;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.plan.Bar;
import zesty.signal.core.plan.Bars;
import zesty.signal.core.plan.Draft;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.exchange.report.Report;

/** A plan as a page to print: what is asked, its budgets, a row as it will be sent, the wiring to tick, cautions. */
public final class PlanReport {
    private static final DateTimeFormatter WHEN = DateTimeFormatter.ofPattern(
                    Messages.of("engine.minute-as-written"), Messages.language())
            .withZone(ZoneId.systemDefault());

    private PlanReport() {}

    /** @param now when it is made */
    public static Report of(Draft plan, Instant now) {
        ReaderKind kind = ReaderKinds.of(plan.kind());
        List<Report.Fact> facts = new ArrayList<>();
        facts.add(new Report.Fact(Messages.of("engine.question"), kind.words()));
        facts.add(new Report.Fact(Messages.of("engine.sensor"), plan.need().sensor()));
        facts.add(new Report.Fact(Messages.of("engine.limits"), plan.need().limits()));
        facts.add(new Report.Fact(
                Messages.of("engine.rows-2"),
                Messages.of("engine.a-second-channels", Digits.of(plan.rateHz()), plan.channels())));
        facts.add(new Report.Fact(
                Messages.of("engine.line"),
                Messages.of(
                        "engine.baud",
                        Digits.of(plan.baud()),
                        (plan.packets() ? Messages.of("engine.packets") : Messages.of("engine.text")))));
        facts.add(new Report.Fact(
                Messages.of("engine.converter"),
                Messages.of(
                        "engine.bits-at-v-averaging",
                        plan.converter().bits(),
                        Digits.of(plan.converter().ref()),
                        Digits.of(plan.converter().average()))));
        facts.add(new Report.Fact(
                Messages.of("engine.recipe"), plan.recipe().isBlank() ? Messages.of("engine.none") : plan.recipe()));
        if (!plan.packets()) {
            facts.add(new Report.Fact(
                    Messages.of("engine.a-row-as-sent"), plan.rowText().strip()));
        }
        List<List<String>> rows = new ArrayList<>();
        for (Bar bar : Bars.of(plan)) {
            rows.add(List.of(
                    bar.name(), bar.value(), (bar.over() ? Messages.of("engine.not-enough") : "") + bar.says()));
        }
        List<Report.Paragraph> paragraphs = new ArrayList<>();
        paragraphs.add(new Report.Paragraph(
                Messages.of("engine.wiring-to-tick"),
                plan.need().wiring().stream().map(line -> "[  ]  " + line).toList()));
        List<String> cautions = new ArrayList<>();
        if (kind.onBody()) {
            cautions.add(Caution.BODY.words());
        }
        cautions.add(Caution.VOLTAGE.words());
        paragraphs.add(new Report.Paragraph(Messages.of("engine.cautions"), cautions));
        return new Report(
                Messages.of("engine.plan", kind.title()),
                Messages.of("engine.made", WHEN.format(now)),
                List.of(new Report.Section(
                        Messages.of("engine.the-plan"),
                        facts,
                        List.of(),
                        List.of(),
                        List.of(new Report.Table(
                                Messages.of("engine.budgets"),
                                List.of(
                                        Messages.of("engine.budget"),
                                        Messages.of("engine.value"),
                                        Messages.of("engine.what-follows")),
                                rows)),
                        paragraphs)));
    }
}
