import type { Examination, Feature } from '../../features/examination'
import { near, signStretches, type Stretch } from '../shared/signStretches'
import type { SpanFacts } from '../shared/spanFacts'
import { type Closed, endsBelong, endsReached, type Holds } from '../shared/intervals'

/** What a function does on a stretch. */
export type Does =
  'rises' | 'falls' | 'level' | 'concaveUp' | 'concaveDown' | 'notBelow' | 'notAbove' | 'zero'

/** What of a graph is read on a stretch: its course, that of its slope, its sign, its values. */
export type Seen =
  | { of: 'graph'; does: 'rises' | 'falls' | 'level' | 'concaveUp' | 'concaveDown' }
  | { of: 'straight' }
  | { of: 'slope' | 'values' | 'sign'; up: boolean }

/** What a function has at a place; `up` for minima, and for changes from − to +. */
export type Has =
  | { what: 'turning'; minimum: boolean }
  | { what: 'inflection' }
  /** It changes its sign: it is 0 there, or has no value. */
  | { what: 'sign'; up: boolean; vanishes: boolean }

/** What of a graph is read at a place. */
export type SeenAt =
  | { of: 'ownTurn' | 'turn'; minimum: boolean }
  | { of: 'signGoes'; up: boolean }
  | { of: 'graphTurns' }
  | { of: 'concavityTurns'; up: boolean }

/** What follows about one function from the graph of another, before it is put into words. */
export type Conclusion =
  /** `closed` tells which ends belong. */
  | { kind: 'on'; does: Does; on: Stretch; closed: Closed; seen: Seen; at: number }
  | { kind: 'at'; has: Has; enclosure: readonly [number, number]; seen: SeenAt; at: number }

/** Of what order the graph is taken to be, and the function that is spoken of. */
export interface Orders {
  taken: number
  about: number
  /** How many orders above the graph of the line the one is that was examined. */
  steps: number
}

/** Where the signs on both sides of a zero differ; `up` from − to +. */
export function crossingsOf(facts: SpanFacts): (Feature & { up: boolean })[] {
  const positive = signStretches(facts, 1)
  const negative = signStretches(facts, -1)
  const sideOf = (x: number, end: 0 | 1) => {
    const touches = (all: Stretch[]) => all.some((stretch) => near(stretch[end], x))
    return touches(positive) ? 1 : touches(negative) ? -1 : 0
  }
  return facts.examination!.zeros.flatMap((zero) => {
    const [before, after] = [sideOf(zero.x, 1), sideOf(zero.x, 0)]
    return before * after < 0 ? [{ ...zero, up: after > 0 }] : []
  })
}

const on = (list: readonly Stretch[], does: Does, seen: Seen): Conclusion[] =>
  list.map((stretch) => ({
    kind: 'on',
    does,
    on: stretch,
    closed: [true, true],
    seen,
    at: stretch[0],
  }))
const at = ({ x, enclosure }: Feature, has: Has, seen: SeenAt): Conclusion => ({
  kind: 'at',
  has,
  enclosure,
  seen,
  at: x,
})

type Signed = readonly [positive: readonly Stretch[], negative: readonly Stretch[]]

/**
 * What follows about f⁽ᵏ⁾ from the graph of f⁽ᵐ⁾: from the graph itself for k = m, from its signs
 * for the function one order below, from its rise and fall for that one above, from its concavity
 * for that two above.
 */
export function concluded(orders: Orders, facts: SpanFacts): Conclusion[] {
  return followed(orders, facts).map((fact) => withEnds(fact, orders, facts))
}

const own: readonly string[] = ['rises', 'falls', 'level', 'concaveUp', 'concaveDown']

/** Of the graph itself its values tell which ends belong; of others whether they get there at all. */
function withEnds(fact: Conclusion, { taken, about }: Orders, facts: SpanFacts): Conclusion {
  if (fact.kind !== 'on') return fact
  const { breaks } = facts.examination!
  const isOwn = taken === about && own.includes(fact.does)
  const closed = isOwn
    ? endsBelong(facts.f, fact.on, fact.does as Holds, breaks)
    : endsReached(facts.f, fact.on, breaks)
  return { ...fact, closed }
}

