import { curveText, type CurveRef } from '../../../statements/shared/slots'
import type { Parts } from '../parts'
import { type Ask, type Asked, over, raised, simple, placed, valueWords } from './ask'

const conclude = (ref: CurveRef, { parts }: Asked) => {
  const about = parts.about === undefined ? '' : ` about ${parts.about}`
  return [`conclude ${curveText(ref)} as ${parts.taken ?? curveText(ref)}${about}${over(parts)}`]
}

const isBent = (words: string) => /\b(?:conca|convex|bend|curv)/.test(words)
/** "f(x) = 2x" gives a curve that is there another formula, and asks for no solutions. */
const definesAgain = ({ relation, target }: NonNullable<Parts['compared']>, letter: string) =>
  relation === '=' && new RegExp(`(?<![A-Za-z])${letter}(?![A-Za-z])`).test(target)

/** Points, stretches, solutions and limits. */
export const pointsAsks: readonly Ask[] = [
  {
    said: `
      zeros, zeroes, zero, roots, root, x-intercepts, x-intercept, x intercepts, x intercept,
      t-intercepts, intercepts, crosses x-axis, cross x-axis, crosses axis, cross axis, meets
      x-axis, crossing axis, cross t-axis, touch x-axis, meet x-axis, hit x-axis, crosses x axis,
      cross x axis, solutions
    `,
    also: `${valueWords}, real, equation, cross, crosses, graph, function`,
    uses: ['span'],
    own: simple('zeros'),
  },
  {
    said: `
      critical points, critical point, critical numbers, critical number, critical values, critical
      value, stationary points, stationary point, stationary
    `,
    also: valueWords,
    uses: ['span'],
    own: simple('critical points'),
  },
  {
    said: `
      turning points, turning point, extremes, extrema, extremum, highs, lows, high points, low
      points, high point, low point, highest value, lowest value, best value, highest, lowest,
      maximum, minimum, maxima, minima, max, min, peaks, peak, valleys, valley, largest, smallest,
      greatest, biggest, least, optimum, extreme values, extreme, optimize, optimise, turn, turns, maximize,
      minimize, maximise, minimise, steepest
    `,
    also: `
      ${valueWords}, local, relative, maximum, minimum, maxima, minima, max, min, points, low, high,
      lowest, highest, largest, smallest, extreme, extrema, turn, largest, greatest, least, values,
      or, mins, maxes, height
    `,
    uses: ['span'],
    own: (ref, { parts, words }) => {
      const subject = /\bsteepest\b/.test(words) ? raised(ref, 1) : ref
      return [`turning points of ${curveText(subject)}${over(parts)}`]
    },
  },
  {
    said: `
      absolute maximum, absolute minimum, absolute maxima, absolute minima, absolute extrema,
      absolute extremum, absolute extreme, absolute max, absolute min, absolute extremes, global
      maximum, global minimum, global maxima, global minima, global extrema, global extremum, global
      extreme, global max, global min, global extremes, range, features, domain, kinks, jumps, gaps,
      breaks, poles, asymptotes, asymptote, vertical asymptotes, vertical asymptote, limits, cusps,
      cusp, corners, holes, hole, discontinuities, discontinuity, discontinuous, singularities,
      everything, properties, analyse, analyze, curve sketching, describe, undefined, investigate,
      removable discontinuities, removable discontinuity, not differentiable, not continuous, not
      defined, fails to be differentiable, defined, analysis, points discontinuity, vertical
      tangents
    `,
    also: `
      ${valueWords}, absolute, global, maximum, minimum, maxima, minima, min, max, about, full,
      curve, and, or, vertical, extreme, non, natural, function, largest, possible, values
    `,
    uses: ['span'],
    own: simple('features'),
  },
  {
    said: 'sketch, graph, plot, draw',
    also: 'function',
    uses: ['span'],
    own: (ref, { parts }) =>
      ref.order === 0
        ? [`features of ${curveText(ref)}${over(parts)}`]
        : [`rate ${curveText(ref)}`],
    why: (ref) => (ref.order === 0 ? `${ref.curve} is drawn already: these are its features.` : ''),
  },
  {
    said: `
      horizontal asymptote, horizontal asymptotes, end behavior, end behaviour, long-run behavior,
      long-run behaviour, long run
    `,
    also: 'behavior, behaviour, graph',
    uses: [],
    own: (ref) => [`limit of ${curveText(ref)} at ∞`, `limit of ${curveText(ref)} at −∞`],
  },
  {
    said: `
      inflections, inflection, inflexion, inflexions, inflexion points, inflection points, points inflection, inflection point, flex,
      concavity, bending, change concavity, changes concavity, concavity change
    `,
    also: `${valueWords}, change`,
    uses: ['span'],
    own: simple('inflections'),
  },
  {
    said: `
      increasing, decreasing, rising, falling, growing, shrinking, does rise, where rise, intervals
      rise, fall, rises, falls, increase, decrease, increases, decreases, grow, grows, monotonic,
      monotone, monotonicity, concave, convex, concave up, concave down, concave upward, concave
      downward, concave upwards, concave downwards, intervals concavity, intervals increase,
      intervals decrease, bend, bends, curve up, curve down, curving, what follows, what can be
      said, conclusions, conclude, deduce, follows, taking
    `,
    also: `
      taking, conclusions,
      ${valueWords}, increasing, decreasing, rising, falling, concave, up, down, or, strictly,
      increase, decrease, intervals, interval, rise, open, upward, downward, function, said,
      largest, about, monotonically, concavity, can, say, said
    `,
    uses: ['span', 'taken', 'about', 'place'],
    own: (ref, asked) => {
      const { place } = asked.parts
      if (place === undefined) return conclude(ref, asked)
      return [`value of ${curveText(raised(ref, isBent(asked.words) ? 2 : 1))} at ${place}`]
    },
    why: (ref, { parts, words }) => {
      if (parts.place === undefined) return ''
      const [bent, name] = [isBent(words), curveText(ref)]
      const rate = curveText(raised(ref, bent ? 2 : 1))
      return bent
        ? `Above 0, ${rate} says that ${name} is concave up there; below 0, concave down.`
        : `Above 0, ${rate} says that ${name} rises there; below 0, that it falls.`
    },
  },
  {
    said: 'signs, sign, sign chart, sign diagram, sign table, sign line, number line',
    also: 'chart, diagram, table, line, make',
    uses: ['span'],
    own: (ref, asked) =>
      ref.order < 2
        ? simple('sign chart')(ref, asked)
        : [
            `where ${curveText(ref)} > 0${over(asked.parts)}`,
            `where ${curveText(ref)} < 0${over(asked.parts)}`,
          ],
  },
  {
    said: `
      where, solve, when, such that, solutions, inequality, equation, which, values, times, time
    `,
    bare: true,
    also: `
      x, t, with, values, value, all, such, that, inequality, equation, solution, solutions, points,
      input, inputs, times, time, where, when, first, graph, satisfying, satisfies, find, so, reach,
      does
    `,
    uses: ['compared', 'span'],
    own: (ref, { parts, words, letter }) =>
      parts.compared && !(words === '' && definesAgain(parts.compared, letter))
        ? [
            parts.compared.relation === '='
              ? `where ${curveText(ref)} = ${parts.compared.target}${over(parts)}`
              : `where ${curveText(ref)} ${parts.compared.relation} ${parts.compared.target}${over(parts)}`,
            ...(parts.compared.below === undefined
              ? []
              : [`where ${curveText(ref)} < ${parts.compared.below}${over(parts)}`]),
          ]
        : null,
    why: (_ref, { parts }) =>
      parts.compared?.below === undefined
        ? ''
        : 'A line compares with one value: the two bounds are two lines.',
  },
  {
    said: 'limit, lim, happens, behave, lim_, \\lim, limiting value, one-sided limit, approach, approaches',
    also: 'what, hand, side, sides, both, value, approach',
    uses: ['place', 'side', 'rule', 'point'],
    own: (ref, { parts }) => {
      const side =
        parts.side ?? (parts.rule === 'left' || parts.rule === 'right' ? parts.rule : null)
      const place = parts.place ?? (parts.point?.on ? parts.point.x : undefined)
      // There is one side only from which ∞ is reached.
      if (side && place !== undefined && /∞/.test(place)) return null
      if (place === undefined)
        return parts.side || parts.rule ? null : [`limit of ${curveText(ref)}`]
      return [
        `limit of ${curveText(ref)} at ${place.replace('infinity', '∞')}${side ? ` from the ${side}` : ''}`,
      ]
    },
  },
  {
    said: `
      continuous, continuity, differentiable, differentiability, smooth, continuous differentiable,
      smoothness
    `,
    also: 'continuous, differentiable, or, everywhere, intervals',
    uses: ['place', 'point', 'span'],
    own: (ref, asked) => {
      const { parts, words } = asked
      const everywhere =
        parts.span !== undefined || /\b(?:where|everywhere|intervals?)\b/.test(words)
      if (!everywhere) return placed('continuity', 'of')(ref, asked)
      return parts.place === undefined ? simple('features')(ref, asked) : null
    },
  },
]
