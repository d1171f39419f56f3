import { expandCurves, findCycle } from '../algebra/curves'
import { differentiate } from '../algebra/differentiate'
import { compileTree, type RealFunction } from '../evaluate/compile'
import type { Steps } from '../features/zeros'
import { type Parsed, parseFormula } from '../language/parse'
import type { Problem } from '../language/problems'
import { curvesIn, name as nameTree, namesIn, type Tree } from '../formula/tree'
import {
  type CurveMaker,
  curvesOfLine,
  isCurveMaker,
  isFormulaLine,
  isMeasured,
  kindOf,
  spanMembers,
  type Statement,
} from '../statements'
import {
  type CurveContext,
  type CurveLookup,
  emptyResult,
  failed,
  type LineContext,
  type LineProblem,
  type LineResult,
  type NumberLookup,
  type Phrase,
  type SentenceContext,
} from '../statements/contract'
import { parseCurveRef, sentenceText } from '../statements/shared/slots'
import { placesOfLine, sameSpan } from '../study/edits'
import type { SpanText } from '../vocabulary/members'
import type { Study } from '../study/schema'
import { withPowerOfTen } from '../vocabulary/values'

/** A place on the axis: everything with the same text moves together. */
export interface PlaceResult {
  text: string
  value: number
}

export interface Evaluation {
  study: Study
  curves: ReadonlyMap<string, CurveLookup>
  lines: ReadonlyMap<string, LineResult>
  sentences: ReadonlyMap<string, readonly Phrase[]>
  places: readonly PlaceResult[]
  spans: readonly SpanResult[]
}

/** A span that lines hang on: one bar on the ruler, however many share it. */
export interface SpanResult {
  text: SpanText
  from: number
  to: number
}

/** How far a span can reach: where every curve is drawn that a line on it is about, or null. */
export function spanBounds(
  { study, curves }: Evaluation,
  text: SpanText,
): { from: number; to: number } | null {
  const names = study.lines.flatMap((line) =>
    spanMembers(line).some(({ span }) => sameSpan(span, text)) ? curvesOfLine(line) : [],
  )
  const drawn = names.flatMap((name) => {
    const found = curves.get(name)
    return found?.ok ? [found.curve] : []
  })
  if (drawn.length === 0) return null
  const [from, to] = [Math.max(...drawn.map((c) => c.from)), Math.min(...drawn.map((c) => c.to))]
  return from < to ? { from, to } : null
}

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

/** Something worked out once and kept while what it read stays the same. */
interface Cell {
  value: unknown
  reads: Map<string, unknown>
}

const parseMemoLimit = 500

