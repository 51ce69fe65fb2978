/** Files from elsewhere: sound, EDF, arrays, tables and what a board kept, read in pieces. What they give is a take's view. */
package zesty.signal.exchange.foreign;
