import type { ResultTable } from '@yperkine/core'

type Rows = ResultTable['rows']

/** A column of sentences takes what numbers leave; one of numbers what its longest cell needs. */
const wordyFrom = 16
/** So many characters a table may have and be left narrow. */
const narrow = 40
/** So many rows are looked at: a table may have thousands. */
const looked = 40

const longestCell = (columns: readonly string[], rows: Rows, k: number) => {
  const words = Math.max(...columns[k]!.split(' ').map((w) => w.length))
  return Math.max(2, words, ...rows.slice(0, looked).map((r) => r.cells[k]?.length ?? 0))
}

/** Whether a table has columns of sentences. */
export const isWordy = (columns: readonly string[], rows: Rows) =>
  columns.some((_, k) => longestCell(columns, rows, k) > wordyFrom)

/** The widths of columns, as a grid takes them. */
export function columnWidths(columns: readonly string[], rows: Rows): string {
  const longest = columns.map((_, k) => longestCell(columns, rows, k))
  if (!isWordy(columns, rows)) {
    // A few short columns stand together; many share the width by what their cells need.
    const fits = longest.reduce((total, n) => total + n + 2, 0) <= narrow
    return longest.map((n) => (fits ? `${n + 2}ch` : `minmax(${n + 1}ch, ${n}fr)`)).join(' ')
  }
  return longest.map((n) => (n > wordyFrom ? 'minmax(0, 1fr)' : `${n + 0.5}ch`)).join(' ')
}

/** What the columns need side by side: a table that has less room scrolls sideways. */
export function leastWidth(columns: readonly string[], rows: Rows): string {
  if (isWordy(columns, rows)) return '100%'
  const needed = columns.reduce((total, _, k) => total + longestCell(columns, rows, k) + 1, 0)
  return `max(100%, calc(${needed}ch + ${columns.length * 10}px))`
}

/** Numbers of one length after the point stand under each other; others begin at the left. */
export function alignments(columns: readonly string[], rows: Rows): string[] {
  return columns.map((_, k) => {
    const lengths = rows.slice(0, looked).flatMap((r) => {
      const cell = r.cells[k] ?? ''
      return cell === '—' ? [] : [/^[−+]?\d+\.(\d+)$/.exec(cell)?.[1]!.length ?? -1]
    })
    const fixed = lengths.length > 0 && lengths.every((n) => n > 0 && n === lengths[0])
    return fixed ? 'text-right' : 'text-left'
  })
}
