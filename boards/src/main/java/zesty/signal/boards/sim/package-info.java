/**
 * Simulated boards: small stand-ins that ship with the product and speak real bytes. The same name and seed give the
 * same bytes, always. A board is used by one thread.
 */
package zesty.signal.boards.sim;
