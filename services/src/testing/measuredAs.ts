/** What a file must tell of its colours where it has no spectra, and of its mode. */
export const MEASURED_M1 = { mode: 'M1', illuminant: 'D50', observer: '2°' } as const;
