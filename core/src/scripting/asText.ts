import type { WorkedLine } from './workOut'

/** More rows than these of a table are counted, not printed. */
const mostRows = 12

/** Columns under each other, as wide as their widest cell. */
function tableText(table: WorkedLine['tables'][number]): string[] {
  const rows = [table.columns, ...table.rows.slice(0, mostRows)]
  const widths = table.columns.map((_, k) => Math.max(...rows.map((r) => (r[k] ?? '').length)))
  const left = table.rows.length - mostRows
  return [
    `${table.name} · ${table.rows.length}`,
    ...rows.map((cells) =>
      `  ${cells.map((cell, k) => cell.padEnd(widths[k]!)).join('  ')}`.trimEnd(),
    ),
    ...(left > 0 ? [`  … and ${left} more`] : []),
  ]
}

/** What the lines of a study say, as a person would read it: a sentence each, and what follows it. */
export function asText(lines: readonly WorkedLine[]): string {
  return lines
    .flatMap((line, i) => {
      const number = `${i + 1}`
      const below = [
        ...line.problems.map(({ message, fix }) =>
          fix ? `! ${message} · ${fix}` : `! ${message}`,
        ),
        ...line.readouts.map(({ label, text }) => `${label} ${text}`.trim()),
        ...line.notes,
        ...(line.verdict ? [line.verdict.text] : []),
        ...line.conclusions.map(({ text }) => text),
        ...line.tables.flatMap(tableText),
        ...line.hints.map(({ message }) => message),
      ]
      return [
        `${number}  ${line.sentence}`,
        ...below.map((text) => `${' '.repeat(number.length)}    ${text}`),
      ]
    })
    .join('\n')
}
