import { planeTree } from '../../algebra/planePolynomials'
import { substitute } from '../../algebra/curves'
import * as I from '../../arithmetic/intervals'
import { negateRational } from '../../arithmetic/rational'
import { exactly, name as letterTree, sum } from '../../formula/tree'
import { toPlain } from '../../language/print'
import type { Candidate } from '../../surfaces/candidate'
import type { SurfaceExtremes } from '../../surfaces/extremes'
import { type Place, roundMiddle } from '../../surfaces/commonZeros'
import type { StationaryPoint, StationaryPoints } from '../../surfaces/stationary'
import type { ZeroCurve } from '../../surfaces/zeroCurve'
import { sayNumber, showNumber } from '../../vocabulary/numbers'
import type { SurfaceResult, Verdict } from '../contract'
import { listed } from '../shared/said'
import { placeSaidAs } from './words'

/** What is known of a surface's critical points and extremes. */
export interface Found {
  points: StationaryPoints
  extremes: SurfaceExtremes
}

type Letters = readonly [string, string]

/** What the kinds are called, as for curves. */
export const kindWords = {
  maximum: 'high',
  minimum: 'low',
  saddle: 'saddle',
  open: 'not settled',
} as const

/** More places than these are not told one by one. */
const mostPlaces = 4
/** More lowest terms than these are not written down. */
const mostTerms = 4

/** The second derivative test, with D for its determinant; where D is 0, the lowest terms. */
export function because(
  { kind, determinant, bend, lowest, exact }: StationaryPoint,
  surfaceName: string,
  letters: Letters,
  decimals: number,
): string {
  const value = (side: I.Interval) => showNumber(I.middle(side), decimals)
  const isZero = determinant.lo === 0 && determinant.hi === 0
  if (lowest && exact && kind !== 'open') {
    const terms = lowestSaid(lowest, exact, letters)
    const says = { minimum: ' > 0', maximum: ' < 0', saddle: ' of both signs' }[kind]
    return `${isZero ? 'D = 0, ' : ''}lowest terms${terms}${says}`
  }
  if (kind === 'saddle') return `D = ${value(determinant)} < 0`
  if (kind !== 'open') {
    const sign = kind === 'minimum' ? '> 0' : '< 0'
    const bendName = `${surfaceName}_${letters[0].repeat(2)}`
    return `D = ${value(determinant)} > 0, ${bendName} = ${value(bend)} ${sign}`
  }
  return isZero ? 'D = 0: the test says nothing' : 'the sign of D is not settled'
}

/** " x⁴ + y⁴", of how far x and y are from the place; nothing where the terms are many, or not all fractions. */
function lowestSaid(
  { terms, factor }: NonNullable<StationaryPoint['lowest']>,
  place: Place,
  letters: Letters,
): string {
  if (!factor) return ''
  const count = terms.reduce((n, row) => n + row.filter((c) => c !== 0n).length, 0)
  if (count > mostTerms) return ''
  const runs = letters.map((letter, i) => {
    const at = place[i]!
    return at.n === 0n ? letterTree(letter) : sum(letterTree(letter), exactly(negateRational(at)))
  })
  // By letters that no variable has: the first one would else be put into the second one's place.
  const [u, v] = ['\u{1}u', '\u{1}v'] as const
  const tree = substitute(substitute(planeTree(terms, [u, v], factor), u, runs[0]!), v, runs[1]!)
  return ` ${toPlain(tree)}`
}

/** The highest and the lowest value on the closed rectangle, where they are known. */
export function extremesSaid(
  surface: SurfaceResult,
  { points, extremes }: Found,
  decimals: number,
): string[] {
  if (!extremes.complete) return []
  return (['highest', 'lowest'] as const).map((which) => {
    const start = which === 'highest' ? 'Highest' : 'Lowest'
    const where = placesSaid(extremes[which], points.curve, surface.letters, decimals)
    const value = valueSaid(extremes[which], decimals)
    const others = extremes.many[which] ? ', among others' : ''
    return `${start} on the closed rectangle: ${surface.name} ${value} ${where}${others}`
  })
}

/** "= 2" where that is exactly the value, else "≈ 2.718". */
function valueSaid(places: readonly Candidate[], decimals: number): string {
  const { z, height, isFraction } = leadOf(places)
  // What lies around 0 has no digits that are known.
  const text = sayNumber(!isFraction && I.holdsZero(height) ? 0 : z, decimals)
  return isFraction && !text.startsWith('≈') ? `= ${text}` : `≈ ${text.replace('≈ ', '')}`
}

const leadOf = (places: readonly Candidate[]) =>
  places.find(({ isFraction }) => isFraction) ?? places[0]!

