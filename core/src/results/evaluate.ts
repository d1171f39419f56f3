import type { Steps } from '../features/budget'
import { kindOf } from '../statements'
import { emptyResult, type LineResult, type Phrase } from '../statements/contract'
import type { Study } from '../study/schema'
import {
  type Evaluation,
  listPlaces,
  listSpans,
  type PlaceResult,
  samePlaces,
  sameSpans,
  type SpanResult,
} from './evaluation'
import { createMemory, createOnce, type Kept, type OnFault } from './kept'
import { openPass, resultKey } from './pass'
import type { Showing } from './showing'

export interface Evaluator {
  /** With `only`, lines but that one are left without results. */
  (study: Study, only?: string): Evaluation
  /** The longer work of a line, whose outcome is data; null where it has none to do. */
  long(study: Study, line: string): Steps<unknown> | null
  /**
   * Puts the outcome of longer work where a line that was left pending finds it; false where the
   * line has changed since.
   */
  apply(pending: LineResult, outcome: unknown): boolean
  /** Puts a result in place of one that was left pending; false where the line has changed since. */
  settle(pending: LineResult, settled: LineResult): boolean
  /** How many lines and curves have been worked out, as a check that a drag stays cheap. */
  worked(): number
}

interface EvaluatorOptions {
  /**
   * How long a line may take before it is left pending: a number of steps, or what is asked once
   * for each line and then before each of its steps.
   */
  patience?: number | (() => () => boolean)
  /** Hears why a kind could not work out a line, besides what the line says. */
  onFault?: OnFault
  /** Without them only sentences and curves are made. */
  results?: boolean
  /** Without them, which goes without results, only curves are made. */
  sentences?: boolean
}

const steps = (most: number) => () => {
  let count = 0
  return () => count++ < most
}

/**
 * Makes an evaluator that remembers its last answer: a line is worked out again only when
 * something it has read is different, and results that are the same keep their identity. Work that
 * goes in steps is left pending after `patience` of them; another evaluator, elsewhere, may take as
 * long as it needs.
 */
export function createEvaluator({
  patience = 150,
  results = true,
  sentences: worded = true,
  onFault = () => undefined,
}: EvaluatorOptions = {}): Evaluator {
  const kept: Kept = {
    cells: new Map(),
    worked: 0,
    lastSettled: new Map(),
    once: createOnce(),
    remember: createMemory(),
    patience: typeof patience === 'number' ? steps(patience) : patience,
    onFault,
    last: null,
  }
  let places: PlaceResult[] = []
  let spans: SpanResult[] = []
  let off: ReadonlySet<string> = new Set()

  const evaluate = (study: Study, only?: string): Evaluation => {
    const pass = openPass(study, kept)
    const lines = new Map<string, LineResult>()
    const sentences = new Map<string, readonly Phrase[]>()
    const showing = new Map<string, Showing>()
    for (const line of worded ? study.lines : []) {
      sentences.set(line.id, pass.sentence(line))
      const shown = pass.showing(line)
      if (line.when !== undefined || line.part !== undefined) showing.set(line.id, shown)
      const asked = results && shown.shown && (only === undefined || only === line.id)
      const result = asked ? pass.result(line) : emptyResult
      if (!result.pending) kept.lastSettled.set(line.id, result)
      lines.set(line.id, result)
    }
    const curves = new Map(pass.curveNames.map((name) => [name, pass.curve(name)] as const))
    const hidden = [...showing].flatMap(([id, one]) => (one.shown ? [] : [id]))
    if (hidden.length !== off.size || hidden.some((id) => !off.has(id))) off = new Set(hidden)
    if (worded) {
      const found = listPlaces(study, off, pass.number)
      if (!samePlaces(places, found)) places = found
      const bars = listSpans(study, off, pass.number)
      if (!sameSpans(spans, bars)) spans = bars
    }
    kept.last = { study, context: pass.lineContext }
    kept.cells = pass.cells.all()
    return { study, curves, lines, sentences, places, spans, showing, off }
  }

  const cellOf = (pending: LineResult) => [...kept.cells].find(([, c]) => c.value === pending)

  const long = (study: Study, id: string) => {
    if (kept.last?.study !== study) evaluate(study, '')
    const line = study.lines.find((l) => l.id === id)
    return (line && kindOf(line).long?.steps(line, kept.last!.context)) ?? null
  }
  const apply = (pending: LineResult, outcome: unknown) => {
    const { last } = kept
    const waiting = cellOf(pending)
    const line = last?.study.lines.find((l) => waiting?.[0] === resultKey(l))
    if (!waiting || !line || !last) return false
    kindOf(line).long?.apply(line, outcome, last.context)
    kept.cells.delete(waiting[0])
    return true
  }
  const settle = (pending: LineResult, settled: LineResult) => {
    const waiting = cellOf(pending)
    if (waiting) waiting[1].value = settled
    return waiting !== undefined
  }
  return Object.assign(evaluate, { worked: () => kept.worked, long, apply, settle })
}
