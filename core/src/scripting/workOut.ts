import { evaluatedThrough } from './evaluatedThrough'
import { type LineResult, type Verdict, tableTitle } from '../statements/contract'
import { isCertain } from '../statements/shared/said'
import { sentenceText } from '../statements/shared/slots'
import { shownStudy } from '../study/overlay'
import type { Study } from '../study/schema'

/** A line as it is read, in plain values that go through JSON. */
export interface WorkedLine {
  id: string
  kind: string
  sentence: string
  readouts: { id: string; label: string; text: string; value?: number; certain: boolean }[]
  tables: { name: string; columns: string[]; rows: string[][] }[]
  notes: string[]
  conclusions: { text: string }[]
  verdict: { complete: boolean; text: string; unresolved: [number, number][] } | null
  problems: { message: string; fix?: string }[]
  hints: { message: string }[]
}

interface WorkOutOptions {
  /** The step that is shown, by its id or its title; any other name is a RangeError. */
  step?: string
  /** Values laid over those of the sliders, by name; a name that no slider has is a RangeError. */
  values?: Readonly<Record<string, number>>
}

/**
 * Everything the lines of a study say, with all long work done. The study is not changed. A readout
 * is certain unless its text says that it is only about so (≈).
 */
export function workOut(
  study: Study,
  { step, values = {} }: WorkOutOptions = {},
): { lines: WorkedLine[] } {
  const found = study.steps.find(({ id, title }) => id === step || title === step)
  if (step !== undefined && !found) throw new RangeError(`this study has no step ${step}`)
  for (const name of Object.keys(values)) {
    if (!study.sliders.some((s) => s.name === name)) {
      throw new RangeError(`this study has no slider ${name}`)
    }
  }
  const shown = shownStudy(study, { step: found?.id ?? null, live: values })
  const evaluation = evaluatedThrough(shown)
  return {
    lines: shown.lines.map(({ id, kind }) => ({
      id,
      kind,
      sentence: sentenceText(evaluation.sentences.get(id)!),
      ...plain(evaluation.lines.get(id)!),
    })),
  }
}

const plain = (result: LineResult): Omit<WorkedLine, 'id' | 'kind' | 'sentence'> => ({
  readouts: result.readouts.map(({ id, label, text, value }) => ({
    id,
    label,
    text,
    ...(value === undefined || !Number.isFinite(value) ? {} : { value }),
    certain: isCertain(text),
  })),
  tables: (result.tables ?? []).map(({ columns, rows, ...titled }) => ({
    name: tableTitle(titled),
    columns: [...columns],
    rows: rows.map(({ cells }) => [...cells]),
  })),
  notes: [...(result.notes ?? [])],
  conclusions: (result.conclusions ?? []).map(({ text }) => ({ text })),
  verdict: result.verdict ? plainVerdict(result.verdict) : null,
  problems: result.problems.map(({ message, fix }) => ({ message, ...(fix ? { fix } : {}) })),
  hints: result.hints.map(({ message }) => ({ message })),
})

const plainVerdict = ({ complete, text, unresolved }: Verdict) => ({
  complete,
  text,
  unresolved: unresolved.map(([from, to]): [number, number] => [from, to]),
})
