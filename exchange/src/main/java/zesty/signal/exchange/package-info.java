/** Takes in open formats. An exporter reads a {@link zesty.signal.exchange.TakeView} in pieces, whoever made it. */
package zesty.signal.exchange;
