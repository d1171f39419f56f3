import { curveText, type CurveRef } from '../../statements/shared/slots'
import { joining } from '../joining'
import type { PartName, Parts } from './parts'

/** What the reader knows while it puts a request into the words of the lines. */
export interface Asked {
  parts: Parts
  /** The words that were left, joined, in lower case. */
  words: string
  letter: string
  /** A letter that no curve has yet, the first of those given that is free. */
  free(...letters: string[]): string
  /** Whether a point lies on a curve; null where that cannot be told. */
  liesOn(ref: CurveRef, point: { x: string; y: string }): boolean | null
  /**
   * The slope of a line that is a curve or is written as a formula of the variable, or of the line
   * across it; null where it has none.
   */
  slopeOf(line: string, across: boolean): string | null
}

/** Something that can be asked for, in the words that people have for it. */
export interface Ask {
  /** Phrases of which one must be there; words that only join others are left out. */
  said: readonly string[]
  /** Words that may stand with it and change nothing. */
  also?: readonly string[]
  /** Parts it answers to; any other part that was said is not understood. */
  uses: readonly PartName[]
  /** What lines call it, likeliest first, about one curve; null where it does not apply. */
  own(ref: CurveRef, asked: Asked): readonly string[] | null
  /** It is about the curves together: how many it takes. */
  curves?: 2
  /** Why nothing is built, where the nearest thing is offered instead. */
  why?: (ref: CurveRef, asked: Asked) => string
}

const over = ({ span, pair }: Parts) => {
  const found = span ?? (pair ? { from: pair[0], to: pair[1] } : undefined)
  if (!found) return ''
  if (found.from !== undefined && found.to !== undefined)
    return ` from ${found.from} to ${found.to}`
  return found.from === undefined ? ` for x ≤ ${found.to!}` : ` for x ≥ ${found.from}`
}
const at = ({ place }: Parts) => (place === undefined ? '' : ` at ${place}`)
const raised = ({ curve, order }: CurveRef, by: number): CurveRef => ({ curve, order: order + by })

const simple =
  (words: string, preposition = 'of') =>
  (ref: CurveRef, { parts }: Asked) => [
    `${words} ${preposition} ${curveText(ref)}${at(parts)}${over(parts)}`,
  ]

/** At a place that was said as a number or as a point of the curve. */
function placed(kind: string, preposition: string) {
  return (ref: CurveRef, asked: Asked): string[] | null => {
    const { parts, liesOn } = asked
    const { point } = parts
    if (point && (!point.on || liesOn(ref, point) === false)) return null
    const place = point?.on ? point.x : parts.place
    return [`${kind} ${preposition} ${curveText(ref)}${place === undefined ? '' : ` at ${place}`}`]
  }
}

const tangentWords = ['tangent', 'tangents', 'line', 'lines', 'equation', 'equations', 'slope']

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

const valueWords = [
  'value',
  'values',
  'point',
  'points',
  'coordinates',
  'location',
  'x',
  'intervals',
  'interval',
  'all',
]
const areaWords = [
  ...[
    'area',
    'sum',
    'sums',
    'riemann',
    'rule',
    'approximation',
    'approximate',
    'estimate',
    'method',
  ],
  ...[
    'strips',
    'rectangles',
    'rectangle',
    'strip',
    'equal',
    'width',
    'subintervals',
    'heights',
    'height',
  ],
  ...[
    'under',
    'curve',
    'x-axis',
    't-axis',
    'axis',
    'region',
    'exact',
    'bounded',
    'enclosed',
    'signed',
    'total',
    'net',
  ],
  ...['definite', 'integral', 'd', 'riemann’s', 'partition', 'regular', 'use'],
]

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
  return [`area under ${name}${over(parts)}${strips === '' ? '' : ` with ${strips}`}`]
}

