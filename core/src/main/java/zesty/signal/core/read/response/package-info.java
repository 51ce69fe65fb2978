/** How a signal answers to something that happened at a known moment. */
package zesty.signal.core.read.response;