/** So much is remembered for one owner, such as a curve; then it begins anew. */
const mostRemembered = 40

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
  const memos = new WeakMap<object, Map<string, unknown>>()
  const once = createOnce()
  /** The last study and what its lines look at. */
  let last: { study: Study; context: LineContext } | null = null
  let cells = new Map<string, Cell>()
  const lastSettled = new Map<string, LineResult>()
  let count = 0
  let places: PlaceResult[] = []
  let spans: SpanResult[] = []
  const parsed = new Map<string, Parsed>()

  const evaluate = (study: Study, only?: string): Evaluation => {
    const next = new Map<string, Cell>()
    const running: { key: string; reads: Map<string, unknown> }[] = []
    const curveLines = new Map(
      study.lines.flatMap((l) => (isCurveMaker(l) ? [[l.name, l] as const] : [])),
    )
    const sliderValues = new Map(study.sliders.map((s) => [s.name, s.value]))
    const names = [...sliderValues.keys()].join()
    const curveNames = [...curveLines.keys()].join()
    const { variable, decimals } = study

    /** What a key stands for now. */
    const current = (key: string): unknown => {
      const [kind, of] = key.split(':') as [string, string]
      switch (kind) {
        case 'letter':
          return variable.letter
        case 'variable':
          return variable
        case 'decimals':
          return decimals
        case 'notation':
          return study.display.notation
        case 'names':
          return names
        case 'curveNames':
          return curveNames
        case 'slider':
          return sliderValues.get(of)
        case 'from':
          return study.sliders.find((s) => s.name === of)?.from
        case 'step':
          return stepOf(of)
        case 'source':
          return curveLines.get(of)
        case 'result':
          return resultOf(of)
        case 'table': {
          const [, , order, wanted] = key.split(':')
          const tables = study.lines.filter((l) => {
            const about = kindOf(l).tabulates?.(l)
            return about?.curve === of && about.order === Number(order)
          })
          return (tables.find((l) => l.id === wanted) ?? tables[0])?.id
        }
        default:
          return curve(of)
      }
    }
    const stepOf = (name: string): number | undefined => {
      const slider = study.sliders.find((s) => s.name === name)
      if (!slider) return undefined
      const { manner, stops } = slider.motion
      return manner === 'in equal steps' ? (slider.to - slider.from) / stops : slider.step
    }
    const read = <T>(key: string): T => {
      const value = current(key)
      running.at(-1)?.reads.set(key, value)
      return value as T
    }

    /** The value of a cell: the kept one if nothing it read has changed, else worked out. */
    const cell = <T>(
      key: string,
      work: () => T,
      { same }: { same?: (a: T, b: T) => boolean } = {},
    ): T => {
      const ready = next.get(key)
      if (ready) return ready.value as T
      const kept = cells.get(key)
      const unchanged = kept && [...kept.reads].every(([k, v]) => Object.is(current(k), v))
      if (unchanged) {
        next.set(key, kept)
        return kept.value as T
      }
      const reads = new Map<string, unknown>()
      running.push({ key, reads })
      let value = work()
      running.pop()
      if (kept && same?.(kept.value as T, value)) value = kept.value as T
      next.set(key, { value, reads })
      return value
    }

    const parse = (text: string): Parsed => {
      const letter = read<string>('letter')
      const known = read<string>('names')
      const curves = read<string>('curveNames')
      const key = [letter, known, curves, text].join('\u0000')
      let result = parsed.get(key)
      if (!result) {
        if (parsed.size > parseMemoLimit) parsed.clear()
        // A stand-in is enough here: the parser only wants to know which names are curves.
        const standIns = Object.fromEntries(
          curves.split(',').map((c) => [c, nameTree(letter)] as const),
        )
        if (curves === '') delete standIns['']
        result = parseFormula(text, {
          variable: letter,
          names: known === '' ? [] : known.split(','),
          curves: standIns,
        })
        parsed.set(key, result)
      }
      return result
    }

    const number = (text: string): NumberLookup => {
      const result = parse(withPowerOfTen(text))
      if (!result.ok) return { ok: false, problem: asLineProblem(result.problems[0]!) }
      const { tree } = result
      if (namesIn(tree).has(read<string>('letter'))) {
        return {
          ok: false,
          problem: {
            message: `a place cannot depend on ${variable.letter}`,
            fix: 'use a number or a slider',
          },
        }
      }
      const whole = bind(tree, [])
      if ('problem' in whole) return { ok: false, problem: whole.problem }
      const value = whole.f.value(0)
      return Number.isFinite(value)
        ? { ok: true, value, exact: namesIn(whole.expanded).size === 0 ? whole.expanded : null }
        : { ok: false, problem: { message: `${text} has no value`, fix: 'check its sliders' } }
    }

    /** A tree as a function, with the curves it uses and the present slider values put in. */
    const bind = (
      tree: Tree,
      path: readonly string[],
    ): { f: RealFunction; expanded: Tree } | { problem: LineProblem } => {
      const trees: Record<string, Tree> = {}
      for (const used of curvesIn(tree)) {
        if (path.includes(used)) return { problem: circular([...path, used]) }
        const found = read<CurveLookup>(`curve:${used}`)
        if (!found.ok) {
          return { problem: { message: `${used} cannot be used: ${found.problem.message}` } }
        }
        if (!found.curve.formula) {
          return {
            problem: { message: `${used} has no formula, so it cannot stand in another one` },
          }
        }
        trees[used] = found.curve.f.tree
      }
      const expanded = once.expand(tree, trees, variable.letter)
      const values: Record<string, number> = {}
      for (const used of namesIn(expanded)) {
        if (used !== variable.letter) values[used] = read<number>(`slider:${used}`)
      }
      return { f: once.compile(expanded, variable.letter).withParameters(values), expanded }
    }

    const curve = (name: string): CurveLookup =>
      cell(`curve:${name}`, () => {
        const line = read<CurveMaker | undefined>(`source:${name}`)
        if (!line) return { ok: false, problem: { message: `nothing is called ${name}` } }
        if (inProgress.has(name)) return { ok: false, problem: circular([name, name]) }
        inProgress.add(name)
        try {
          count += 1
          return kindOf(line).curve!.make(line, curveContext)
        } catch (error) {
          onFault(error, line.id)
          return { ok: false, problem: { message: `${name} ${faultWords(error)}` } }
        } finally {
          inProgress.delete(name)
        }
      })
    const inProgress = new Set<string>()

    const cycleFrom = (name: string): string[] | null => {
      const trees: Record<string, Tree> = {}
      for (const one of read<string>('curveNames').split(',')) {
        const line = read<CurveMaker | undefined>(`source:${one}`)
        const result = line && isFormulaLine(line) ? parse(line.formula) : undefined
        if (result?.ok) trees[one] = result.tree
      }
      return findCycle(name, trees)
    }

    const inTime = <R>(work: Steps<R>): R | null => {
      let count = 0
      const hasTime = typeof patience === 'number' ? () => count++ < patience : patience()
      while (hasTime()) {
        const step = work.next()
        if (step.done) return step.value
      }
      return null
    }

    const lineContext: LineContext = {
      get variable() {
        return read<Study['variable']>('variable')
      },
      get decimals() {
        return read<number>('decimals')
      },
      curve: (name) => read<CurveLookup>(`curve:${name}`),
      number,
      range(place) {
        const step = read<number | undefined>(`step:${place}`)
        const from = read<number | undefined>(`from:${place}`)
        return step === undefined || from === undefined ? null : { from, step }
      },
      formula(text) {
        const result = parse(text)
        if (!result.ok) return { ok: false, problem: asLineProblem(result.problems[0]!) }
        const bound = bind(result.tree, [])
        return 'problem' in bound ? { ok: false, problem: bound.problem } : { ok: true, f: bound.f }
      },
      tableOf(name, order, wanted = '') {
        const id = read<string | undefined>(`table:${name}:${order}:${wanted}`)
        return id === undefined ? null : read<LineResult | null>(`result:${id}`)
      },
      steps: inTime,
      memo: remembered,
    }
    const curveContext: CurveContext = {
      get variable() {
        return lineContext.variable
      },
      get decimals() {
        return lineContext.decimals
      },
      curve: lineContext.curve,
      number,
      range: lineContext.range,
      formula: lineContext.formula,
      tableOf: lineContext.tableOf,
      steps: lineContext.steps,
      memo: remembered,
      read(text) {
        const result = parse(text)
        return result.ok
          ? { ok: true, tree: result.tree, hints: result.hints }
          : { ok: false, problems: result.problems.map(asLineProblem) }
      },
      bind(tree, own) {
        const bound = bind(tree, [own])
        if ('problem' in bound) return { ok: false, problem: bound.problem }
        const values = Object.fromEntries(sliderValues)
        return {
          ok: true,
          derivative: (order) =>
            order === 0
              ? bound.f
              : once
                  .compile(once.derivative(bound.expanded, variable.letter, order), variable.letter)
                  .withParameters(values),
        }
      },
      derivativeOf: (tree, order) => once.derivative(tree, variable.letter, order),
      circle(name) {
        const cycle = cycleFrom(name)
        return cycle && circular(cycle)
      },
    }
    const resultOf = (id: string): LineResult | null => {
      const line = study.lines.find((l) => l.id === id)
      return line ? resultFor(line) : null
    }
    const resultFor = (line: Statement): LineResult =>
      cell(`line:${line.id}:${identity(line)}`, () => {
        if (working.has(line.id)) return failed({ message: 'this line hangs on itself' })
        working.add(line.id)
        count += 1
        const result = guarded(line, lineContext, onFault)
        working.delete(line.id)
        if (!result.pending) return result
        // Until longer work is done what stood here last stays, dimmed.
        const before = lastSettled.get(line.id)
        return before ? { ...before, pending: true } : result
      })
    const working = new Set<string>()
    const sentenceContext: SentenceContext = {
      get notation() {
        return read<Study['display']['notation']>('notation')
      },
      get variable() {
        return read<Study['variable']>('variable')
      },
      read(text) {
        const result = parse(withPowerOfTen(text))
        return result.ok ? result.tree : null
      },
      derivative(name, order) {
        const found = read<CurveLookup>(`curve:${name}`)
        return found.ok && found.curve.formula ? found.curve.derivative(order).tree : null
      },
      number(text) {
        const found = number(text)
        return found.ok ? found.value : null
      },
      isMeasured(name) {
        const line = read<CurveMaker | undefined>(`source:${name}`)
        return line !== undefined && isMeasured(line)
      },
      isCurve(text) {
        const ref = parseCurveRef(text)
        return ref !== null && read<string>('curveNames').split(',').includes(ref.curve)
      },
      ends(name) {
        const found = read<CurveLookup>(`curve:${name}`)
        if (!found.ok) return { from: true, to: true }
        const { f, from, to } = found.curve
        return { from: !Number.isNaN(f.value(from)), to: !Number.isNaN(f.value(to)) }
      },
    }

    const lines = new Map<string, LineResult>()
    const sentences = new Map<string, readonly Phrase[]>()
    for (const line of worded ? study.lines : []) {
      const own = `${line.id}:${identity(line)}`
      sentences.set(
        line.id,
        cell(`sentence:${own}`, () => guardedSentence(line, sentenceContext, onFault), {
          same: sameSentence,
        }),
      )
      const asked = results && (only === undefined || only === line.id)
      const result = asked ? resultFor(line) : emptyResult
      if (!result.pending) lastSettled.set(line.id, result)
      lines.set(line.id, result)
    }
    const curves = new Map([...curveLines.keys()].map((name) => [name, curve(name)] as const))
    last = { study, context: lineContext }
    if (!worded) {
      cells = next
      return { study, curves, lines, sentences, places, spans }
    }
    const found = listPlaces(study, number)
    if (!samePlaces(places, found)) places = found
    const bars = listSpans(study, number)
    if (!sameSpans(spans, bars)) spans = bars
    cells = next
    return { study, curves, lines, sentences, places, spans }
  }

  function remembered<T>(owner: object, key: string, make: () => T): T {
    let known = memos.get(owner)
    if (!known) memos.set(owner, (known = new Map()))
    if (!known.has(key)) {
      if (known.size >= mostRemembered) known.clear()
      known.set(key, make())
    }
    return known.get(key) as T
  }
  const cellOf = (pending: LineResult) => [...cells].find(([, c]) => c.value === pending)

  const long = (study: Study, id: string) => {
    if (last?.study !== study) evaluate(study, '')
    const line = study.lines.find((l) => l.id === id)
    return (line && kindOf(line).long?.steps(line, last!.context)) ?? null
  }
  const apply = (pending: LineResult, outcome: unknown) => {
    const waiting = cellOf(pending)
    const line = last?.study.lines.find((l) => waiting?.[0] === `line:${l.id}:${identity(l)}`)
    if (!waiting || !line || !last) return false
    kindOf(line).long?.apply(line, outcome, last.context)
    cells.delete(waiting[0])
    return true
  }
  const settle = (pending: LineResult, settled: LineResult) => {
    const waiting = cellOf(pending)
    if (waiting) waiting[1].value = settled
    return waiting !== undefined
  }
  return Object.assign(evaluate, { worked: () => count, long, apply, settle })
}

