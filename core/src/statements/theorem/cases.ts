import { shownFeature } from '../shared/exactPlaces'
import { placeIs } from '../shared/said'
import { toPlain } from '../../language/print'
import * as I from '../../arithmetic/intervals'
import type { Solutions } from '../../features/solve'
import { unitOfDerivative, withUnit } from '../../vocabulary/units'
import type { Tree } from '../../formula/tree'
import { tellTree, toldReadout } from '../shared/toldNumbers'
import { emptyResult, type LineResult, type Mark, placeName, type Readout } from '../contract'
import { near } from '../shared/signStretches'
import { heldAlong } from '../features/rows'
import { equalWords } from '../shared/exactWords'
import type { Extreme } from '../../features/examination'
import { type Condition, continuous, differentiable, obstaclesOf, sideOf, tested } from './facts'
import { type Case, lane, type Told } from './case'
import { fundamental } from './fundamental'
import type { TheoremLine } from './line'
import {
  continuousWords,
  differentiableWords,
  firstTestWords,
  openSpan,
  placeList,
  placesWords,
  secondTestWords,
  show,
} from './words'

const isSettled = (conditions: readonly Condition[]) =>
  conditions.every(({ holds }) => holds !== null)

/** Solutions inside the span, without its ends. */
const inside = (found: Solutions, [from, to]: Case['ends']) =>
  found.solutions.filter(({ x }) => !near(x, from.value) && !near(x, to.value))

const stems = (one: Case, found: readonly { x: number }[]): Mark[] =>
  found.slice(0, mostMarked).map(({ x }) => ({
    kind: 'stem',
    id: placeName('place', x),
    layer: 'marks',
    lane: lane(one),
    x,
    y: one.f.value(x),
    label: '',
  }))
const mostMarked = 50

/** An extreme as it is known: exactly where it is. */
function shownExtreme(
  { at: [first], value }: Extreme,
  { f, ends, wording }: Case,
  decimals: number,
) {
  const end = first && ends.find((one) => one.value === first.x)
  const shown = first && shownFeature(f, first, decimals, end?.exact ?? null)
  return { value: shown?.value ?? show(value, wording), said: shown?.said.value }
}

const extremeReadout = (one: Case, label: 'highest' | 'lowest', extreme: Extreme): Readout => ({
  id: label,
  label,
  text: withUnit(
    shownExtreme(extreme, one, one.context.decimals).value,
    unitOfDerivative(one.curve.unit, one.context.variable.unit, one.line.order),
  ),
  value: extreme.value,
})

function conditionsOf(one: Case) {
  const obstacles = obstaclesOf(one.f, one.ends, one.facts.examination!)
  return [continuous(obstacles), differentiable(obstacles, one.ends)] as const
}

/** "there is a place c with …: x = 1.155", or what is known where the conditions do not hold. */
function placesFound(one: Case, apply: boolean | null, equation: string): string {
  const { wording, found } = one
  const all = inside(found!, one.ends)
  const stretches = found!.stretches
  const listed =
    all.length > 0
      ? placesWords(all, solvedWording(one))
      : stretches.length > 0
        ? `every place from ${show(stretches[0]![0], wording)} to ${show(stretches[0]![1], wording)}`
        : null
  const also = found!.complete ? '' : ', and maybe others'
  if (apply) {
    const where = listed ? `: ${listed}${also}` : ', which could not be pinned down'
    return `So there is a place c in ${openSpan(wording)} with ${equation}${where}.`
  }
  const what = apply === null ? 'What it says is not settled here' : 'The theorem says nothing here'
  if (listed) return `${what}; all the same ${equation} at c with ${listed}${also}.`
  return found!.complete
    ? `${what}, and its conclusion is false: nowhere in ${openSpan(wording)} is ${equation}.`
    : `${what}, and no place with ${equation} was found.`
}

/** Places that were solved for are those of the equation that was solved. */
const solvedWording = ({ wording, solutionOf }: Case) =>
  solutionOf ? { ...wording, exactOf: solutionOf } : wording

const allHold = (conditions: readonly Condition[]) =>
  conditions.some(({ holds }) => holds === false)
    ? false
    : conditions.some(({ holds }) => holds === null)
      ? null
      : true

