import type { Drawn, Face, NotePiece, Typesetter } from './drawing'

type Note = Drawn & { kind: 'note' }

/** Around the words of a note, and from one of its lines to the next. */
const [paddingX, paddingY, leading] = [12, 8, 1.45]
const round = (v: number) => Number(v.toFixed(2))

interface Piece {
  width: number
  /** Above and below the line it stands on. */
  above: number
  below: number
  /** What is drawn with its start at x and its line at y. */
  at: (x: number, y: number) => Drawn[]
}

/** A note as words and outlines: its lines are broken at spaces where they are wider than it may be. */
export function setNote(note: Note, setter: Typesetter): Drawn[] {
  const { size, lines } = note
  const most = note.width - 2 * paddingX + size
  const rows = lines.flatMap((line) =>
    broken(
      line.flatMap((p) => piecesOf(p, note, setter)),
      most,
    ),
  )
  const widths = rows.map((row) => row.reduce((sum, piece) => sum + piece.width, 0))
  const width = Math.max(0, ...widths) + 2 * paddingX
  const heights = rows.map((row) => {
    const above = Math.max(size * 0.75, ...row.map((p) => p.above))
    const below = Math.max(size * 0.25, ...row.map((p) => p.below))
    return { above, below, height: Math.max(size * leading, above + below + size * 0.3) }
  })
  const height = heights.reduce((sum, h) => sum + h.height, 0) + 2 * paddingY
  const left = note.right ? note.x + note.width - width : note.x
  const ground: Drawn[] =
    note.ground === null
      ? []
      : [
          {
            ...{ kind: 'path', stroke: null, width: 0, dashes: [], round: false, opacity: 0.9 },
            d: `M${round(left)} ${round(note.y)}h${round(width)}v${round(height)}h${round(-width)}Z`,
            fill: note.ground,
          },
        ]
  let top = note.y + paddingY
  const drawn = rows.flatMap((row, i) => {
    const { above, below, height: tall } = heights[i]!
    const y = top + (tall - above - below) / 2 + above
    top += tall
    let x = left + paddingX
    return row.flatMap((piece) => {
      const items = piece.at(x, y)
      x += piece.width
      return items
    })
  })
  return [...ground, ...drawn]
}

/** A piece as it can be broken: words one by one with the spaces behind them, mathematics whole. */
function piecesOf(piece: NotePiece, { size, colour, weight }: Note, setter: Typesetter): Piece[] {
  if ('latex' in piece) {
    const set = setter.maths(piece.latex, size)
    return [
      {
        ...{ width: set.width, above: set.above, below: set.below },
        at: (x, y) => [
          ...(set.d === ''
            ? []
            : [
                {
                  ...{ kind: 'path' as const, d: set.d, stroke: null, width: 0, dashes: [] },
                  ...{ round: false, fill: colour, opacity: 1 },
                  transform: `translate(${round(x)} ${round(y)})`,
                },
              ]),
          // Without outlines it stands as it was written.
          ...(set.rest ?? []).map((one): Drawn => ({
            ...{ kind: 'words', x: x + one.x, y, text: one.text, size, colour, anchor: 'start' },
            ...{ face: { family: 'serif', weight, italic: true }, halo: null, opacity: 1 },
          })),
        ],
      },
    ]
  }
  const face: Face = { family: 'serif', weight: piece.strong ? 600 : weight, italic: false }
  return (piece.text.match(/\S+\s*|\s+/g) ?? []).map((text) => ({
    ...{ width: setter.words(text, face, size).width, above: size * 0.75, below: size * 0.25 },
    at: (x, y) => [
      { kind: 'words', x, y, text, size, face, anchor: 'start', colour, halo: null, opacity: 1 },
    ],
  }))
}

function broken(pieces: readonly Piece[], most: number): Piece[][] {
  const rows: Piece[][] = [[]]
  let width = 0
  for (const piece of pieces) {
    if (width + piece.width > most && rows.at(-1)!.length > 0) {
      rows.push([])
      width = 0
    }
    rows.at(-1)!.push(piece)
    width += piece.width
  }
  return rows
}