type OnFault = (error: unknown, line: string) => void

const faultWords = (error: unknown) =>
  `could not be worked out: ${error instanceof Error ? error.message : String(error)}`

/** A kind that fails says so in its own line; the others go on. */
function guarded(line: Statement, context: LineContext, onFault: OnFault): LineResult {
  try {
    return kindOf(line).evaluate(line, context)
  } catch (error) {
    onFault(error, line.id)
    return failed({ message: `this line ${faultWords(error)}` })
  }
}

function guardedSentence(line: Statement, context: SentenceContext, onFault: OnFault): Phrase[] {
  try {
    return kindOf(line).sentence(line, context)
  } catch (error) {
    onFault(error, line.id)
    return [{ text: 'This line cannot be put into words' }]
  }
}

const identities = new WeakMap<object, number>()
let lastIdentity = 0

/** A number for an object: lines are never changed in place, so it stands for their contents. */
function identity(line: object): number {
  let known = identities.get(line)
  if (known === undefined) identities.set(line, (known = ++lastIdentity))
  return known
}

function listPlaces(study: Study, number: (text: string) => NumberLookup): PlaceResult[] {
  const texts = [
    ...study.sliders.filter((s) => s.place).map((s) => s.name),
    ...study.lines.flatMap(placesOfLine),
  ]
  return [...new Set(texts.map((t) => t.trim()))].flatMap((text) => {
    const found = number(text)
    return found.ok ? [{ text, value: found.value }] : []
  })
}

