import { type CurveMaker, kindOf, type Statement } from '../statements'
import {
  type CurveLookup,
  failed,
  type LineResult,
  type Phrase,
  type SurfaceLookup,
} from '../statements/contract'
import { sentenceText } from '../statements/shared/slots'
import type { Study } from '../study/schema'
import { Cells } from './cells'
import { curveContextOf, lineContextOf, sentenceContextOf, surfaceContextOf } from './contexts'
import { keysOf } from './keys'
import type { Kept } from './kept'
import { circular, createReading } from './reading'
import { neverShown } from './never'
import { showingOf } from './showing'

/** One working out of a study, on what was kept from the one before. */
export function openPass(study: Study, kept: Kept) {
  const { current, curveNames, sliderValues } = keysOf(study, {
    curve,
    surface,
    result: resultOf,
    never,
  })
  const cells = new Cells(kept.cells, current)
  const { read } = cells
  const reading = createReading(read, kept)
  const lineContext = lineContextOf(read, reading, kept)
  const curveContext = curveContextOf(lineContext, read, reading, kept, sliderValues)
  const surfaceContext = surfaceContextOf(lineContext, read, reading)
  const sentenceContext = sentenceContextOf(read, reading)
  const inProgress = new Set<string>()
  const working = new Set<string>()

  function curve(name: string): CurveLookup {
    return cells.cell(`curve:${name}`, () => {
      const line = read<CurveMaker | undefined>(`source:${name}`)
      if (!line) return { ok: false, problem: { message: `nothing is called ${name}` } }
      if (inProgress.has(name)) return { ok: false, problem: circular([name, name]) }
      inProgress.add(name)
      try {
        kept.worked += 1
        return kindOf(line).curve!.make(line, curveContext)
      } catch (error) {
        kept.onFault(error, line.id)
        return { ok: false, problem: { message: `${name} ${faultWords(error)}` } }
      } finally {
        inProgress.delete(name)
      }
    })
  }

  function surface(name: string): SurfaceLookup {
    return cells.cell(`surface:${name}`, () => {
      const line = read<Statement | undefined>(`surfaceSource:${name}`)
      if (!line) {
        const fix = 'say a surface, such as z = x² + y²'
        return { ok: false, problem: { message: `there is no surface ${name}`, fix } }
      }
      kept.worked += 1
      return tried(
        () => kindOf(line).surface!.make(line, surfaceContext),
        (error) => ({ ok: false, problem: { message: `${name} ${faultWords(error)}` } }),
        line,
      )
    })
  }

  function never(condition: string): string | null {
    return cells.cell(`never:${condition}`, () => neverShown(condition, read, reading))
  }

  function resultOf(id: string): LineResult | null {
    const line = study.lines.find((l) => l.id === id)
    return line ? result(line) : null
  }

  /** What a line gives. A kind that fails says so in its own line; the others go on. */
  function result(line: Statement): LineResult {
    return cells.cell(resultKey(line), () => {
      if (working.has(line.id)) return failed({ message: 'this line hangs on itself' })
      working.add(line.id)
      kept.worked += 1
      const made = tried(
        () => kindOf(line).evaluate(line, lineContext),
        (error) => failed({ message: `this line ${faultWords(error)}` }),
        line,
      )
      working.delete(line.id)
      if (!made.pending) return made
      // Until longer work is done what stood here last stays, dimmed.
      const before = kept.lastSettled.get(line.id)
      return before ? { ...before, pending: true } : made
    })
  }

  function sentence(line: Statement): readonly Phrase[] {
    const say = () => kindOf(line).sentence(line, sentenceContext)
    const silent = () => [{ text: 'This line cannot be put into words' }]
    return cells.cell(
      `sentence:${line.id}:${identity(line)}`,
      () => tried<readonly Phrase[]>(say, silent, line),
      sameSentence,
    )
  }

  function tried<T>(work: () => T, otherwise: (error: unknown) => T, line: Statement): T {
    try {
      return work()
    } catch (error) {
      kept.onFault(error, line.id)
      return otherwise(error)
    }
  }

  const showing = showingOf(cells, read, lineContext)

  return {
    cells,
    curveNames,
    curve,
    result,
    sentence,
    showing,
    number: reading.number,
    lineContext,
  }
}

/** The key of a line's result while the line is what it is now. */
export const resultKey = (line: Statement) => `line:${line.id}:${identity(line)}`

const faultWords = (error: unknown) =>
  `could not be worked out: ${error instanceof Error ? error.message : String(error)}`

const identities = new WeakMap<object, number>()
let lastIdentity = 0

/** A number for an object: lines are never changed in place, so it stands for their contents. */
function identity(line: object): number {
  let known = identities.get(line)
  if (known === undefined) identities.set(line, (known = ++lastIdentity))
  return known
}

const sameSentence = (a: readonly Phrase[], b: readonly Phrase[]) =>
  a.length === b.length &&
  sentenceText(a) === sentenceText(b) &&
  JSON.stringify(a) === JSON.stringify(b)
