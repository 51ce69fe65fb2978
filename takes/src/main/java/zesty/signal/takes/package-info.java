/**
 * Takes on disk: one SQLite file a take, described in docs/TAKE-FORMAT.md; the shelf they stand on; rigs as JSON; open
 * formats. Everything here waits for the disk, so none of it belongs on the window's thread. An instance is used by one
 * thread at a time.
 */
package zesty.signal.takes;
