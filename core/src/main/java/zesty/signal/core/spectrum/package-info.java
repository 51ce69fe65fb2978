/** Spectra of signals: windows, power spectral density, lines. Pure functions; arrays given are not written to. */
package zesty.signal.core.spectrum;
