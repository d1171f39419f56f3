import { findCycle } from '../algebra/curves'
import type { Steps } from '../features/budget'
import { namesIn, type Tree } from '../formula/tree'
import {
  type CurveMaker,
  isFormulaLine,
  isGivenBy,
  isMeasured,
  type Statement,
  surfaceOf,
} from '../statements'
import type {
  CurveContext,
  CurveLookup,
  LineContext,
  LineResult,
  SentenceContext,
  SurfaceContext,
  SurfaceLookup,
} from '../statements/contract'
import { parseCurveRef } from '../statements/shared/slots'
import type { Study } from '../study/schema'
import { withPowerOfTen } from '../vocabulary/values'
import type { Kept } from './kept'
import { asLineProblem, circular, type Read, type Reading } from './reading'

/** Work that is done as far as a line's time allows; null where it is not finished. */
function inTime<R>(work: Steps<R>, patience: Kept['patience']): R | null {
  const hasTime = patience()
  while (hasTime()) {
    const step = work.next()
    if (step.done) return step.value
  }
  return null
}

const isCurveIn = (read: Read) => (text: string) => {
  const ref = parseCurveRef(text)
  return ref !== null && read<string>('curveNames').split(',').includes(ref.curve)
}

const givenByIn = (read: Read) => (graph: string, order: number) =>
  read<string>('curveNames')
    .split(',')
    .find((name) => {
      const line = read<CurveMaker | undefined>(`source:${name}`)
      return line !== undefined && isGivenBy(line, graph, order)
    }) ?? null

/** What a line may look at. */
export const lineContextOf = (read: Read, reading: Reading, kept: Kept): LineContext => ({
  get variable() {
    return read<Study['variable']>('variable')
  },
  get decimals() {
    return read<number>('decimals')
  },
  curve: (name) => read<CurveLookup>(`curve:${name}`),
  surface: (name) => read<SurfaceLookup>(`surface:${name}`),
  isCurve: isCurveIn(read),
  curveGivenBy: givenByIn(read),
  number: reading.number,
  range(place) {
    const step = read<number | undefined>(`step:${place}`)
    const from = read<number | undefined>(`from:${place}`)
    return step === undefined || from === undefined ? null : { from, step }
  },
  formula(text) {
    const result = reading.parse(text)
    if (!result.ok) return { ok: false, problem: asLineProblem(result.problems[0]!) }
    const bound = reading.bind(result.tree, [])
    return 'problem' in bound ? { ok: false, problem: bound.problem } : { ok: true, f: bound.f }
  },
  tableOf(name, order, wanted = '') {
    const id = read<string | undefined>(`table:${name}:${order}:${wanted}`)
    return id === undefined ? null : read<LineResult | null>(`result:${id}`)
  },
  steps: (work) => inTime(work, kept.patience),
  memo: kept.remember,
})

/** The circle that a curve is defined in, if it is. */
function cycleFrom(name: string, read: Read, { parse }: Reading): string[] | null {
  const trees: Record<string, Tree> = {}
  for (const one of read<string>('curveNames').split(',')) {
    const line = read<CurveMaker | undefined>(`source:${one}`)
    const result = line && isFormulaLine(line) ? parse(line.formula) : undefined
    if (result?.ok) trees[one] = result.tree
  }
  return findCycle(name, trees)
}

/** What a line that makes a curve may look at besides. */
export function curveContextOf(
  line: LineContext,
  read: Read,
  reading: Reading,
  { once }: Kept,
  sliders: ReadonlyMap<string, number>,
): CurveContext {
  const letter = () => read<string>('letter')
  const own: Omit<CurveContext, keyof LineContext> = {
    read(text) {
      const result = reading.parse(text)
      return result.ok
        ? { ok: true, tree: result.tree, hints: result.hints }
        : { ok: false, problems: result.problems.map(asLineProblem) }
    },
    bind(tree, name) {
      const bound = reading.bind(tree, [name])
      if ('problem' in bound) return { ok: false, problem: bound.problem }
      const values = Object.fromEntries(sliders)
      const derivative = (order: number) => {
        if (order === 0) return bound.f
        const tree = once.derivative(bound.expanded, letter(), order)
        return once.compile(tree, letter()).withParameters(values)
      }
      return { ok: true, derivative }
    },
    derivativeOf: (tree, order) => once.derivative(tree, letter(), order),
    circle(name) {
      const cycle = cycleFrom(name, read, reading)
      return cycle && circular(cycle)
    },
  }
  // What is read when asked for must stay so, or every curve would hang on everything.
  return Object.create(line, Object.getOwnPropertyDescriptors(own)) as CurveContext
}

/** What a line that makes a surface may look at besides. */
export function surfaceContextOf(line: LineContext, read: Read, reading: Reading): SurfaceContext {
  const own: Omit<SurfaceContext, keyof LineContext> = {
    readOver(text, letters) {
      const result = reading.parseOver(text, letters)
      if (!result.ok) return { ok: false, problems: result.problems.map(asLineProblem) }
      const whole = reading.expand(result.tree)
      return whole
        ? { ok: true, tree: whole, hints: result.hints }
        : { ok: false, problems: [{ message: 'a curve in it cannot be used' }] }
    },
    valuesIn: (tree) =>
      Object.fromEntries(
        [...namesIn(tree)].flatMap((name) => {
          const value = read<number | undefined>(`slider:${name}`)
          return value === undefined ? [] : [[name, value] as const]
        }),
      ),
  }
  return Object.create(line, Object.getOwnPropertyDescriptors(own)) as SurfaceContext
}

/** What a sentence may look at. */
export const sentenceContextOf = (read: Read, reading: Reading): SentenceContext => ({
  get notation() {
    return read<Study['display']['notation']>('notation')
  },
  get variable() {
    return read<Study['variable']>('variable')
  },
  read(text) {
    const result = reading.parse(withPowerOfTen(text))
    return result.ok ? result.tree : null
  },
  readOver(text, letters) {
    const result = reading.parseOver(text, letters)
    return result.ok ? result.tree : null
  },
  surfaceLetters(name) {
    const line = read<Statement | undefined>(`surfaceSource:${name}`)
    return line ? surfaceOf(line)!.letters : null
  },
  derivative(name, order) {
    const found = read<CurveLookup>(`curve:${name}`)
    return found.ok && found.curve.formula ? found.curve.derivative(order).tree : null
  },
  number(text) {
    const found = reading.number(text)
    return found.ok ? found.value : null
  },
  isMeasured(name) {
    const line = read<CurveMaker | undefined>(`source:${name}`)
    return line !== undefined && isMeasured(line)
  },
  isCurve: isCurveIn(read),
  curveGivenBy: givenByIn(read),
  ends(name) {
    const found = read<CurveLookup>(`curve:${name}`)
    if (!found.ok) return { from: true, to: true }
    const { f, from, to } = found.curve
    return { from: !Number.isNaN(f.value(from)), to: !Number.isNaN(f.value(to)) }
  },
})
