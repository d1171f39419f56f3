/** Keeps "t = 2" and "v′ < 0" on one line, with spaces that do not break. */
export const keepTogether = (text: string) => text.replace(/ ([=<>≤≥≈]) /g, '\u00a0$1\u00a0')
