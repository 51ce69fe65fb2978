/** The hits reader: knocks, taps and strikes, each told from the ringing of the one before. */
package zesty.signal.core.read.hits;
