import { curveText, type CurveRef } from '../../../statements/shared/slots'
import { type Ask, type Asked, raised, placed } from './ask'

function taylor(ref: CurveRef, { parts, letter, free, words }: Asked): string[] | null {
  // T_3 is the Taylor polynomial of degree 3 where one is asked for.
  const index = parts.rule === 'trapezoid' ? parts.count : undefined
  const degree = Number(parts.degree ?? index ?? (/quadratic/.test(words) ? '2' : ''))
  const place = parts.place ?? '0'
  if (parts.degree === '1') return [`tangent to ${curveText(ref)} at ${place}`]
  if (!Number.isInteger(degree) || degree < 1 || ref.order + degree > 4) return null
  const away = place === '0' ? letter : `(${letter} - (${place}))`
  const terms = Array.from({ length: degree + 1 }, (_, k) => {
    const factor = `${ref.curve}${"'".repeat(ref.order + k)}(${place})`
    const below = [1, 1, 2, 6, 24][k]!
    const whole = below === 1 ? factor : `${factor}/${below}`
    return k === 0 ? whole : `${whole} ${away}${k === 1 ? '' : `^${k}`}`
  })
  return [`let ${free('p', 'P', 'T')}(${letter}) = ${terms.join(' + ')}`]
}

/** Taylor polynomials, and what is not built, with the nearest thing. */
export const othersAsks: readonly Ask[] = [
  {
    said: `
      taylor polynomial, taylor series, taylor, taylor expansion, maclaurin polynomial, maclaurin
      series, maclaurin, quadratic approximation, approximation, taylor approximation, polynomial
      approximation, cubic approximation, polynomial
    `,
    also: `
      polynomial, series, approximation, expansion, quadratic, cubic, best, local, terms
    `,
    uses: ['place', 'degree', 'count', 'rule'],
    own: (ref, asked) => {
      const { parts, words } = asked
      // An approximation with strips is a sum.
      const isSum = parts.count !== undefined || parts.rule !== undefined
      if (isSum && !/taylor|maclaurin/.test(words)) return null
      return taylor(ref, asked) ?? taylor(ref, { ...asked, parts: { ...parts, degree: '2' } })
    },
    why: (ref, asked) => {
      const built = taylor(ref, asked)
      if (built) return ''
      return asked.parts.degree === undefined
        ? 'Say of which degree: up to 4 it is built from the derivatives.'
        : 'A Taylor polynomial is built up to degree 4, and of degree 1 at the least.'
    },
  },
  {
    said: `
      newton's method, newton’s method, newtons method, newton, bisection, bisection method,
      newton-raphson
    `,
    also: `
      method, start, starting, with, approximate, root, zero, iterations, steps, zeros, roots,
      guess, initial
    `,
    uses: ['place', 'openFrom', 'span', 'count'],
    own: (ref) => [`zeros of ${curveText(ref)}`],
    why: () =>
      'A search for a zero step by step is not built: all zeros are found at once, with proof.',
  },
  {
    said: 'inverse, inverse function',
    also: 'function, graph, derivative',
    uses: ['place'],
    own: (ref, { parts }) => [`where ${curveText(ref)} = ${parts.place ?? '1'}`],
    why: () => 'An inverse is not drawn: where the curve takes one value is solved for.',
  },
  {
    said: 'symmetry, symmetric, even, odd, even odd, period, periodic, amplitude',
    also: 'function, or, even, odd',
    uses: [],
    own: (ref) => [`features of ${curveText(ref)}`],
    why: () => 'Symmetry and periods are not examined: the features of the curve are.',
  },
  {
    said: 'curvature, radius curvature, osculating circle',
    also: 'radius, circle',
    uses: ['place'],
    own: (ref, asked) => placed('value', 'of')(raised(ref, 2), asked),
    why: () => 'Curvature is not worked out: the second derivative says how the curve bends.',
  },
]
