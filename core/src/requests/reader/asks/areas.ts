import { curveText, type CurveRef } from '../../../statements/shared/slots'
import { type Ask, type Asked, over, simple, asksBy } from './ask'

/** How two curves are put together; what has no sign is one of the other. */
const joins: Readonly<Record<string, string>> = {
  ...{ sum: '+', difference: '−', product: '·', quotient: '/', ratio: '/' },
}

const areaWords = `
  area, sum, sums, riemann, rule, approximation, approximate, estimate, method, strips, rectangles,
  rectangle, strip, equal, width, subintervals, heights, height, under, curve, x-axis, t-axis, axis,
  region, exact, bounded, enclosed, signed, total, net, definite, integral, d, riemann’s, partition,
  regular, use
`

function area(ref: CurveRef, { parts, words }: Asked): string[] {
  const { count, rule, openFrom } = parts
  const name = curveText(ref)
  const strips = [
    ...(rule === undefined ? [] : [rule]),
    ...(count === undefined ? [] : [count === '1' ? '1 strip' : `${count} strips`]),
  ].join(' ')
  if (openFrom !== undefined && count === undefined && rule === undefined && !/\bsum/.test(words)) {
    return [`accumulate ${name} from ${openFrom}`]
  }
  // With strips an area from 1 runs to the end of the curve.
  const from = openFrom === undefined ? {} : { span: { from: openFrom } }
  return [
    `area under ${name}${over({ ...parts, ...from })}${strips === '' ? '' : ` with ${strips}`}`,
  ]
}

/** Areas by strips and between curves, accumulations, lengths and volumes. */
export const areasAsks: readonly Ask[] = [
  {
    said: `
      area, areas, riemann sum, sum strips, sum, strips, rectangles, over short, over, short,
      convergence, how many strips, error, bound, signed area, total area, net area, integral,
      integrate, definite integral, ∫, \\int, int, integration, quadrature, rule, left, right
    `,
    bare: true,
    also: areaWords,
    uses: ['span', 'pair', 'count', 'rule', 'openFrom', 'step', 'point'],
    own: (ref, asked) => {
      const { parts, words } = asked
      if (!asksBy(words) && parts.count === undefined && parts.rule === undefined) return null
      if (parts.step !== undefined || parts.point?.on === false) return null
      const { point } = parts
      const span = point ? { from: point.x, to: point.y } : parts.span
      return area(ref, { ...asked, parts: { ...parts, ...(span ? { span } : {}) } })
    },
  },
  {
    said: `
      ∫, \\int, antiderivative, antiderivatives, primitive, area function, area so far, running
      total, accumulation, accumulation function, accumulated, accumulate, accumulated area,
      accumulated area under, indefinite integral, integral function, accumulated change
    `,
    also: 'function, general, area, under, find, integral, change',
    uses: ['openFrom', 'start', 'plus', 'taken'],
    own: (ref, { parts }) => {
      const { openFrom, start } = parts
      // One that begins at 1 and has a value at 0 is no area from either.
      if (openFrom !== undefined && start && openFrom !== start.at) return null
      const from = parts.openFrom ?? parts.start?.at
      const more = parts.plus ?? parts.start?.value
      const plus = more === undefined ? '' : ` plus ${more}`
      const as = parts.taken === undefined ? '' : ` as ${parts.taken}`
      return [
        `accumulate ${curveText(ref)}${from === undefined ? '' : ` from ${from}`}${plus}${as}`,
      ]
    },
  },
  {
    said: `
      area, area between, between, region, bounded by, enclosed by, area region, region between,
      area enclosed, area bounded, between curves, compare, enclosed, bounded
    `,
    also: `${areaWords}, between, curves, graphs, two, functions, them, find, by`,
    uses: ['span', 'pair'],
    both: (a, b, { parts }) => [`area between ${curveText(a)} and ${curveText(b)}${over(parts)}`],
  },
  {
    said: `
      meet, meets, intersect, intersects, intersection, intersections, intersection points, points
      intersection, intersection point, point intersection, crossings, crossing, cross, crosses,
      equal, same, equals, solve, coincide, meeting points
    `,
    also: `
      where, when, curves, graphs, functions, two, points, same, value, each, other, another, one,
      values, they, them, point, intersection, curve, both
    `,
    uses: ['span'],
    both: (a, b, { parts }) => [`where ${curveText(a)} meets ${curveText(b)}${over(parts)}`],
  },
  {
    said: 'sum, difference, product, quotient, ratio, composition, compose',
    also: 'functions',
    uses: [],
    both(a, b, { words, letter, free }) {
      const [one, other] = [curveText(a), curveText(b)]
      const how = Object.keys(joins).find((word) => words.includes(word))
      const join = how === undefined ? undefined : joins[how]
      const body =
        join === undefined
          ? `${one}(${other}(${letter}))`
          : `${one}(${letter}) ${join} ${other}(${letter})`
      return [`let ${free('g', 'h', 'p')}(${letter}) = ${body}`]
    },
  },
  {
    said: `
      arc length, arclength, length, length curve, length arc, curve length, length graph
    `,
    also: 'curve, arc, graph',
    uses: ['span', 'pair'],
    own: simple('length'),
  },
  {
    said: `
      volume, volume revolution, solid revolution, rotate, revolve, volume solid, rotated, revolved,
      rotation, revolution, spin
    `,
    also: `
      turned,
      solid, revolution, region, under, curve, rotated, revolved, rotating, revolving, obtained,
      generated, formed, when, disk, disc, method, shell, shells, discs, disks, cylindrical,
      bounded, area, volume, axis, rotation
    `,
    uses: ['span', 'pair', 'axis'],
    own: (ref, { parts, words }) => [
      `volume of ${curveText(ref)}${over(parts)} about the ${parts.axis ?? (/\bshells?\b/.test(words) ? 'y' : 'x')}-axis`,
    ],
  },
  {
    said: 'surface, surface area, surface area revolution, surface revolution',
    also: 'turned, surface, area, revolution, solid, curve, rotated, revolved, obtained, rotating',
    uses: ['span', 'pair', 'axis'],
    own: (ref, { parts }) =>
      parts.axis === 'y' ? null : [`surface of ${curveText(ref)}${over(parts)} about the x-axis`],
  },
]
