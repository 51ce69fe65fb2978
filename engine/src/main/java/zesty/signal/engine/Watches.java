package zesty.signal.engine;

import java.util.HashSet;
import java.util.Set;
import zesty.signal.core.act.Output;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.RuleBook;
import zesty.signal.core.act.Watch;

/** What rules and outputs look at. */
final class Watches {
    private Watches() {}

    /** @return the column of what is watched */
    static String column(Watch watch) {
        return watch instanceof Watch.Column one ? one.name() : ((Watch.Number) watch).column();
    }

    /** @return what a rule watches; null where it is made of others */
    static Watch of(Rule rule) {
        return rule instanceof Rule.OnSamples one
                ? one.watch()
                : rule instanceof Rule.InBands bands ? bands.watch() : null;
    }

    /** @return the columns that an output goes by, through all rules that its own is made of */
    static Set<String> columns(RuleBook book, Output output) {
        Set<String> columns = new HashSet<>();
        if (output instanceof Output.ByValue one) {
            columns.add(column(one.watch()));
        } else if (output instanceof Output.ByRule one) {
            add(book, one.rule(), columns);
        }
        return columns;
    }

    private static void add(RuleBook book, String name, Set<String> columns) {
        for (Rule rule : book.rules()) {
            if (rule.name().equals(name)) {
                if (rule instanceof Rule.Made made) {
                    made.parts().forEach(part -> add(book, part, columns));
                } else {
                    columns.add(column(of(rule)));
                }
            }
        }
    }
}
