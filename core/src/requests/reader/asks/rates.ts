import { curveText } from '../../../statements/shared/slots'
import { type Ask, over, raised, simple, placed, movers } from './ask'

/** Rates, derivatives and values. */
export const ratesAsks: readonly Ask[] = [
  {
    said: `
      average rate change, average rate, mean rate change, mean rate, average slope, mean slope,
      average gradient, average velocity, mean velocity
    `,
    also: `value, ${movers}`,
    uses: ['span', 'pair'],
    own: simple('average rate'),
  },
  {
    said: 'average acceleration',
    uses: ['span', 'pair'],
    own: (ref, { parts }) => [`average rate of ${curveText(raised(ref, 1))}${over(parts)}`],
  },
  {
    said: 'rate change, rate, derivative, average change',
    uses: ['span', 'pair'],
    own: (ref, { parts }) =>
      over(parts) === '' ? null : [`average rate of ${curveText(ref)}${over(parts)}`],
  },
  ...[
    `
      derivative, first derivative, rate change, rate, differentiate, velocity, differentiation,
      derive, derived, instantaneous velocity, slope function, gradient function
    `,
    'second derivative, acceleration, differentiate twice',
    'third derivative, jerk',
  ].flatMap((said, i): Ask[] => [
    {
      said,
      also: 'formula, function, derivative, respect, x, t, graph, d',
      uses: ['place', 'point'],
      own: (ref, { parts }) => {
        const wanted = curveText(raised(ref, i + 1))
        const place = parts.place ?? (parts.point?.on ? parts.point.x : undefined)
        if (place === undefined) return [`rate ${wanted}`]
        return [
          `value of ${wanted} at ${place}`,
          ...(i === 0 ? [`tangent to ${curveText(ref)} at ${place}`] : []),
        ]
      },
    },
  ]),
  {
    said: `
      value, evaluate, height, substitute, plug, point curve, point, function value, position,
      y-value, coordinates point, where particle, where object, where body
    `,
    also: `function, coordinates, y, ${movers}`,
    uses: ['place', 'point'],
    own: placed('value', 'of'),
  },
  {
    said: 'y-intercept, y intercept, vertical intercept, initial value',
    uses: [],
    own: (ref) => [`value of ${curveText(ref)} at 0`],
  },
  {
    said: 'average value, mean value, average, mean, average height',
    also: 'function',
    uses: ['span', 'pair'],
    own: simple('average'),
  },
  {
    said: 'table, table values, values, list values, list, tabulate',
    also: 'function, points, table, quotients, with',
    uses: ['span', 'step', 'h'],
    own: (ref, { parts }) => {
      const by = parts.step === undefined ? '' : ` by ${parts.step}`
      return [
        `table of ${curveText(ref)}${over(parts)}${by}${parts.h === undefined ? '' : `, h = ${parts.h}`}`,
      ]
    },
  },
]
