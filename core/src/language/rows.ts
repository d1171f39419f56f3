/** One row of a formula in pieces, as typed: what holds, and when. */
export interface PieceRow {
  body: string
  /** The condition as typed; "otherwise" for all that is left. */
  when: string
}

/**
 * Splits a typed formula in pieces into its rows, readable or not; a formula that is no such thing
 * is one row without a condition. Parentheses keep what is inside them together.
 */
export function splitPieces(text: string): PieceRow[] {
  return splitOutside(text, (c) => c === ';')
    .filter((part, i) => part.trim() !== '' || i === 0)
    .map((part) => {
      const at = wordOutside(part)
      if (!at) return { body: part.trim(), when: '' }
      const body = part.slice(0, at.from).trim()
      const when = at.word === 'otherwise' ? 'otherwise' : part.slice(at.to).trim()
      return { body, when }
    })
}

/** The one text that rows come to. A row without a condition holds otherwise; a single one always. */
export const joinPieces = (rows: readonly PieceRow[]): string =>
  rows.length === 1 && isOtherwise(rows[0]!.when) ? rows[0]!.body : rows.map(rowText).join('; ')

const isOtherwise = (when: string) => when.trim() === '' || when.trim() === 'otherwise'
const rowText = ({ body, when }: PieceRow) =>
  isOtherwise(when) ? `${body} otherwise` : `${body} if ${when}`

/** The row that a position of the joined text falls in. */
export function rowAt(rows: readonly PieceRow[], position: number): number {
  let end = 0
  for (const [i, row] of rows.entries()) {
    end += rowText(row).length + 2
    if (position < end) return i
  }
  return Math.max(0, rows.length - 1)
}

function splitOutside(text: string, isBreak: (c: string) => boolean): string[] {
  const parts: string[] = []
  let depth = 0
  let from = 0
  for (let i = 0; i < text.length; i++) {
    const c = text[i]!
    if ('([{'.includes(c)) depth += 1
    if (')]}'.includes(c)) depth -= 1
    if (depth === 0 && isBreak(c)) {
      parts.push(text.slice(from, i))
      from = i + 1
    }
  }
  return [...parts, text.slice(from)]
}

/** The first word that begins a condition, outside parentheses. */
function wordOutside(text: string): { from: number; to: number; word: string } | null {
  const words = /\b(if|for|when|where|otherwise|else)\b/g
  for (let found = words.exec(text); found; found = words.exec(text)) {
    const before = text.slice(0, found.index)
    const depth = [...before].reduce(
      (d, c) => d + ('([{'.includes(c) ? 1 : ')]}'.includes(c) ? -1 : 0),
      0,
    )
    if (depth !== 0) continue
    const word = found[1] === 'else' ? 'otherwise' : found[1]!
    return { from: found.index, to: words.lastIndex, word }
  }
  return null
}
