/** Widths in the labels' type, Source Sans 3 semibold, as shares of its size; measured in a browser. */
const classes: readonly (readonly [share: number, characters: string])[] = [
  [0.2, ' '],
  [0.27, "ijl.,:;·′'|"],
  [0.31, 'fI-()[]'],
  [0.36, 'rt/°'],
  [0.45, 'csz'],
  [0.55, 'bdhnopquAESTVXZ'],
  [0.6, 'BCDKPR'],
  [0.65, 'GHNOQU'],
  [0.76, 'wM'],
  [0.85, 'W≈m'],
]
/** Figures and most small letters. */
const usual = 0.51
const shares = new Map(classes.flatMap(([share, all]) => [...all].map((c) => [c, share] as const)))

/** How wide a label is, in pixels, to within a few of them; 13 px is the size of labels. */
export function textWidth(text: string, size = 13): number {
  let width = 0
  for (const character of text) width += shares.get(character) ?? usual
  return width * size
}
