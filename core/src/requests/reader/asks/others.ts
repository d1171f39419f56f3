import { curveText } from '../../../statements/shared/slots'
import { type Ask, type Asked, at, over, raised, placed } from './ask'

/** Of which degree words ask for an approximation; null where they do not say. */
const degreeOf = ({ parts, words }: Asked): string | null =>
  // T_3 is the Taylor polynomial of degree 3 where one is asked for.
  parts.degree ??
  (parts.rule === 'trapezoid' ? parts.count : undefined) ??
  (/quadratic/.test(words) ? '2' : null)

/** Taylor polynomials, and what is not built, with the nearest thing. */
export const othersAsks: readonly Ask[] = [
  {
    // The kind itself reads what begins with its words.
    said: `
      polynomial taylor, series taylor, expansion taylor, polynomial maclaurin, series maclaurin,
      quadratic approximation, approximation, taylor approximation, polynomial approximation, cubic
      approximation, polynomial
    `,
    also: `
      polynomial, series, approximation, expansion, quadratic, cubic, best, local, terms, taylor
    `,
    uses: ['place', 'degree', 'count', 'rule'],
    own: (ref, asked) => {
      const { parts, words } = asked
      // An approximation with strips is a sum.
      const isSum = parts.count !== undefined || parts.rule !== undefined
      if (isSum && !/taylor|maclaurin/.test(words)) return null
      if (parts.degree === '1' && !/taylor|maclaurin/.test(words)) {
        return [`tangent to ${curveText(ref)} at ${parts.place ?? '0'}`]
      }
      const degree = degreeOf(asked)
      const order = degree === null ? '' : `, order ${degree}`
      return [`taylor polynomial of ${curveText(ref)} at ${parts.place ?? '0'}${order}`]
    },
  },
  {
    said: 'integrate series, integral series, integration series, area series',
    also: 'term, terms, taylor, maclaurin, power, under',
    uses: ['span', 'pair', 'place', 'degree'],
    own: (ref, { parts }) => {
      const order = parts.degree === undefined ? '' : `, order ${parts.degree}`
      return [`integrate by series ${curveText(ref)}${over(parts)}${at(parts)}${order}`]
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