/** The chord between the ends, and a tangent alongside at each place. */
function chordAndTangents(one: Case, slope: number): Mark[] {
  const [from] = one.ends
  const y = one.f.value(from.value)
  const at = { layer: 'marks', lane: lane(one), slope } as const
  const places = inside(one.found!, one.ends).slice(0, mostMarked)
  return [
    { ...at, kind: 'line', id: 'secant', x: from.value, y, extent: 'whole' },
    ...places.map(({ x }): Mark => ({
      ...at,
      kind: 'line',
      id: placeName('tangent', x),
      x,
      y: one.f.value(x),
      extent: 'short',
    })),
    ...stems(one, places),
  ]
}

function meanValue(one: Case): Told {
  const { wording, endFacts } = one
  const { name } = wording
  const conditions = conditionsOf(one)
  const words = [
    continuousWords(conditions[0], wording),
    differentiableWords(conditions[1], wording),
  ]
  const { rate } = endFacts
  if (!rate) return { readouts: [], marks: [], sentences: [...words, noRate(one)] }
  const slope = I.middle(rate.number.range)
  const [a, b] = wording.ends
  const equation = `${name}′(c) = (${name}(${b}) − ${name}(${a}))/(${b} − ${bracketed(a)}) ${equalWords(rate.number, wording.decimals)}`
  return {
    readouts: [rateReadout(one, rate.number.tree, slope), ...placesReadout(one)],
    marks: chordAndTangents(one, slope),
    sentences: [...words, placesFound(one, allHold(conditions), equation)],
    open: !isSettled(conditions),
  }
}

const rateReadout = ({ curve, context, line }: Case, rate: Tree, slope: number) => ({
  ...toldReadout(
    'average rate',
    tellTree(rate, slope, context, true),
    unitOfDerivative(curve.unit, context.variable.unit, line.order + 1),
  ),
  id: 'rate',
})

const bracketed = (text: string) => (text.startsWith('−') ? `(${text})` : text)

const noRate = ({ wording, endFacts: { values } }: Case) => {
  const { name, letter, ends } = wording
  return `The theorem says nothing here: ${name} has no value at ${letter} = ${ends[values[0] ? 1 : 0]}.`
}

const placesReadout = (one: Case) => {
  const all = inside(one.found!, one.ends)
  if (all.length === 0) return []
  // In an output only what is not certain carries a sign.
  const text = placeList(all, solvedWording(one)).replace(/^≈ /, '')
  const value = all.length === 1 ? { value: all[0]!.x } : {}
  return [{ id: 'c', label: 'c', text, ...value }]
}

function rolle(one: Case): Told {
  const { wording, endFacts } = one
  const { name } = wording
  const [whole, smooth] = conditionsOf(one)
  const { values, change } = endFacts
  const isMissing = values.some((value) => value === null)
  const same = isMissing ? false : change === null ? null : change === 0
  const words = [
    continuousWords(whole, wording),
    differentiableWords(smooth, wording),
    endsWords(one, same),
  ]
  const conditions = [whole, smooth, { holds: same, at: null }]
  return {
    readouts: placesReadout(one),
    marks: chordAndTangents(one, 0).slice(values[0] ? 0 : 1),
    sentences: [...words, placesFound(one, allHold(conditions), `${name}′(c) = 0`)],
    open: !isSettled(conditions),
  }
}

/** The number that is asked for: as it was typed where that is short. */
function levelWords({ level, wording }: Case): string {
  const typed = level.exact && toPlain(level.exact)
  return typed && typed.length <= longestLevel ? typed : show(level.value, wording)
}
const longestLevel = 12

/** f(0) = 3 and f(2) = 5 */
function endValues({ wording, endFacts: { values } }: Case): string {
  const { name, ends, decimals } = wording
  return values
    .map(
      (value, i) => `${name}(${ends[i]!}) ${value ? equalWords(value, decimals) : 'has no value'}`,
    )
    .join(' and ')
}

const endsWords = (one: Case, same: boolean | null) =>
  same === null
    ? `Whether its values at both ends are equal is not settled: ${endValues(one)}.`
    : `Its values at both ends are ${same ? '' : 'not '}equal: ${endValues(one)}.`