function placesSaid(
  places: readonly Candidate[],
  curve: StationaryPoints['curve'],
  letters: Letters,
  decimals: number,
): string {
  if (curve === 'everywhere') return 'everywhere'
  const saidAt = (one: Candidate) => placeSaidAs([one.x, one.y], decimals, one.exact !== null)
  const beside = places.filter(({ onCurve }) => !onCurve)
  const at = (where: Candidate['where']) =>
    beside.flatMap((one) => (one.where === where ? [saidAt(one)] : []))
  const [inside, edges, corners] = [at('inside'), at('edge'), at('corner')]
  const list = listed([
    ...inside,
    ...edges.map((place) => `${place} on an edge`),
    ...corners.map((place, i) =>
      i > 0 ? place : `the corner${corners.length > 1 ? 's' : ''} ${place}`,
    ),
  ])
  const [example] = places.filter(({ onCurve }) => onCurve)
  const along =
    curve && example ? [`on the curve ${curveSaid(curve, letters)}, as at ${saidAt(example)}`] : []
  const lead = leadOf(places)
  const areAlike = places.every(({ key }) => key !== null && key === lead.key)
  const said = [...(list ? [`at ${list}`] : []), ...along].join(' and ')
  return areAlike || places.length < 2 ? said : `${said}, alike in all digits worked out`
}

/** "x² + y² = 1". */
export function curveSaid({ polynomial }: ZeroCurve, letters: Letters): string {
  const [constant = 0n] = polynomial[0] ?? []
  const left = polynomial.map((row, j) => (j === 0 ? [0n, ...row.slice(1)] : row))
  const right = String(-constant).replace('-', '−')
  return `${toPlain(planeTree(left, letters))} = ${right}`
}

/** What D is, what has not been looked at, and what is not settled. */
export function notesSaid(
  { name, letters: [x, y] }: SurfaceResult,
  { points, extremes }: Found,
): string[] {
  const by = (letters: string) => `${name}_${letters}`
  const isTested = points.points.length > 0
  const isByTerms = points.points.some(({ lowest, kind }) => lowest && kind !== 'open')
  return [
    ...(isTested
      ? [`D is ${by(x + x)}·${by(y + y)} − ${by(x + y)}², of the second derivative test.`]
      : []),
    ...(isByTerms
      ? [
          `Where D is 0 the test says nothing: the lowest terms of how far ${name} is from its value there decide.`,
        ]
      : []),
    ...(points.rough
      ? [
          `${name} may have folds, jumps or edges on the rectangle: points at which it has no partial derivatives are not listed.`,
        ]
      : []),
    ...(extremes.complete
      ? []
      : [
          'Which of its values is the highest and which the lowest is not told: not all is settled.',
        ]),
  ]
}

/** Whether all critical points are known, and how. */
export function verdictSaid(
  { name, letters }: SurfaceResult,
  { points, unresolved, complete, curve, rough }: StationaryPoints,
  decimals: number,
): Verdict {
  const all = points.length
  if (complete) return { complete, text: `Complete: ${completeSaid()}`, unresolved: [] }
  return { complete, text: `Not complete: ${openSaid()}`, unresolved: [] }

  function completeSaid(): string {
    if (curve === 'everywhere') {
      return `${name} is constant, so that both partial derivatives are 0 everywhere`
    }
    const means = [
      ...(curve && all === 0 ? [] : ['interval Newton']),
      ...(curve || points.some(({ exact, lowest }) => exact && lowest) ? ['exact arithmetic'] : []),
    ]
    const by = `by ${listed(means)}`
    if (curve) {
      const more =
        all === 0 ? '' : all === 1 ? ' and at one more point' : ` and at ${all} more points`
      const where = rough ? `, where ${name} has a value` : ''
      return `both partial derivatives are 0 all along ${curveSaid(curve, letters)}${where}${more}, ${by}`
    }
    const many = all === 0 ? 'none' : all === 1 ? 'one point' : `${all} points`
    return `${many} at which both partial derivatives are 0, ${by}`
  }

  function openSaid(): string {
    if (curve && curve !== 'everywhere') {
      return `critical points may fill ${curveSaid(curve, letters)}, and some places could not be settled`
    }
    const places = unresolved.map((box) => [box.x, box.y])
    const areSmall = places.every((sides) => sides.every((side) => I.width(side) < 1e-3))
    if (!areSmall || places.length > mostPlaces) return 'some places could not be settled'
    const near = places.map((sides) => placeSaidAs(sides.map(roundMiddle), decimals, false))
    return `close to ${listed(near)} there may be more`
  }
}
