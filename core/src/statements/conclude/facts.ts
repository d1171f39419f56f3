import type { Break, BreakKind, Examination, Feature } from '../../features/examination'
import { near, signStretches, type Stretch } from '../shared/signStretches'
import { type Bridge, changesAt, joinedAcross } from './bridges'
import type { SpanFacts } from '../shared/spanFacts'
import { type Closed, endsBelong, endsReached, type Holds } from '../shared/intervals'

/** What a function does on a stretch. */
export type Does =
  | 'rises'
  | 'falls'
  | 'level'
  | 'straight'
  | 'concaveUp'
  | 'concaveDown'
  | 'notBelow'
  | 'notAbove'
  | 'zero'

/** What of a graph is read on a stretch: its course, that of its slope, its sign, its values. */
export type Seen =
  | { of: 'graph'; does: 'rises' | 'falls' | 'level' | 'straight' | 'concaveUp' | 'concaveDown' }
  | { of: 'zero' | 'even' }
  | { of: 'slope' | 'values'; up: boolean }
  /** Inside it has that sign but for some places: where it is 0, and where it is missing. */
  | { of: 'sign'; up: boolean; zeros: readonly number[]; missing: readonly number[] }

/** What a function has at a place; `up` for minima, and for changes from − to +. */
export type Has =
  | { what: 'turning'; minimum: boolean }
  | { what: 'inflection'; hasTangent: boolean }
  /** It has no value there. */
  | { what: 'missing' }
  /** No value nearby lies beyond its own, though it does not turn there. */
  | { what: 'outstanding'; highest: boolean }
  /** It changes its sign: it is 0 there, or has no value. */
  | { what: 'sign'; up: boolean; vanishes: boolean }

/** What of a graph is read at a place. */
export type SeenAt =
  | { of: 'ownTurn' | 'turn'; minimum: boolean }
  | { of: 'signGoes'; up: boolean }
  /** It changes its sign without being 0. */
  | { of: 'signLeaps'; up: boolean; by: BreakKind }
  /** It rises on one side and falls on the other of a place at which it is not continuous. */
  | { of: 'courseLeaps'; up: boolean; by: BreakKind }
  | { of: 'ownBend'; up: boolean }
  | { of: 'break'; by: BreakKind }
  | { of: 'nearby'; highest: boolean; where: BreakKind }
  | { of: 'graphTurns' }
  | { of: 'concavityTurns'; up: boolean }

/** What follows about one function from the graph of another, before it is put into words. */
export type Conclusion =
  /** `closed` tells which ends belong, `except` where inside it has no value. */
  | {
      kind: 'on'
      does: Does
      on: Stretch
      closed: Closed
      except: readonly number[]
      seen: Seen
      at: number
    }
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
    except: [],
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
export function concluded(
  orders: Orders,
  facts: SpanFacts,
  bridges: readonly Bridge[],
): Conclusion[] {
  return followed(orders, facts, bridges).map((fact) => withEnds(fact, orders, facts, bridges))
}

const own: readonly string[] = ['rises', 'falls', 'level', 'concaveUp', 'concaveDown']

/** Of the graph itself its values tell which ends belong; of others whether they get there at all. */
function withEnds(
  fact: Conclusion,
  { taken, about }: Orders,
  facts: SpanFacts,
  bridges: readonly Bridge[],
): Conclusion {
  if (fact.kind !== 'on') return fact
  const { breaks } = facts.examination!
  const isOwn = taken === about && own.includes(fact.does)
  if (isOwn) return { ...fact, closed: endsBelong(facts.f, fact.on, fact.does as Holds, breaks) }
  const reached = endsReached(facts.f, fact.on, breaks)
  if (about > taken) return withoutPlaces(fact, reached, breaks)
  const goesOn = (x: number) => taken > about && bridges.some((b) => near(b.x, x))
  const closed: Closed = [reached[0] || goesOn(fact.on[0]), reached[1] || goesOn(fact.on[1])]
  return { ...fact, closed }
}

