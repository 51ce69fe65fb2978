/**
 * Links: bytes in and bytes out, whatever they run over. A link is opened, read and closed by one thread; {@code close}
 * may come from any. Errors are values or {@link zesty.signal.boards.link.LinkException} with words for the maker.
 */
package zesty.signal.boards.link;