function listSpans(study: Study, number: (text: string) => NumberLookup): SpanResult[] {
  const seen = new Set<string>()
  const spans = study.lines.flatMap((line) => spanMembers(line).map(({ span }) => span))
  return spans.flatMap((text) => {
    if (seen.has(`${text.from} ${text.to}`)) return []
    seen.add(`${text.from} ${text.to}`)
    const [from, to] = [number(text.from), number(text.to)]
    return from.ok && to.ok ? [{ text, from: from.value, to: to.value }] : []
  })
}
const sameSpans = (a: readonly SpanResult[], b: readonly SpanResult[]) =>
  a.length === b.length &&
  a.every((s, i) => {
    const other = b[i]!
    return (
      s.from === other.from &&
      s.to === other.to &&
      s.text.from === other.text.from &&
      s.text.to === other.text.to
    )
  })

const sameSentence = (a: readonly Phrase[], b: readonly Phrase[]) =>
  a.length === b.length &&
  sentenceText(a) === sentenceText(b) &&
  JSON.stringify(a) === JSON.stringify(b)
const samePlaces = (a: PlaceResult[], b: PlaceResult[]) =>
  a.length === b.length && a.every((p, i) => p.text === b[i]!.text && p.value === b[i]!.value)

function asLineProblem({ message, fix, missing, from, to, replacement }: Problem): LineProblem {
  return {
    message,
    ...(fix ? { fix } : {}),
    ...(missing ? { missing } : {}),
    at: { from, to, ...(replacement ? { replacement } : {}) },
  }
}