/** A derivative has no value where the graph has a break. */
function withoutPlaces(
  fact: Conclusion & { kind: 'on' },
  [start, end]: Closed,
  breaks: readonly Break[],
): Conclusion {
  const { on } = fact
  const isBroken = (x: number) => breaks.some((b) => near(b.x, x))
  const inside = breaks.map((b) => b.x).filter((x) => x > on[0] && x < on[1])
  return {
    ...fact,
    closed: [start && !isBroken(on[0]), end && !isBroken(on[1])],
    except: inside.filter((x) => !near(x, on[0]) && !near(x, on[1])),
  }
}

function followed(
  { taken, about }: Orders,
  facts: SpanFacts,
  bridges: readonly Bridge[],
): Conclusion[] {
  const found = facts.examination!
  const signed = [1, -1].map((sign) =>
    joinedAcross(signStretches(facts, sign as 1 | -1), bridges),
  ) as [Stretch[], Stretch[]]
  const graph: Graph = { facts, found, signed, crossings: crossingsOf(facts), bridges }
  switch (taken - about) {
    case 0:
      return aboutItself(found)
    case 1:
      return aboutOneBelow(graph)
    case 2:
      return aboutTwoBelow(graph)
    case -1:
      return aboutOneAbove(found)
    default:
      return aboutTwoAbove(found)
  }
}

/** What of a graph conclusions about the functions below it are drawn from. */
interface Graph {
  facts: SpanFacts
  found: Examination
  /** Where it is positive and where negative, over places too at which what lies below goes on. */
  signed: Signed
  crossings: readonly (Feature & { up: boolean })[]
  bridges: readonly Bridge[]
}

/** What is seen of the sign on each stretch: where it is 0 all the same, or missing. */
const bySign = (up: boolean, does: Does, { found, bridges, signed }: Graph): Conclusion[] =>
  signed[up ? 0 : 1].flatMap((stretch) => {
    const inside = (x: number) =>
      x > stretch[0] && x < stretch[1] && !near(x, stretch[0]) && !near(x, stretch[1])
    const zeros = found.zeros.map((z) => z.x).filter(inside)
    const missing = bridges.map((b) => b.x).filter((x) => inside(x) && !zeros.includes(x))
    const seen: Seen = { of: 'sign', up, zeros, missing }
    return on([stretch], does, seen)
  })

/** Stretches on which the graph is level: at 0, or elsewhere. */
const levels = ({ found, facts }: Graph, atZero: boolean): readonly Stretch[] =>
  found.level.filter(([a, b]) => (facts.f.value(a + (b - a) / 2) === 0) === atZero)

const graph = (does: (Seen & { of: 'graph' })['does']): Seen => ({ of: 'graph', does })
const isMinimum = ({ kind }: { kind: 'maximum' | 'minimum' }) => kind === 'minimum'

const aboutItself = (found: Examination): Conclusion[] => [
  ...on(found.rising, 'rises', graph('rises')),
  ...on(found.falling, 'falls', graph('falls')),
  ...on(found.level, 'level', graph('level')),
  ...on(found.straight, 'straight', graph('straight')),
  ...found.turningPoints.map((t) => {
    const minimum = isMinimum(t)
    return at(t, { what: 'turning', minimum }, { of: 'ownTurn', minimum })
  }),
  ...found.outstanding.flatMap((place) => {
    const highest = place.kind === 'maximum'
    const { where } = place
    if (where === 'end' || where === 'domain-end') return []
    return [at(place, { what: 'outstanding', highest }, { of: 'nearby', highest, where })]
  }),
  ...on(found.concaveUp, 'concaveUp', { of: 'slope', up: true }),
  ...on(found.concaveDown, 'concaveDown', { of: 'slope', up: false }),
  ...found.inflections.map((p) => {
    const up = found.concaveUp.some(([a]) => near(a, p.x))
    return at(p, { what: 'inflection', hasTangent: p.hasTangent }, { of: 'ownBend', up })
  }),
]

