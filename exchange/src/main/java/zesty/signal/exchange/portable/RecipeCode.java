package zesty.signal.exchange.portable;

import java.util.Set;
import java.util.TreeSet;
import zesty.signal.core.clean.Envelope;
import zesty.signal.core.clean.Exponential;
import zesty.signal.core.clean.LowPass;
import zesty.signal.core.clean.Mean;
import zesty.signal.core.clean.Offset;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.clean.RecipeException;
import zesty.signal.core.clean.Rectify;
import zesty.signal.core.clean.Rms;
import zesty.signal.core.clean.Scale;
import zesty.signal.core.clean.SectionFilter;
import zesty.signal.core.clean.Sections;
import zesty.signal.core.clean.Start;
import zesty.signal.core.clean.Step;
import zesty.signal.core.text.Messages;

/** A recipe as statements on {@code x}, with what it remembers as fields of {@code s}. Steps begin at rest. */
final class RecipeCode {
    private final String column;
    private final double rateHz;
    private final StringBuilder body = new StringBuilder();
    private final StringBuilder state = new StringBuilder();
    private final Set<String> helpers = new TreeSet<>();
    private int count;

    /**
     * @param rateHz NaN where the rig states none
     * @throws PortableException when a step cannot go, naming it
     */
    RecipeCode(String column, Recipe recipe, double rateHz) {
        this.column = column;
        this.rateHz = rateHz;
        try {
            recipe.steps().forEach(this::step);
        } catch (RecipeException e) {
            throw new PortableException(column + ": " + e.getMessage());
        }
    }

    private void say(Step step) {
        body.append("    /* ").append(Template.comment(step.text())).append(" */\n");
    }

    private void line(String statement) {
        body.append("    ").append(statement).append('\n');
    }

    private void field(String declaration) {
        state.append("    ").append(declaration).append(";\n");
    }

    private double rate() {
        if (!(rateHz > 0)) {
            throw new PortableException(Messages.of("portable.its-recipe-needs-the-rate-state", column));
        }
        return rateHz;
    }

    private void step(Step step) {
        count++;
        say(step);
        if (step instanceof Envelope envelope) {
            line("x = fabs(x);");
            sections(new LowPass(envelope.hz(), 2).sections(rate()));
        } else if (step instanceof Mean mean) {
            mean(mean.samples());
        } else if (step instanceof Rms rms) {
            int samples = (int) Math.round(2 * rms.delaySamples(rate()) + 1);
            line("x = x * x;");
            mean(samples);
            line("x = sqrt(x > 0 ? x : 0);");
        } else if (step instanceof Exponential exponential) {
            field("double e" + count);
            line("s->e" + count + " += " + Template.number(exponential.alpha()) + " * (x - s->e" + count + ");");
            line("x = s->e" + count + ";");
        } else if (step instanceof Rectify) {
            line("x = fabs(x);");
        } else if (step instanceof Offset offset) {
            line("x = x + " + Template.number(offset.x()) + ";");
        } else if (step instanceof Scale scale) {
            line("x = x * " + Template.number(scale.x()) + ";");
        } else if (sections(step)) {
            sections(((SectionFilter) step.stage(rate(), Start.FROM_REST)).sections());
        } else {
            throw new PortableException(
                    Messages.of("portable.the-step-cannot-go-onto-a-board-it", column, step.text()));
        }
    }

    /** Whether it is sections at any rate; where none is known, at one at which its corner is low. */
    private boolean sections(Step step) {
        return step.stage(rateHz > 0 ? rateHz : 1e6, Start.FROM_REST) instanceof SectionFilter;
    }

    private void mean(int samples) {
        helpers.add("mean.c");
        field("double window" + count + "[" + samples + "]");
        field("double sum" + count);
        field("unsigned int at" + count);
        line("x = moving_mean(s->window" + count + ", " + samples + ", &s->at" + count + ", &s->sum" + count + ", x);");
    }

    private void sections(Sections sections) {
        helpers.add("sections.c");
        int n = sections.count();
        field("double z" + count + "[" + 2 * n + "]");
        line("{");
        line("    static const double c[" + n + "][5] = {");
        for (int s = 0; s < n; s++) {
            StringBuilder row = new StringBuilder();
            for (double one : sections.section(s)) {
                row.append(row.isEmpty() ? "" : ", ").append(Template.number(one));
            }
            line("        {" + row + "}" + (s + 1 < n ? "," : ""));
        }
        line("    };");
        for (int s = 0; s < n; s++) {
            line("    x = section(c[" + s + "], s->z" + count + " + " + 2 * s + ", x);");
        }
        line("}");
    }

    String body() {
        return body.toString();
    }

    String state() {
        return state.toString();
    }

    Set<String> helpers() {
        return helpers;
    }
}