function taylor(ref: CurveRef, { parts, letter, free, words }: Asked): string[] | null {
  const degree = Number(parts.degree ?? (/quadratic/.test(words) ? '2' : ''))
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

const conclude = (ref: CurveRef, { parts }: Asked) => {
  const about = parts.about === undefined ? '' : ` about ${parts.about}`
  return [`conclude ${curveText(ref)} as ${parts.taken ?? curveText(ref)}${about}${over(parts)}`]
}

const motion = (ref: CurveRef, { parts }: Asked) => [`speeding up ${curveText(ref)}${over(parts)}`]
const movers = [
  'particle',
  'object',
  'body',
  'it',
  'car',
  'ball',
  'moving',
  'move',
  'time',
  'times',
]

/** "f(x) = 2x" gives a curve that is there another formula, and asks for no solutions. */
const definesAgain = ({ relation, target }: NonNullable<Parts['compared']>, letter: string) =>
  relation === '=' && new RegExp(`(?<![A-Za-z])${letter}(?![A-Za-z])`).test(target)

/** What can be asked for, the likelier of two equal ones first. */
export const asks: readonly Ask[] = [
  // Tangents.
  {
    said: ['tangents', 'tangent', 'tangent slope', 'parallel'],
    also: [
      ...tangentWords,
      'passing',
      'pass',
      'passes',
      'go',
      'goes',
      'touching',
      'curve',
      'drawn',
    ],
    uses: ['slope', 'point', 'span'],
    own: (ref, asked) =>
      asked.parts.slope === undefined &&
      (asked.parts.point === undefined ||
        (asked.parts.point.on && asked.liesOn(ref, asked.parts.point) !== false))
        ? null
        : tangents(ref, asked),
  },
  {
    said: [
      ...[
        'tangent',
        'tangents',
        'tangent line',
        'linear approximation',
        'linearization',
        'linearisation',
      ],
      ...[
        'linearize',
        'linearise',
        'slope',
        'gradient',
        'steepness',
        'steep',
        'instantaneous rate change',
      ],
      ...[
        'instantaneous rate',
        'slope curve',
        'one-sided slopes',
        'left slope',
        'right slope',
        'kink',
      ],
      ...['sweep', 'tangent approximation'],
    ],
    also: [
      ...tangentWords,
      'local',
      'best',
      'gradient',
      'point',
      'touching',
      'sweep',
      'approximation',
      'moving',
      'sliding',
    ],
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
    said: [
      'horizontal tangent',
      'horizontal tangents',
      'tangent horizontal',
      'tangent flat',
      'tangents horizontal',
      'slope level',
      'tangent level',
      'flat',
      'horizontal slope',
    ],
    also: [...tangentWords, ...valueWords],
    uses: ['span'],
    own: (ref, { parts }) => [`where ${curveText(raised(ref, 1))} = 0${over(parts)}`],
  },
  {
    said: ['vertical tangent', 'vertical tangents', 'tangent vertical'],
    also: tangentWords,
    uses: ['span'],
    own: simple('features'),
  },
  {
    said: [
      'normal',
      'normals',
      'normal line',
      'perpendicular',
      'perpendicular line',
      'line perpendicular',
    ],
    also: ['line', 'equation', 'curve', 'tangent'],
    uses: ['place', 'point'],
    own: placed('normal', 'to'),
  },
  {
    said: [
      ...['secant', 'secant line', 'chord', 'closing', 'difference quotient', 'central quotient'],
      ...['forward quotient', 'backward quotient', 'forward difference', 'backward difference'],
      ...[
        'central difference',
        'difference',
        'dy',
        'δy',
        'delta y',
        'differential',
        'differentials',
      ],
      ...['rise over run', 'slope triangle', 'triangle', 'slope secant', 'slope chord'],
    ],
    also: ['line', 'slope', 'equation', 'gradient'],
    uses: ['span', 'pair', 'place'],
    own: (ref, { parts, words }) => {
      const place = parts.place
      if (place !== undefined) {
        return parts.span || parts.pair
          ? null
          : [`secant to ${curveText(ref)} from ${place} to ${place} + h`]
      }
      const partial = parts.span && (parts.span.from === undefined || parts.span.to === undefined)
      if (partial && words !== '') return null
      return [`secant to ${curveText(ref)}${over(parts)}`]
    },
  },
  {
    said: ['slope', 'gradient', 'steepness'],
    uses: ['span', 'pair'],
    own: (ref, { parts }) =>
      over(parts) === ''
        ? null
        : [
            `secant to ${curveText(ref)}${over(parts)}`,
            `average rate of ${curveText(ref)}${over(parts)}`,
          ],
  },
  // Rates.
  {
    said: [
      ...[
        'average rate change',
        'average rate',
        'mean rate change',
        'mean rate',
        'average slope',
        'mean slope',
      ],
      ...['average gradient', 'average velocity', 'mean velocity'],
    ],
    also: ['value'],
    uses: ['span', 'pair'],
    own: simple('average rate'),
  },
  {
    said: ['average acceleration'],
    uses: ['span', 'pair'],
    own: (ref, { parts }) => [`average rate of ${curveText(raised(ref, 1))}${over(parts)}`],
  },
  {
    said: ['rate change', 'rate', 'derivative', 'average change'],
    uses: ['span', 'pair'],
    own: (ref, { parts }) =>
      over(parts) === '' ? null : [`average rate of ${curveText(ref)}${over(parts)}`],
  },
  ...[
    [
      'derivative',
      'first derivative',
      'rate change',
      'rate',
      'differentiate',
      'dy/dx',
      'd/dx',
      'df/dx',
      'velocity',
      'differentiation',
      'derive',
      'derived',
      'instantaneous velocity',
    ],
    ['second derivative', 'acceleration', 'd²y/dx²', 'd^2y/dx^2', 'differentiate twice'],
    ['third derivative', 'jerk'],
  ].flatMap((said, i): Ask[] => [
    {
      said,
      also: ['formula', 'function', 'derivative', 'respect', 'x', 't', 'graph', 'd'],
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
  // Values.
  {
    said: [
      'value',
      'evaluate',
      'height',
      'substitute',
      'plug',
      'point curve',
      'point',
      'function value',
      'position',
      'y-value',
      'coordinates point',
    ],
    also: ['x', 'function', 'coordinates', 'y'],
    uses: ['place', 'point'],
    own: placed('value', 'of'),
  },
  {
    said: ['y-intercept', 'y intercept', 'vertical intercept', 'initial value'],
    uses: [],
    own: (ref) => [`value of ${curveText(ref)} at 0`],
  },
  {
    said: ['average value', 'mean value', 'average', 'mean', 'average height'],
    also: ['function'],
    uses: ['span', 'pair'],
    own: simple('average'),
  },
  {
    said: ['table', 'table values', 'values', 'list values', 'list', 'tabulate'],
    also: ['function', 'points', 'table'],
    uses: ['span', 'step'],
    own: (ref, { parts }) => [
      `table of ${curveText(ref)}${over(parts)}${parts.step === undefined ? '' : ` by ${parts.step}`}`,
    ],
  },
  // Points and stretches.
  {
    said: [
      ...[
        'zeros',
        'zeroes',
        'zero',
        'roots',
        'root',
        'x-intercepts',
        'x-intercept',
        'x intercepts',
        'x intercept',
        't-intercepts',
      ],
      ...[
        'intercepts',
        'crosses x-axis',
        'cross x-axis',
        'crosses axis',
        'cross axis',
        'meets x-axis',
        'crossing axis',
        'cross t-axis',
        'touch x-axis',
        'meet x-axis',
        'hit x-axis',
      ],
      ...['crosses x axis', 'cross x axis', 'solutions'],
    ],
    also: [...valueWords, 'real', 'equation', 'cross', 'crosses', 'graph', 'function'],
    uses: ['span'],
    own: simple('zeros'),
  },
  {
    said: [
      'critical points',
      'critical point',
      'critical numbers',
      'critical number',
      'critical values',
      'critical value',
      'stationary points',
      'stationary point',
      'stationary',
    ],
    also: valueWords,
    uses: ['span'],
    own: simple('critical points'),
  },
  {
    said: [
      ...[
        'turning points',
        'turning point',
        'extremes',
        'extrema',
        'extremum',
        'highs',
        'lows',
        'high points',
        'low points',
        'high point',
        'low point',
      ],
      ...[
        'highest value',
        'lowest value',
        'best value',
        'highest',
        'lowest',
        'maximum',
        'minimum',
        'maxima',
        'minima',
        'max',
        'min',
      ],
      ...[
        'peaks',
        'peak',
        'valleys',
        'valley',
        'largest',
        'smallest',
        'greatest',
        'least',
        'optimum',
        'extreme values',
        'extreme',
        'optimize',
        'optimise',
        'turn',
        'turns',
        'maximize',
        'minimize',
        'maximise',
        'minimise',
        'steepest',
      ],
    ],
    also: [
      ...valueWords,
      ...[
        'local',
        'relative',
        'maximum',
        'minimum',
        'maxima',
        'minima',
        'max',
        'min',
        'points',
        'low',
        'high',
        'lowest',
        'highest',
        'largest',
        'smallest',
        'extreme',
        'extrema',
        'turn',
        'largest',
        'greatest',
        'least',
        'values',
        'or',
        'mins',
        'maxes',
        'height',
      ],
    ],
    uses: ['span'],
    own: (ref, { parts, words }) => {
      const subject = /\bsteepest\b/.test(words) ? raised(ref, 1) : ref
      return [`turning points of ${curveText(subject)}${over(parts)}`]
    },
  },
  {
    said: [
      ...['absolute', 'global'].flatMap((word) =>
        [
          'maximum',
          'minimum',
          'maxima',
          'minima',
          'extrema',
          'extremum',
          'extreme',
          'max',
          'min',
          'extremes',
        ].map((noun) => `${word} ${noun}`),
      ),
      ...[
        'range',
        'features',
        'domain',
        'kinks',
        'jumps',
        'gaps',
        'breaks',
        'poles',
        'asymptotes',
        'asymptote',
        'vertical asymptotes',
        'vertical asymptote',
        'limits',
      ],
      ...[
        'cusps',
        'cusp',
        'corners',
        'holes',
        'hole',
        'discontinuities',
        'discontinuity',
        'discontinuous',
        'singularities',
        'everything',
        'properties',
        'analyse',
        'analyze',
        'curve sketching',
        'describe',
        'undefined',
        'investigate',
        'removable discontinuities',
        'removable discontinuity',
        'not differentiable',
        'not continuous',
        'not defined',
        'fails to be differentiable',
        'defined',
        'analysis',
        'points discontinuity',
        'vertical tangents',
      ],
    ],
    also: [
      ...valueWords,
      'absolute',
      'global',
      'maximum',
      'minimum',
      'maxima',
      'minima',
      'min',
      'max',
      'about',
      'full',
      'curve',
      'and',
      'or',
      'vertical',
      'extreme',
      'non',
      'natural',
      'function',
      'largest',
      'possible',
      'values',
    ],
    uses: ['span'],
    own: simple('features'),
  },
  {
    said: ['sketch', 'graph', 'plot', 'draw'],
    also: ['function'],
    uses: ['span'],
    own: (ref, { parts }) =>
      ref.order === 0
        ? [`features of ${curveText(ref)}${over(parts)}`]
        : [`rate ${curveText(ref)}`],
    why: (ref) => (ref.order === 0 ? `${ref.curve} is drawn already: these are its features.` : ''),
  },
  {
    said: [
      'horizontal asymptote',
      'horizontal asymptotes',
      'end behavior',
      'end behaviour',
      'long-run behavior',
      'long-run behaviour',
      'long run',
    ],
    also: ['behavior', 'behaviour', 'graph'],
    uses: [],
    own: (ref) => [`limit of ${curveText(ref)} at ∞`, `limit of ${curveText(ref)} at −∞`],
  },
  {
    said: [
      ...[
        'inflections',
        'inflection',
        'inflection points',
        'points inflection',
        'inflection point',
        'flex',
      ],
      ...['concavity', 'bending', 'change concavity', 'changes concavity', 'concavity change'],
    ],
    also: [...valueWords, 'change'],
    uses: ['span'],
    own: simple('inflections'),
  },
  {
    said: [
      ...[
        'increasing',
        'decreasing',
        'rising',
        'falling',
        'growing',
        'shrinking',
        'does rise',
        'where rise',
        'intervals rise',
        'fall',
        'rises',
        'falls',
        'increase',
        'decrease',
        'increases',
        'decreases',
        'grow',
        'grows',
        'monotonic',
        'monotone',
        'monotonicity',
      ],
      ...[
        'concave',
        'convex',
        'concave up',
        'concave down',
        'concave upward',
        'concave downward',
        'concave upwards',
        'concave downwards',
        'intervals concavity',
        'intervals increase',
        'intervals decrease',
        'bend',
        'bends',
        'curve up',
        'curve down',
        'curving',
        'what follows',
        'what can be said',
        'conclusions',
        'conclude',
        'deduce',
        'follows',
        'taking',
      ],
    ],
    also: [
      ...valueWords,
      ...[
        'increasing',
        'decreasing',
        'rising',
        'falling',
        'concave',
        'up',
        'down',
        'or',
        'strictly',
        'increase',
        'decrease',
        'intervals',
        'interval',
        'rise',
        'open',
        'upward',
        'downward',
        'function',
        'said',
        'largest',
        'about',
        'monotonically',
        'concavity',
        'can',
        'say',
        'said',
      ],
    ],
    uses: ['span', 'taken', 'about'],
    own: conclude,
  },
  {
    said: ['signs', 'sign', 'sign chart', 'sign diagram', 'sign table', 'sign line', 'number line'],
    also: ['chart', 'diagram', 'table', 'line', 'make'],
    uses: ['span'],
    own: (ref, asked) =>
      ref.order < 2
        ? simple('sign chart')(ref, asked)
        : [
            `where ${curveText(ref)} > 0${over(asked.parts)}`,
            `where ${curveText(ref)} < 0${over(asked.parts)}`,
          ],
  },
  // Solving.
  {
    said: [
      'where',
      'solve',
      'when',
      'such that',
      'solutions',
      'inequality',
      'equation',
      'which',
      'values',
      'times',
      'time',
      '',
    ],
    also: [
      'x',
      't',
      'with',
      'values',
      'value',
      'all',
      'such',
      'that',
      'inequality',
      'equation',
      'solution',
      'solutions',
      'points',
      'input',
      'inputs',
      'times',
      'time',
      'where',
      'when',
      'first',
      'graph',
      'satisfying',
      'satisfies',
      'find',
      'so',
      'reach',
      'does',
    ],
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
  // Limits.
  {
    said: [
      'limit',
      'lim',
      'lim_',
      '\\lim',
      'limiting value',
      'one-sided limit',
      'approach',
      'approaches',
    ],
    also: ['what', 'hand', 'side', 'value', 'approach'],
    uses: ['place', 'side', 'rule', 'point'],
    own: (ref, { parts }) => {
      const side =
        parts.side ?? (parts.rule === 'left' || parts.rule === 'right' ? parts.rule : null)
      const place = parts.place ?? (parts.point?.on ? parts.point.x : undefined)
      if (place === undefined)
        return parts.side || parts.rule ? null : [`limit of ${curveText(ref)}`]
      return [
        `limit of ${curveText(ref)} at ${place.replace('infinity', '∞')}${side ? ` from the ${side}` : ''}`,
      ]
    },
  },
  {
    said: [
      'continuous',
      'continuity',
      'differentiable',
      'differentiability',
      'smooth',
      'continuous differentiable',
      'smoothness',
    ],
    also: ['continuous', 'differentiable', 'or', 'everywhere'],
    uses: ['place', 'point'],
    own: (ref, asked) => placed('continuity', 'of')(ref, asked),
  },
  // Areas.
  {
    said: [
      ...[
        'area',
        'areas',
        'riemann sum',
        'sum strips',
        'sum',
        'strips',
        'rectangles',
        'over short',
        'over',
        'short',
      ],
      ...[
        'convergence',
        'how many strips',
        'error',
        'bound',
        'signed area',
        'total area',
        'net area',
        'integral',
        'integrate',
        'definite integral',
        '∫',
        '\\int',
        'int',
        'integration',
        'quadrature',
        'rule',
        'left',
        'right',
        '',
      ],
    ],
    also: areaWords,
    uses: ['span', 'pair', 'count', 'rule', 'openFrom', 'step', 'point'],
    own: (ref, asked) => {
      const { parts, words } = asked
      const asks = words.split(' ').some((word) => word !== '' && !joining.has(word))
      if (!asks && parts.count === undefined && parts.rule === undefined) return null
      if (parts.step !== undefined || parts.point?.on === false) return null
      const { point } = parts
      const span = point ? { from: point.x, to: point.y } : parts.span
      return area(ref, { ...asked, parts: { ...parts, ...(span ? { span } : {}) } })
    },
  },
  {
    said: [
      ...[
        '∫',
        '\\int',
        'antiderivative',
        'antiderivatives',
        'primitive',
        'area function',
        'area so far',
        'running total',
        'accumulation',
      ],
      ...[
        'accumulation function',
        'accumulated',
        'accumulate',
        'accumulated area',
        'accumulated area under',
        'indefinite integral',
        'integral function',
        'accumulated change',
      ],
    ],
    also: ['function', 'general', 'area', 'under', 'find', 'integral', 'change'],
    uses: ['openFrom', 'start', 'taken'],
    own: (ref, { parts }) => {
      const from = parts.openFrom ?? parts.start?.at
      const plus = parts.start ? ` plus ${parts.start.value}` : ''
      const as = parts.taken === undefined ? '' : ` as ${parts.taken}`
      return [
        `accumulate ${curveText(ref)}${from === undefined ? '' : ` from ${from}`}${plus}${as}`,
      ]
    },
  },
  {
    said: [
      'area',
      'area between',
      'between',
      'region',
      'bounded by',
      'enclosed by',
      'area region',
      'region between',
      'area enclosed',
      'area bounded',
      'between curves',
      'compare',
      'enclosed',
      'bounded',
    ],
    also: [...areaWords, 'between', 'curves', 'graphs', 'two', 'functions', 'them', 'find', 'by'],
    uses: ['span', 'pair'],
    curves: 2,
    own: () => null,
  },
  {
    said: [
      'meet',
      'meets',
      'intersect',
      'intersects',
      'intersection',
      'intersections',
      'intersection points',
      'points intersection',
      'intersection point',
      'point intersection',
      'crossings',
      'crossing',
      'cross',
      'crosses',
      'equal',
      'same',
      'equals',
      'solve',
      'coincide',
      'meeting points',
    ],
    also: [
      'where',
      'when',
      'curves',
      'graphs',
      'functions',
      'two',
      'points',
      'same',
      'value',
      'each',
      'other',
      'another',
      'one',
      'values',
      'they',
      'them',
      'point',
      'intersection',
      'curve',
      'both',
    ],
    uses: ['span'],
    curves: 2,
    own: () => null,
  },
  // Theorems.
  ...(
    [
      ['mean value theorem', ['mean value theorem', 'mvt', 'mean-value theorem']],
      [
        "rolle's theorem",
        ["rolle's theorem", 'rolle’s theorem', 'rolles theorem', 'rolle', "rolle's"],
      ],
      ['intermediate value theorem', ['intermediate value theorem', 'ivt']],
      ['extreme value theorem', ['extreme value theorem', 'evt']],
      ['fundamental theorem', ['fundamental theorem', 'ftc', 'fundamental theorem calculus']],
      [
        'first derivative test',
        ['first derivative test', 'first-derivative test', 'derivative test'],
      ],
      ['second derivative test', ['second derivative test', 'second-derivative test']],
    ] as const
  ).map(([theorem, said]): Ask => ({
    said,
    also: [
      'theorem',
      'apply',
      'applies',
      'hold',
      'holds',
      'use',
      'verify',
      'check',
      'satisfies',
      'satisfy',
      'c',
      'find',
      'conclusion',
      'hypotheses',
      'conditions',
      'guarantees',
      'guaranteed',
      'guarantee',
      'by',
      'numbers',
      'number',
      'value',
      'values',
      'all',
      'can',
      'be',
      'used',
      'applied',
      'part',
      'that',
      'local',
      'extrema',
      'calculus',
      'show',
    ],
    uses: ['span', 'compared'],
    own: (ref, { parts }) => {
      const level = parts.compared
      if (level && (theorem !== 'intermediate value theorem' || level.relation !== '=')) return null
      return [
        `${theorem} for ${curveText(ref)}${over(parts)}${level ? ` value ${level.target}` : ''}`,
      ]
    },
  })),
  // Motion.
  {
    said: [
      ...[
        'speeding up',
        'slowing down',
        'speed up',
        'slow down',
        'motion',
        'rest',
        'at rest',
        'displacement',
        'distance',
        'total distance',
        'distance travelled',
        'distance traveled',
        'total distance travelled',
        'total distance traveled',
        'displacement distance',
        'speed',
      ],
      ...[
        'change direction',
        'changes direction',
        'turn around',
        'turns around',
        'turn back',
        'reverse direction',
        'moving forward',
        'moving right',
        'moving left',
        'moving backward',
        'moving backwards',
        'moving forwards',
        'moving',
        'move',
        'moving up',
        'moving down',
        'stop',
        'stops',
        'stopped',
        'standing still',
        'accelerating',
        'decelerating',
        'how far',
      ],
    ],
    also: [
      ...movers,
      'total',
      'travelled',
      'traveled',
      'speeding',
      'slowing',
      'up',
      'down',
      'direction',
      'moving',
      'right',
      'left',
      'or',
      'interval',
      'intervals',
      'far',
      'travel',
      'go',
      'covered',
      'instantaneously',
    ],
    uses: ['span', 'pair', 'rule'],
    own: (ref, asked) => {
      const { parts, words } = asked
      if (parts.rule !== undefined && !/\bmov/.test(words)) return null
      if (asked.letter !== 't' && /\b(?:far|stops?)\b/.test(words)) return null
      return motion(ref, asked)
    },
  },
  {
    said: ['average speed', 'mean speed'],
    uses: ['span', 'pair'],
    own: motion,
    why: () => 'Average speed is the distance over the time: this line has the distance.',
  },
  {
    said: ['speed'],
    also: ['instantaneous', ...movers],
    uses: ['place'],
    own: (ref, { parts }) =>
      parts.place === undefined
        ? null
        : [`value of ${curveText(raised(ref, /^v/i.test(ref.curve) ? 0 : 1))} at ${parts.place}`],
    why: () => 'Speed is the size of the velocity: this line has the velocity, with its sign.',
  },
  // Distances.
  {
    said: [
      'distance',
      'distance from',
      'distance point',
      'closest',
      'closest point',
      'nearest',
      'nearest point',
      'shortest distance',
      'minimum distance',
      'least distance',
    ],
    also: ['point', 'curve', 'that', 'nearest', 'closest', 'lies', 'on', 'minimum', 'shortest'],
    uses: ['point'],
    own: (ref, { parts, words }) =>
      parts.point
        ? [`distance from ${curveText(ref)} to (${parts.point.x}, ${parts.point.y})`]
        : /\b(?:total|travel|far)/.test(words)
          ? null
          : [`distance from ${curveText(ref)}`],
  },
  // Series.
  {
    said: [
      'taylor polynomial',
      'taylor series',
      'taylor',
      'taylor expansion',
      'maclaurin polynomial',
      'maclaurin series',
      'maclaurin',
      'quadratic approximation',
      'approximation',
      'taylor approximation',
      'polynomial approximation',
      'cubic approximation',
      'polynomial',
    ],
    also: [
      'polynomial',
      'series',
      'approximation',
      'expansion',
      'quadratic',
      'cubic',
      'best',
      'local',
      'terms',
    ],
    uses: ['place', 'degree'],
    own: (ref, asked) =>
      taylor(ref, asked) ?? taylor(ref, { ...asked, parts: { ...asked.parts, degree: '2' } }),
    why: (ref, asked) => {
      const built = taylor(ref, asked)
      if (built) return ''
      return asked.parts.degree === undefined
        ? 'Say of which degree: up to 4 it is built from the derivatives.'
        : 'A Taylor polynomial is built up to degree 4, and of degree 1 at the least.'
    },
  },
  // Measures.
  {
    said: [
      'arc length',
      'arclength',
      'length',
      'length curve',
      'length arc',
      'curve length',
      'length graph',
    ],
    also: ['curve', 'arc', 'graph'],
    uses: ['span', 'pair'],
    own: simple('length'),
  },
  {
    said: [
      'volume',
      'volume revolution',
      'solid revolution',
      'rotate',
      'revolve',
      'volume solid',
      'rotated',
      'revolved',
      'rotation',
      'revolution',
      'spin',
    ],
    also: [
      'solid',
      'revolution',
      'region',
      'under',
      'curve',
      'rotated',
      'revolved',
      'rotating',
      'revolving',
      'obtained',
      'generated',
      'formed',
      'when',
      'disk',
      'disc',
      'method',
      'shell',
      'shells',
      'discs',
      'disks',
      'cylindrical',
      'bounded',
      'area',
      'volume',
      'axis',
      'rotation',
    ],
    uses: ['span', 'pair', 'axis'],
    own: (ref, { parts, words }) => [
      `volume of ${curveText(ref)}${over(parts)} about the ${parts.axis ?? (/\bshells?\b/.test(words) ? 'y' : 'x')}-axis`,
    ],
  },
  {
    said: ['surface area', 'surface area revolution', 'surface revolution'],
    also: [
      'surface',
      'area',
      'revolution',
      'solid',
      'curve',
      'rotated',
      'revolved',
      'obtained',
      'rotating',
    ],
    uses: ['span', 'pair', 'axis'],
    own: (ref, { parts }) =>
      parts.axis === 'y' ? null : [`surface of ${curveText(ref)}${over(parts)} about the x-axis`],
  },
  // What is not built, with the nearest thing.
  {
    said: [
      "newton's method",
      'newton’s method',
      'newtons method',
      'newton',
      'bisection',
      'bisection method',
      'newton-raphson',
    ],
    also: [
      'method',
      'start',
      'starting',
      'with',
      'approximate',
      'root',
      'zero',
      'iterations',
      'steps',
      'zeros',
      'roots',
      'guess',
      'initial',
    ],
    uses: ['place', 'openFrom', 'span', 'count'],
    own: (ref) => [`zeros of ${curveText(ref)}`],
    why: () =>
      'A search for a zero step by step is not built: all zeros are found at once, with proof.',
  },
  {
    said: ['inverse', 'inverse function'],
    also: ['function', 'graph', 'derivative'],
    uses: ['place'],
    own: (ref, { parts }) => [`where ${curveText(ref)} = ${parts.place ?? '1'}`],
    why: () => 'An inverse is not drawn: where the curve takes one value is solved for.',
  },
  {
    said: ['symmetry', 'symmetric', 'even', 'odd', 'even odd', 'period', 'periodic', 'amplitude'],
    also: ['function', 'or', 'even', 'odd'],
    uses: [],
    own: (ref) => [`features of ${curveText(ref)}`],
    why: () => 'Symmetry and periods are not examined: the features of the curve are.',
  },
  {
    said: ['curvature', 'radius curvature', 'osculating circle'],
    also: ['radius', 'circle'],
    uses: ['place'],
    own: (ref, { parts }) => [`value of ${curveText(raised(ref, 2))}${at(parts)}`],
    why: () => 'Curvature is not worked out: the second derivative says how the curve bends.',
  },
]

/** What two curves can be asked for together. */
export function aboutTwo(a: CurveRef, b: CurveRef, { parts, words }: Asked): string[] {
  const [one, other] = [curveText(a), curveText(b)]
  return /\b(?:area|region|between|compare|enclosed|bounded)\b/.test(words)
    ? [`area between ${one} and ${other}${over(parts)}`]
    : [`where ${one} meets ${other}${over(parts)}`]
}
