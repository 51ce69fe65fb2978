/**
 * The running trail. One thread reads and decodes a source, one scales, cleans and reads, one records; they meet at
 * bounded queues, so the link never waits for disk or screen. Whoever looks takes the newest immutable
 * {@link zesty.signal.engine.Snapshot}. A stored take gives the same kind of sight.
 */
package zesty.signal.engine;
