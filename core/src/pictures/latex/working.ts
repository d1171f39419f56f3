import type { Evaluation } from '../../results/evaluation'
import {
  type LineResult,
  type Phrase,
  type Readout,
  type ResultTable,
  tableTitle,
} from '../../statements/contract'
import { comment, latexHeading, packages } from './document'
import { latexMaths } from './maths'
import type { LatexSource } from './picture'
import type { Study } from '../../study/schema'
import { latexName, latexText, type LatexText } from './words'

/** A table in a paper has so many rows at the most; what more there are is told. */
const mostRows = 200
const mostOnPage = 30

export interface WorkingOptions {
  /** Whether results stand beside the sentences. */
  answers: boolean
  tables: boolean
  /** The source of a picture that goes before them. */
  picture: string | null
}

/**
 * The working of a study as a LaTeX document: each line a numbered item, its sentence with the
 * mathematics in it as mathematics, its results, notes and conclusions, and its tables. Lines of parts
 * that are off are left out, and of tables the rows behind the 200th.
 */
export function latexWorking(evaluation: Evaluation, options: WorkingOptions): LatexSource {
  const { study, sentences, lines, off } = evaluation
  const names = namesOf(study)
  const missing: string[] = []
  const noted = ({ source, missing: more }: LatexText) => {
    missing.push(...more)
    return source
  }
  const items = study.lines
    .filter(({ id }) => !off.has(id))
    .flatMap(({ id }) => [
      `\\item ${noted(sentenceOf(sentences.get(id) ?? []))}`,
      ...(options.answers ? resultsOf(lines.get(id), options.tables, names).map(noted) : []),
    ])
  const about = study.about.trim() === '' ? [] : [noted(prose(study.about, names))]
  return {
    source: [
      comment(study.title),
      '\\documentclass[11pt]{article}',
      ...packages,
      '\\usepackage[margin=25mm]{geometry}',
      '\\usepackage{longtable}',
      // What a note may hold beyond these packages.
      '\\providecommand{\\cancel}[1]{#1}',
      '\\begin{document}',
      latexHeading(study.title),
      ...about,
      ...(options.picture === null ? [] : ['\\begin{center}', options.picture, '\\end{center}']),
      ...(items.length === 0 ? [] : ['\\begin{enumerate}', ...items, '\\end{enumerate}']),
      '\\end{document}',
      '',
    ].join('\n'),
    missing,
  }
}

/** The words of a sentence, and what is mathematics in it as that. */
function sentenceOf(phrases: readonly Phrase[]): LatexText {
  const parts = phrases.map((phrase) =>
    'latex' in phrase && phrase.latex !== undefined
      ? latexMaths(phrase.latex)
      : latexText(phrase.text),
  )
  return {
    source: parts.map(({ source }) => source).join(''),
    missing: parts.flatMap((part) => part.missing),
  }
}

function resultsOf(
  result: LineResult | undefined,
  tables: boolean,
  names: ReadonlySet<string>,
): LatexText[] {
  if (!result) return []
  const { readouts, notes = [], conclusions = [], verdict } = result
  const told = [
    ...(verdict ? [verdict.text] : []),
    ...notes,
    ...conclusions.map(({ text }) => text),
  ].map((text) => joined(['\\par ', prose(text, names)]))
  return [
    ...(readouts.length > 0 ? [readoutRows(readouts)] : []),
    ...told,
    ...(tables ? (result.tables ?? []).map(latexTable) : []),
  ]
}

const joined = (parts: readonly (string | LatexText)[]): LatexText => ({
  source: parts.map((part) => (typeof part === 'string' ? part : part.source)).join(''),
  missing: parts.flatMap((part) => (typeof part === 'string' ? [] : part.missing)),
})

/** What is a name of the study where it stands in a sentence: of curves, the variable and sliders. */
const namesOf = ({ lines, sliders, variable }: Study): ReadonlySet<string> =>
  new Set([
    variable.letter,
    ...sliders.map(({ name }) => name),
    ...lines.flatMap((line) =>
      'name' in line && typeof line.name === 'string' ? [line.name] : [],
    ),
  ])

/** A sentence with the names in it as mathematics; “a” is one only where it is primed or called. */
function prose(text: string, names: ReadonlySet<string>): LatexText {
  const parts = text.split(/(?<![\p{L}\p{N}])(\p{L}[\p{L}\p{N}_]*′*)(?![\p{L}\p{N}])/u)
  return joined(
    parts.map((part, i) => {
      const base = part.replace(/′+$/, '')
      const isWord = base === part && /^[aI]$/.test(part) && !parts[i + 1]?.startsWith('(')
      return i % 2 === 1 && names.has(base) && !isWord ? latexName(part) : latexText(part)
    }),
  )
}

/** Label and number of each result, with its exact form behind it. */
function readoutRows(readouts: readonly Readout[]): LatexText {
  const rows = readouts.flatMap(({ label, text, latex, exact }) => [
    latexText(label),
    ' & ',
    latex === undefined ? latexText(text) : latexMaths(latex),
    ...(exact ? [' \\quad exactly ', latexText(exact.text)] : []),
    '\\\\\n',
  ])
  return joined(['\\par\\smallskip\n\\begin{tabular}{@{}ll}\n', ...rows, '\\end{tabular}'])
}

/** A table with its head on every page; numbers stand right, words left. */
export function latexTable(table: ResultTable): LatexText {
  const { columns, rows } = table
  const shown = rows.slice(0, mostRows)
  const isNumber = (text: string) => /^(?:≈ )?[−+]?[\d.·⁰-⁹⁻]+$/.test(text) || text === '—'
  const layout = columns.map((_, i) =>
    shown.every((row) => isNumber(row.cells[i] ?? '')) ? 'r' : 'l',
  )
  const row = (cells: readonly string[]) =>
    cells.flatMap((cell, i) => [...(i > 0 ? [' & '] : ['{}']), latexText(cell)])
  // A table that goes over pages finds its columns in a second run alone.
  const isLong = shown.length > mostOnPage
  const kind = isLong ? 'longtable' : 'tabular'
  return joined([
    `\\par\\medskip\\noindent `,
    latexText(tableTitle(table)),
    `\\par\\smallskip\n\\begin{${kind}}{@{}${layout.join('')}@{}}\n`,
    ...row(columns),
    `\\\\\n\\hline\n${isLong ? '\\endhead\n' : ''}`,
    ...shown.flatMap(({ cells }) => [...row(cells), '\\\\\n']),
    `\\end{${kind}}`,
    ...(rows.length > shown.length
      ? [`\\par The first ${shown.length} of ${rows.length} rows.`]
      : []),
  ])
}
