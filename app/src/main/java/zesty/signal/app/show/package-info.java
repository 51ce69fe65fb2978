/**
 * A second screen: the cards of the running trail on a page for a phone. Off until it is opened; on this computer only until the network
 * is chosen; read-only but for markers.
 */
package zesty.signal.app.show;
