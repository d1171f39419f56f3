import Papa from 'papaparse'

export interface CsvProblem {
  /** The line of the file, the first being 1. */
  line: number
  message: string
}

export interface CsvTable {
  columns: string[]
  /** Whether its first row names the columns. */
  named: boolean
  /** Only rows whose cells are all numbers. */
  rows: number[][]
  /** Rows that were left out, each with what is wrong. */
  problems: CsvProblem[]
}

const mostProblems = 100

/** A number as a person reads it here: with U+2212 for minus. */
const readNumber = /^[-−]?\d+(\.\d+)?(E[-−]?\d+)?$/

/**
 * Comma-separated values (RFC 4180) for a table. Numbers keep all their digits and have the minus of
 * the keyboard; what has no value is an empty cell. Words stand as they are, but for an apostrophe
 * before those that a spreadsheet would take for a formula: what begins with = + - @ or a tab.
 */
export function toCsv(
  columns: readonly string[],
  rows: readonly (readonly (number | string)[])[],
): string {
  const cellOf = (v: number | string) => {
    if (typeof v === 'number') return Number.isFinite(v) ? v + 0 : ''
    return readNumber.test(v) ? Number(v.replace(/−/g, '-')) : v
  }
  const data = rows.map((row) => row.map(cellOf))
  return Papa.unparse(
    { fields: [...columns], data },
    { newline: '\r\n', escapeFormulae: /^[=+\-@\t\r]/ },
  )
}

/** Thousands set apart, with a decimal mark behind them. */
const [groupedByCommas, groupedByPoints] = [
  /^[-+\u2212]?\d{1,3}(?:,\d{3})+\.\d+$/,
  /^[-+\u2212]?\d{1,3}(?:\.\d{3})+,\d+$/,
]

/**
 * Reads the numbers of one table. Which mark stands before decimals is the same in all of it: a comma
 * where the cells have commas and no points; where a cell has both, what stands last in it, and the
 * other sets thousands apart. A cell that does not keep to it is no number: NaN.
 */
function numberReader(cells: readonly string[], delimiter: string): (cell: string) => number {
  const numeric = cells.filter((cell) => /^[-+\u2212]?\d[\d.,]*(?:e[-+]?\d+)?$/i.test(cell))
  const has = (pattern: RegExp) => numeric.some((cell) => pattern.test(cell))
  const grouping = has(groupedByCommas) ? ',' : has(groupedByPoints) ? '.' : ''
  const commas = grouping === '.' || (delimiter !== ',' && has(/\d,\d/) && !has(/\d\.\d/))
  return (cell) => {
    const tidy = cell.replace(/\u2212/g, '-')
    const whole = grouping === '' ? tidy : tidy.replaceAll(grouping, '')
    const pointed = commas ? whole.replace(',', '.') : whole
    return pointed === '' ? NaN : Number(pointed)
  }
}

/**
 * Reads numbers in columns: separated by commas, semicolons, tabs or bars, with or without a first
 * row of names. Where semicolons or tabs separate, a comma is taken for the decimal point. A row
 * with a cell that is no number, or with another count of cells, is left out and named.
 */
export function readCsv(text: string): CsvTable {
  const plain = text.replace(/^\uFEFF/, '')
  // The first line with one of these decides; a comma may be a decimal point beside the others.
  const firstLine = plain.split(/\r?\n/).find((line) => line.trim() !== '') ?? ''
  const delimiter = ['\t', ';', '|'].find((d) => firstLine.includes(d)) ?? ','
  const parsed = Papa.parse<string[]>(plain, { delimiter })
  const lines = parsed.data.map((cells, i) => ({ line: i + 1, cells: cells.map((c) => c.trim()) }))
  const filled = lines.filter(({ cells }) => cells.some((c) => c !== ''))
  const [first] = filled
  if (!first)
    return {
      columns: [],
      named: false,
      rows: [],
      problems: [{ line: 1, message: 'there is nothing in it' }],
    }
  const numberOf = numberReader(
    filled.flatMap(({ cells }) => cells),
    delimiter,
  )
  const named = first.cells.some((c) => c !== '' && Number.isNaN(numberOf(c)))
  const width = first.cells.length
  const columns = named
    ? first.cells.map((c, i) => c || `column ${i + 1}`)
    : Array.from({ length: width }, (_, i) => `column ${i + 1}`)
  const rows: number[][] = []
  const problems: CsvProblem[] = []
  for (const { line, cells } of named ? filled.slice(1) : filled) {
    if (cells.length !== width) {
      const count = cells.length === 1 ? '1 cell' : `${cells.length} cells`
      problems.push({ line, message: `${count} where the first row has ${width}` })
      continue
    }
    const values = cells.map(numberOf)
    const bad = values.findIndex((v) => !Number.isFinite(v))
    if (bad >= 0) {
      const what = cells[bad] === '' ? 'an empty cell' : `“${cells[bad]}”`
      problems.push({ line, message: `${what} in ${columns[bad]} is no number` })
      continue
    }
    rows.push(values)
  }
  return { columns, named, rows, problems: problems.slice(0, mostProblems) }
}