const aboutOneBelow = (graph: Graph): Conclusion[] => {
  const { found, crossings, bridges, signed } = graph
  const rising = joinedAcross(found.rising, bridges, ({ step }) => step >= 0)
  const falling = joinedAcross(found.falling, bridges, ({ step }) => step <= 0)
  return [
    ...bySign(true, 'rises', graph),
    ...bySign(false, 'falls', graph),
    ...on(levels(graph, true), 'level', { of: 'zero' }),
    ...crossings.map((z) =>
      at(z, { what: 'turning', minimum: z.up }, { of: 'signGoes', up: z.up }),
    ),
    ...changesAt(bridges, signed).map(({ bridge, up }) =>
      at(bridge, { what: 'turning', minimum: up }, { of: 'signLeaps', up, by: bridge.kind }),
    ),
    ...on(rising, 'concaveUp', { of: 'values', up: true }),
    ...on(falling, 'concaveDown', { of: 'values', up: false }),
    ...on(levels(graph, false), 'straight', { of: 'even' }),
    ...found.turningPoints.map((t) =>
      at(t, { what: 'inflection', hasTangent: true }, { of: 'turn', minimum: isMinimum(t) }),
    ),
    ...changesAt(bridges, [rising, falling]).map(({ bridge, up }) =>
      at(
        bridge,
        { what: 'inflection', hasTangent: bridge.step === 0 },
        { of: 'courseLeaps', up, by: bridge.kind },
      ),
    ),
  ]
}

const aboutTwoBelow = (graph: Graph): Conclusion[] => [
  ...bySign(true, 'concaveUp', graph),
  ...bySign(false, 'concaveDown', graph),
  ...on(levels(graph, true), 'straight', { of: 'zero' }),
  ...graph.crossings.map((z) =>
    at(z, { what: 'inflection', hasTangent: true }, { of: 'signGoes', up: z.up }),
  ),
  ...changesAt(graph.bridges, graph.signed).map(({ bridge, up }) =>
    at(bridge, { what: 'inflection', hasTangent: true }, { of: 'signLeaps', up, by: bridge.kind }),
  ),
]

/** Where a derivative is missing, but for places that are told already. */
const missingAt = ({ breaks }: Examination, told: readonly Feature[]): Conclusion[] =>
  breaks
    .filter(({ x }) => !told.some((t) => near(t.x, x)))
    .map((b) =>
      at({ ...b, value: NaN, proven: true }, { what: 'missing' }, { of: 'break', by: b.kind }),
    )

const aboutOneAbove = (found: Examination): Conclusion[] => [
  ...on(found.rising, 'notBelow', graph('rises')),
  ...on(found.falling, 'notAbove', graph('falls')),
  ...on(found.level, 'zero', graph('level')),
  ...found.turningPoints.map((t) =>
    at(t, { what: 'sign', up: isMinimum(t), vanishes: t.vanishes }, { of: 'graphTurns' }),
  ),
  ...missingAt(found, found.turningPoints),
  ...on(found.concaveUp, 'rises', graph('concaveUp')),
  ...on(found.concaveDown, 'falls', graph('concaveDown')),
]

function aboutTwoAbove(found: Examination): Conclusion[] {
  const { concaveUp, concaveDown, inflections } = found
  return [
    ...on(concaveUp, 'notBelow', graph('concaveUp')),
    ...on(concaveDown, 'notAbove', graph('concaveDown')),
    ...on(found.level, 'zero', graph('level')),
    ...on(found.straight, 'zero', graph('straight')),
    ...inflections.map((p) => {
      const up = concaveUp.some(([a]) => near(a, p.x))
      return at(p, { what: 'sign', up, vanishes: p.vanishes }, { of: 'concavityTurns', up })
    }),
    ...missingAt(found, inflections),
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
