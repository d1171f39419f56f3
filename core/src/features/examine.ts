import type { RealFunction } from '../evaluate/compile'
import * as I from '../arithmetic/intervals'
import type { Interval } from '../arithmetic/intervals'
import { withValues } from '../evaluate/withValues'
import { countParts } from '../formula/tree'
import { stretchesOf, zerosOn } from './splits'
import { withElbowRoom } from './split'
import { budgetOf, finish, type Steps } from './budget'
import type { Cell, Examination, Joint, Mark } from './examination'
import { cellWithoutSlopes, cellsOf, createSlopes, markBefore, marksWithin } from './cells'
import { breaksOf, jointsOf } from './joints'
import type { Sign } from './sign'
import { endFeatures, extremeOf, outstandingEnds } from './extremes'
import { featureAt } from './places'

/**
 * Everything about f on the closed span [from, to]: zeros, critical points, turning points,
 * inflections, breaks, where it rises, falls and bends, and its absolute extremes, each list with
 * proof that it is whole, or with the stretches that could not be settled. The definitions are those
 * of calculus texts: a turning point is an interior point where f is continuous and f′ changes sign;
 * a critical point one of the domain where f′ is zero or missing; an inflection one where f is
 * continuous and its concavity changes. Places are enclosed to 1e-9 · max(1, |x|) or better. Ends
 * the wrong way round are put right; equal or infinite ones throw RangeError. A formula of more than
 * 4,000 parts is not examined: its whole span is unresolved.
 */
export const examine = (f: RealFunction, from: number, to: number): Examination =>
  finish(examineInSteps(f, from, to))

/** The same in steps, so that a long examination can be stopped; it yields the share of its budget. */
export function* examineInSteps(f: RealFunction, from: number, to: number): Steps<Examination> {
  const [a, b] = checkedSpan(from, to)
  const { variable } = f
  const tree = withValues(f.tree, f.parameters)
  const budget = budgetOf()
  if (countParts(tree) > longestExamined) return unsettled(a, b)
  const unresolved: Interval[] = []
  const whole = withElbowRoom(yield* stretchesOf(tree, variable, a, b, budget))
  unresolved.push(...whole.unresolved)

  const cells: Cell[] = []
  const marks: Mark[] = []
  const slopesOn = createSlopes(variable)
  for (const [i, stretch] of whole.stretches.entries()) {
    if (i > 0) marks.push(markBefore(stretch, whole.splits))
    const slopes = slopesOn(stretch)
    const inside = yield* marksWithin(stretch, slopes, variable, budget)
    unresolved.push(...inside.unresolved)
    cells.push(...cellsOf(stretch, slopes, inside, variable))
    marks.push(...inside.marks)
  }
  const zeros = yield* zerosOn(tree, variable, a, b, budget, { known: whole })
  unresolved.push(...zeros.unresolved)

  const study = { tree, variable, f, from: a, to: b, cells, marks }
  const joints = yield* jointsOf(study, budget)
  const ends = endFeatures(study, whole.splits)
  const breaks = breaksOf(study, whole.splits, joints)
  // What a place is, when its sides cannot be told, is not settled.
  const places = joints.flatMap((joint) => (joint.settled ? [] : [joint.mark.enclosure]))
  const openBreaks = mergeOpen([...whole.unresolved, ...places])
  const openSigns = mergeOpen([...whole.unresolved, ...zeros.unresolved, ...places])
  unresolved.push(...places)
  for (const cell of cells) if (!cell.settled) unresolved.push({ lo: cell.from, hi: cell.to })

  const criticalPoints = joints.flatMap(({ critical }) => (critical ? [critical] : []))
  const turningPoints = joints.flatMap(({ turning }) => (turning ? [turning] : []))
  const inflections = joints.flatMap(({ inflection }) => (inflection ? [inflection] : []))
  const domainEnds = joints.flatMap(({ end }) => (end ? [end] : []))
  const candidates = [...ends, ...domainEnds, ...criticalPoints].sort((p, q) => p.x - q.x)
  const runs = (
    sign: -1 | 1,
    of: (cell: Cell) => Runs,
    joins: (joint: Joint) => boolean,
  ): [number, number][] => joinedRuns(cells, joints, sign, of, joins)
  const open = mergeOpen(unresolved)
  const extreme = (sign: 1 | -1) => extremeOf(study, candidates, joints, whole.splits, sign, open)
  const [highest, lowest] = [extreme(1), extreme(-1)]
  return {
    zeros: zeros.zeros.map((zero) => featureAt(study, zero)),
    criticalPoints,
    turningPoints,
    inflections,
    outstanding: [
      ...joints.flatMap((joint) => (joint.outstanding ? [joint.outstanding] : [])),
      ...outstandingEnds(study, ends, whole.splits),
    ].sort((p, q) => p.x - q.x),
    breaks,
    rising: runs(
      1,
      (c) => c.rise.pieces,
      (j) => j.continuous || j.valueStep > 0,
    ),
    falling: runs(
      -1,
      (c) => c.rise.pieces,
      (j) => j.continuous || j.valueStep < 0,
    ),
    concaveUp: runs(
      1,
      (c) => c.bend.pieces,
      (j) => j.continuous && j.slopeStep >= 0,
    ),
    concaveDown: runs(
      -1,
      (c) => c.bend.pieces,
      (j) => j.continuous && j.slopeStep <= 0,
    ),
    highest: highest.extreme,
    lowest: lowest.extreme,
    extremesDecided: { highest: highest.decided, lowest: lowest.decided },
    candidates,
    level: runs(
      1,
      (c) => throughout(c.level, c),
      (j) => j.continuous,
    ),
    straight: runs(
      1,
      (c) => throughout(c.straight && !c.level, c),
      (j) => j.continuous && j.slopeStep === 0,
    ),
    complete: open.length === 0,
    unresolved: open,
    openSigns,
    openBreaks,
    boxes: Math.ceil(budget.boxes),
  }
}