const circular = (path: readonly string[]): LineProblem => ({
  message: `defined by itself: ${path.join(' → ')}`,
  fix: 'let one of them stand on its own',
})

/** What is made once of a tree by one evaluator: compiled, with curves put in, differentiated. */
function createOnce() {
  const compiled = new WeakMap<Tree, RealFunction>()
  const expansions = new WeakMap<Tree, { trees: Record<string, Tree>; result: Tree }>()
  const derivatives = new WeakMap<Tree, Tree>()
  return {
    compile(tree: Tree, letter: string): RealFunction {
      let f = compiled.get(tree)
      if (!f || f.variable !== letter) {
        f = compileTree(tree, { variable: letter })
        compiled.set(tree, f)
      }
      return f
    },
    expand(tree: Tree, trees: Record<string, Tree>, letter: string): Tree {
      const names = Object.keys(trees)
      if (names.length === 0) return tree
      const known = expansions.get(tree)
      if (known && names.every((n) => known.trees[n] === trees[n])) return known.result
      const result = expandCurves(tree, trees, letter)
      expansions.set(tree, { trees, result })
      return result
    },
    derivative(tree: Tree, letter: string, order: number): Tree {
      let result = tree
      for (let i = 0; i < order; i++) {
        let next = derivatives.get(result)
        if (!next) derivatives.set(result, (next = differentiate(result, letter)))
        result = next
      }
      return result
    },
  }
}
