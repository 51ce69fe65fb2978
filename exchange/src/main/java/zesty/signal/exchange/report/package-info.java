/** A page about takes, for a printer or a browser: what it says is a {@link zesty.signal.exchange.report.Report}, how it looks is its writers' matter. */
package zesty.signal.exchange.report;