/** What decides the signs of f on a span: its zeros, and the places where it is missing or jumps. */
export type SignChanges = Pick<
  Examination,
  'zeros' | 'breaks' | 'complete' | 'unresolved' | 'openSigns' | 'boxes'
>

/**
 * Zeros of f on the closed span [from, to] and the breaks at which it may change its sign without
 * one, with the same proof as `examine` and without a look at its derivatives: kinks are not listed.
 */
export function* signChangesInSteps(f: RealFunction, from: number, to: number): Steps<SignChanges> {
  const [a, b] = checkedSpan(from, to)
  const { variable } = f
  const tree = withValues(f.tree, f.parameters)
  if (countParts(tree) > longestExamined) return unsettled(a, b)
  const budget = budgetOf()
  const whole = withElbowRoom(yield* stretchesOf(tree, variable, a, b, budget))
  const cells = whole.stretches.map((stretch): Cell => ({ ...stretch, ...cellWithoutSlopes }))
  const marks = whole.stretches.slice(1).map((stretch) => markBefore(stretch, whole.splits))
  const study = { tree, variable, f, from: a, to: b, cells, marks }
  const joints = yield* jointsOf(study, budget)
  const zeros = yield* zerosOn(tree, variable, a, b, budget, { known: whole })
  const open = mergeOpen([
    ...whole.unresolved,
    ...zeros.unresolved,
    ...joints.flatMap((joint) => (joint.settled ? [] : [joint.mark.enclosure])),
  ])
  return {
    zeros: zeros.zeros.map((zero) => featureAt(study, zero)),
    breaks: breaksOf(study, whole.splits, joints),
    complete: open.length === 0,
    unresolved: open,
    openSigns: open,
    boxes: Math.ceil(budget.boxes),
  }
}

/** A formula with more parts than this is not examined: nothing of it is settled. */
const longestExamined = 4000

const unsettled = (from: number, to: number): Examination => ({
  zeros: [],
  criticalPoints: [],
  turningPoints: [],
  inflections: [],
  outstanding: [],
  breaks: [],
  rising: [],
  falling: [],
  concaveUp: [],
  concaveDown: [],
  highest: null,
  lowest: null,
  extremesDecided: { highest: false, lowest: false },
  candidates: [],
  level: [],
  straight: [],
  complete: false,
  unresolved: [[from, to]],
  openSigns: [[from, to]],
  openBreaks: [[from, to]],
  boxes: 0,
})

export function checkedSpan(from: number, to: number): [number, number] {
  if (!Number.isFinite(from) || !Number.isFinite(to) || from === to) {
    throw new RangeError(`a span needs two different finite ends: ${from} to ${to}`)
  }
  return from < to ? [from, to] : [to, from]
}

type Runs = readonly { from: number; to: number; sign: Sign }[]

/** Maximal closed intervals of pieces with one sign, merged where their joints let them. */
function joinedRuns(
  cells: readonly Cell[],
  joints: readonly Joint[],
  sign: -1 | 1,
  of: (cell: Cell) => Runs,
  joins: (joint: Joint) => boolean,
): [number, number][] {
  const runs: [number, number][] = []
  /** Whether the last run ends where the cell before does. */
  let open = false
  cells.forEach((cell, i) => {
    const [joint, next] = [joints[i - 1], joints[i]]
    let reaches = false
    for (const piece of of(cell)) {
      if (piece.sign !== sign) continue
      const begins = piece.from === cell.from
      const start = begins && joint ? I.middle(joint.mark.enclosure) : piece.from
      reaches = piece.to === cell.to
      const end = reaches && next ? I.middle(next.mark.enclosure) : piece.to
      if (begins && open && joint && joins(joint)) runs.at(-1)![1] = end
      else runs.push([start, end])
    }
    open = reaches
  })
  return runs
}

/** A cell on which something holds throughout. */
const throughout = (holds: boolean, { from, to }: Cell): Runs =>
  holds ? [{ from, to, sign: 1 }] : []

function mergeOpen(open: readonly Interval[]): [number, number][] {
  const sorted = [...open].sort((a, b) => a.lo - b.lo)
  const merged: [number, number][] = []
  for (const { lo, hi } of sorted) {
    const last = merged.at(-1)
    if (last && lo <= last[1]) last[1] = Math.max(last[1], hi)
    else merged.push([lo, hi])
  }
  return merged
}
