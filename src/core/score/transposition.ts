/** Fifths from a written to a sounding signature for a transposition in semitones. */
export const signatureShift = (chromatic: number): number => {
  const fifths = (((chromatic * 7) % 12) + 12) % 12;
  return fifths > 6 ? fifths - 12 : fifths;
};
