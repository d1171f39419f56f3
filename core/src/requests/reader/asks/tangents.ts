import { curveText, type CurveRef } from '../../../statements/shared/slots'
import { type Ask, type Asked, over, raised, simple, placed, asksBy, valueWords } from './ask'

const tangentWords = 'tangent, tangents, line, lines, equation, equations, slope'

/** All tangents with a slope, or through a point that need not lie on the curve. */
function tangents(ref: CurveRef, asked: Asked): string[] | null {
  const { parts, slopeOf } = asked
  const name = curveText(ref)
  if (parts.point)
    return [`tangents to ${name} through (${parts.point.x}, ${parts.point.y})${over(parts)}`]
  if (parts.slope === undefined) return null
  const [, turned, isLine, typed] = /^(⟂?)(line\s+)?(.*)$/.exec(parts.slope)!
  const slope = isLine === undefined ? typed! : slopeOf(typed!, turned !== '')
  return slope === null ? null : [`tangents to ${name} with slope ${slope}${over(parts)}`]
}

/** Tangents, normals, secants and slopes. */
export const tangentsAsks: readonly Ask[] = [
  {
    said: 'tangents, tangent, tangent slope, parallel',
    also: `${tangentWords}, passing, pass, passes, go, goes, touching, curve, drawn`,
    uses: ['slope', 'point', 'span'],
    own: (ref, asked) =>
      asked.parts.slope === undefined &&
      (asked.parts.point === undefined ||
        (asked.parts.point.on && asked.liesOn(ref, asked.parts.point) !== false))
        ? null
        : tangents(ref, asked),
  },
  {
    said: `
      tangent, tangents, tangent line, linear approximation, linearization, linearisation,
      linearize, linearise, slope, gradient, steepness, steep, instantaneous rate change,
      instantaneous rate, slope curve, one-sided slopes, left slope, right slope, kink, sweep,
      tangent approximation
    `,
    also: `
      ${tangentWords}, local, best, gradient, point, touching, sweep, approximation, moving, movable, sliding
    `,
    uses: ['place', 'point'],
    own: (ref, asked) => {
      const found = placed('tangent', 'to')(ref, asked)
      return (
        found && [
          ...found,
          ...placed('value of', curveText(raised(ref, 1)))(ref, asked)!.slice(0, 0),
        ]
      )
    },
  },
  {
    said: `
      horizontal tangent, horizontal tangents, tangent horizontal, tangent flat, tangents
      horizontal, slope level, tangent level, flat, horizontal slope
    `,
    also: `${tangentWords}, ${valueWords}`,
    uses: ['span'],
    own: (ref, { parts }) => [`where ${curveText(raised(ref, 1))} = 0${over(parts)}`],
  },
  {
    said: 'vertical tangent, vertical tangents, tangent vertical',
    also: tangentWords,
    uses: ['span'],
    own: simple('features'),
  },
  {
    said: `
      normal, normals, normal line, perpendicular, perpendicular line, line perpendicular
    `,
    also: 'line, equation, curve, tangent',
    uses: ['place', 'point'],
    own: placed('normal', 'to'),
  },
  {
    said: `
      secant, secant line, chord, closing, difference quotient, central quotient, forward quotient,
      backward quotient, forward difference, backward difference, central difference, difference,
      dy, δy, delta y, differential, differentials, rise over run, slope triangle, triangle, slope
      secant, slope chord, net change, change
    `,
    bare: true,
    also: 'line, slope, equation, gradient',
    uses: ['span', 'pair', 'place', 'h'],
    own: (ref, { parts, words }) => {
      if (!asksBy(words) && !parts.pair) return null
      const place = parts.place ?? (parts.h === undefined ? undefined : 'a')
      if (place !== undefined) {
        return parts.span || parts.pair
          ? null
          : [`secant to ${curveText(ref)} from ${place} to ${place} + ${parts.h ?? 'h'}`]
      }
      const partial = parts.span && (parts.span.from === undefined || parts.span.to === undefined)
      if (partial && words !== '') return null
      return [`secant to ${curveText(ref)}${over(parts)}`]
    },
  },
  {
    said: 'slope, gradient, steepness',
    uses: ['span', 'pair'],
    own: (ref, { parts }) =>
      over(parts) === ''
        ? null
        : [
            `secant to ${curveText(ref)}${over(parts)}`,
            `average rate of ${curveText(ref)}${over(parts)}`,
          ],
  },
  {
    said: `
      definition derivative, limit definition, first principles, limit definition derivative, limit
      difference quotient
    `,
    also: 'limit, definition, derivative, principles, difference, quotient',
    uses: ['place'],
    own: (ref, { parts }) => {
      const place = parts.place ?? 'a'
      return [`secant to ${curveText(ref)} from ${place} to ${place} + h`]
    },
  },
]
