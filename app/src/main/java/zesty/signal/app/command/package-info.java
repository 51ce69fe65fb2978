/**
 * The command line. Each command is a class of its own; what is wrong with words or input is a {@link
 * zesty.signal.app.command.Refusal} and becomes one line on standard error and exit status 2.
 */
package zesty.signal.app.command;