function followed({ taken, about }: Orders, facts: SpanFacts): Conclusion[] {
  const found = facts.examination!
  const signed: Signed = [signStretches(facts, 1), signStretches(facts, -1)]
  switch (taken - about) {
    case 0:
      return aboutItself(found)
    case 1:
      return aboutOneBelow(found, signed, crossingsOf(facts))
    case 2:
      return aboutTwoBelow(signed, crossingsOf(facts))
    case -1:
      return aboutOneAbove(found)
    default:
      return aboutTwoAbove(found, [facts.from, facts.to])
  }
}

const graph = (does: 'rises' | 'falls' | 'level' | 'concaveUp' | 'concaveDown'): Seen => ({
  of: 'graph',
  does,
})
const isMinimum = ({ kind }: { kind: 'maximum' | 'minimum' }) => kind === 'minimum'

const aboutItself = (found: Examination): Conclusion[] => [
  ...on(found.rising, 'rises', graph('rises')),
  ...on(found.falling, 'falls', graph('falls')),
  ...on(found.level, 'level', graph('level')),
  ...found.turningPoints.map((t) => {
    const minimum = isMinimum(t)
    return at(t, { what: 'turning', minimum }, { of: 'ownTurn', minimum })
  }),
  ...on(found.concaveUp, 'concaveUp', { of: 'slope', up: true }),
  ...on(found.concaveDown, 'concaveDown', { of: 'slope', up: false }),
]

const aboutOneBelow = (
  found: Examination,
  [positive, negative]: Signed,
  crossings: readonly (Feature & { up: boolean })[],
): Conclusion[] => [
  ...on(positive, 'rises', { of: 'sign', up: true }),
  ...on(negative, 'falls', { of: 'sign', up: false }),
  ...crossings.map((z) => at(z, { what: 'turning', minimum: z.up }, { of: 'signGoes', up: z.up })),
  ...on(found.rising, 'concaveUp', { of: 'values', up: true }),
  ...on(found.falling, 'concaveDown', { of: 'values', up: false }),
  ...found.turningPoints.map((t) =>
    at(t, { what: 'inflection' }, { of: 'turn', minimum: isMinimum(t) }),
  ),
]

const aboutTwoBelow = (
  [positive, negative]: Signed,
  crossings: readonly (Feature & { up: boolean })[],
): Conclusion[] => [
  ...on(positive, 'concaveUp', { of: 'sign', up: true }),
  ...on(negative, 'concaveDown', { of: 'sign', up: false }),
  ...crossings.map((z) => at(z, { what: 'inflection' }, { of: 'signGoes', up: z.up })),
]

const aboutOneAbove = (found: Examination): Conclusion[] => [
  ...on(found.rising, 'notBelow', graph('rises')),
  ...on(found.falling, 'notAbove', graph('falls')),
  ...on(found.level, 'zero', graph('level')),
  ...found.turningPoints.map((t) =>
    at(t, { what: 'sign', up: isMinimum(t), vanishes: t.vanishes }, { of: 'graphTurns' }),
  ),
  ...on(found.concaveUp, 'rises', graph('concaveUp')),
  ...on(found.concaveDown, 'falls', graph('concaveDown')),
]

function aboutTwoAbove(found: Examination, span: Stretch): Conclusion[] {
  const { concaveUp, concaveDown, breaks, complete, inflections } = found
  const isStraight = complete && concaveUp.length + concaveDown.length + breaks.length === 0
  return [
    ...on(concaveUp, 'notBelow', graph('concaveUp')),
    ...on(concaveDown, 'notAbove', graph('concaveDown')),
    ...on(isStraight ? [span] : [], 'zero', { of: 'straight' }),
    ...inflections.map((p) => {
      const up = concaveUp.some(([a]) => near(a, p.x))
      return at(p, { what: 'sign', up, vanishes: p.vanishes }, { of: 'concavityTurns', up })
    }),
  ]
}

/** What the graph does not decide, and what would. */
export type Missing = 'values' | 'riseAndValues' | 'laneBelow' | 'laneExamined'

export function missingFor({ taken, about, steps }: Orders): Missing[] {
  const below = taken - about
  return [
    ...(below === 1 ? (['values'] as const) : []),
    ...(below === 2 ? (['riseAndValues'] as const) : []),
    ...(below < -1 ? (['laneBelow'] as const) : []),
    ...(steps > 0 ? (['laneExamined'] as const) : []),
  ]
}