function intermediateValue(one: Case): Told {
  const { wording, endFacts, level } = one
  const { name } = wording
  const [whole] = conditionsOf(one)
  const sides = endFacts.values.map((value) => value && sideOf(value, level))
  const [p, q] = sides
  const known = typeof p === 'number' && typeof q === 'number'
  const between = known ? p * q < 0 || p === 0 || q === 0 : null
  const missing = endFacts.values.some((value) => value === null)
  const holds = missing ? false : between
  const k = levelWords(one)
  const lies =
    holds === null
      ? `Whether ${k} lies between the values at the ends is not settled: ${endValues(one)}.`
      : `${k} ${holds ? 'lies' : 'does not lie'} between the values at the ends: ${endValues(one)}.`
  const conditions = [whole, { holds, at: null }]
  const apply = allHold(conditions)
  // The level may be taken at an end alone.
  const atEnd = apply && (p === 0 || q === 0) && inside(one.found!, one.ends).length === 0
  const last = atEnd
    ? `So ${name} takes the value ${k}: at ${wording.letter} = ${wording.ends[p === 0 ? 0 : 1]}.`
    : placesFound(one, apply, placeIs(`${name}(c)`, k))
  const { from, to } = one.facts
  return {
    readouts: placesReadout(one),
    marks: [
      {
        kind: 'level',
        id: 'level',
        layer: 'marks',
        lane: lane(one),
        y: level.value,
        from,
        to,
        label: k,
      },
      ...stems(one, inside(one.found!, one.ends)),
    ],
    sentences: [continuousWords(whole, wording), lies, last],
    open: !isSettled(conditions),
  }
}

function extremeValue(one: Case): Told {
  const { wording, facts } = one
  const { name } = wording
  const [whole] = conditionsOf(one)
  const { highest, lowest, extremesDecided } = facts.examination!
  const told = (found: typeof highest, decided: boolean, what: string) =>
    found
      ? `its ${what} value is ${extremeSaid(found, one)}, ${attainedWords(found, one)}`
      : decided
        ? `it takes no ${what} value`
        : whole.holds
          ? `its ${what} value could not be pinned down`
          : `whether it takes a ${what} value is not settled`
  const both = `${told(highest, extremesDecided.highest, 'highest')}, and ${told(lowest, extremesDecided.lowest, 'lowest')}`
  const last =
    whole.holds === true
      ? `So ${name} takes a highest and a lowest value there: ${both}.`
      : whole.holds === null
        ? `What the theorem says is not settled here: ${both}.`
        : `The theorem says nothing here: ${both}.`
  const readouts = [
    ...(highest ? [extremeReadout(one, 'highest', highest)] : []),
    ...(lowest ? [extremeReadout(one, 'lowest', lowest)] : []),
  ]
  const marks = [...(highest?.at ?? []), ...(lowest?.at ?? [])]
  return {
    readouts,
    marks: stems(one, marks),
    sentences: [continuousWords(whole, wording), last],
    open: whole.holds === null,
  }
}

/** The same in a sentence. */
const extremeSaid = (extreme: Extreme, one: Case) =>
  shownExtreme(extreme, one, Math.max(3, one.wording.decimals)).said ??
  show(extreme.value, one.wording)

/** Where an extreme is taken: at places, or all along a stretch. */
function attainedWords(extreme: Extreme, { f, facts, wording }: Case): string {
  const along = heldAlong(extreme, facts.examination!, { f }, wording.decimals)
  return along ? `all along ${along}` : `at ${placesWords(extreme.at, wording)}`
}

function byDerivative(one: Case, words: typeof firstTestWords): Told {
  const { wording, curve, line, facts } = one
  const bends = curve.derivative(line.order + 2).f
  const all = tested(one.f, bends, facts.examination!, [facts.from, facts.to])
  const none = `${wording.name}′ is nowhere 0 or missing in ${openSpan(wording)}: there is no critical point to test.`
  const { level, complete } = facts.examination!
  const sentences = all.slice(0, mostMarked).map((t) => words(t, wording))
  const flat = level.map(
    ([a, b]) =>
      `${wording.name} is level from ${show(a, wording)} to ${show(b, wording)}: every place in between is critical, and no test decides.`,
  )
  const told = [...sentences, ...flat]
  return {
    readouts: [],
    marks: stems(one, all),
    sentences: told.length > 0 || !complete ? told : [none],
    open: !complete,
  }
}

const cases: Record<TheoremLine['theorem'], (one: Case) => Told> = {
  meanValue,
  rolle,
  intermediateValue,
  extremeValue,
  fundamental,
  firstDerivative: (one) => byDerivative(one, firstTestWords),
  secondDerivative: (one) => byDerivative(one, secondTestWords),
}

/** The theorem checked condition by condition, and what follows. */
export function checked(one: Case): LineResult {
  const { readouts, marks, sentences, open = false } = cases[one.line.theorem](one)
  const { unresolved } = one.facts.examination!
  return {
    ...emptyResult,
    readouts,
    marks,
    conclusions: sentences.map((text) => ({ text })),
    verdict: {
      complete: !open,
      text: open ? 'Not every condition could be settled' : 'Every condition is checked',
      unresolved: open ? unresolved : [],
    },
  }
}
