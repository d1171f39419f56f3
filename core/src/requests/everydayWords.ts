import type { Request } from '../statements/contract'
import {
  curveAndPlace,
  curveText,
  parseCurveRef,
  takenNames,
  wordsAfter,
} from '../statements/shared/slots'

/** What people say, and what the lines of working call it: each way of saying it is tried. */
interface Everyday {
  said: readonly string[]
  /** The same in the lines' own words, likeliest first; `rest` is what followed. */
  own: (rest: string, request: Request) => readonly string[]
}

const as =
  (...words: string[]) =>
  (rest: string) =>
    words.map((word) => `${word} ${rest}`.trim())

const overSpan = /(?:^|\s)(?:from|over|on)\s+\S/

const everyday: readonly Everyday[] = [
  {
    said: ['slope', 'gradient', 'steepness'],
    own: (rest, request) =>
      overSpan.test(rest)
        ? [`secant ${rest}`, `average rate ${rest}`]
        : [`tangent ${rest}`.trim(), ...valueOfDerivative(rest, request)],
  },
  {
    said: ['derivative', 'rate of change', 'rate'],
    own: (rest, request) =>
      overSpan.test(rest)
        ? [`average rate ${rest}`]
        : /(?:^| )at /.test(rest)
          ? valueOfDerivative(rest, request)
          : [],
  },
  { said: ['second derivative'], own: derivativeOfOrder(2) },
  { said: ['third derivative'], own: derivativeOfOrder(3) },
  { said: ['linear approximation', 'linearization', 'linearise', 'linearize'], own: as('tangent') },
  { said: ['one-sided slopes', 'left slope', 'right slope', 'kink'], own: as('tangent') },
  {
    said: ['sweep', 'trail'],
    own: (rest) => [/^(?:tangent|secant)\b/.test(rest) ? rest : `tangent ${rest}`.trim()],
  },
  { said: ['perpendicular'], own: as('normal') },
  {
    said: [
      ...['chord', 'closing in', 'difference quotient', 'central quotient', 'forward quotient'],
      ...['backward quotient', 'forward difference', 'backward difference', 'central difference'],
      ...['difference', 'dy', 'δy', 'delta y', 'differential', 'differentials', 'rise over run'],
      ...['rise'],
      ...['run', 'triangle'],
    ],
    own: as('secant'),
  },
  { said: ['mean rate', 'average slope'], own: as('average rate') },
  { said: ['mean value', 'mean'], own: as('average') },
  { said: ['evaluate', 'height'], own: as('value') },
  {
    said: [
      ...['riemann sum', 'sum of strips', 'sum', 'strips', 'rectangles', 'over and short', 'over'],
      ...['short', 'convergence', 'how many strips', 'error', 'bound', 'signed area'],
      ...['total area', 'integral', 'integrate', '∫'],
    ],
    own: as('area'),
  },
  {
    said: [
      ...['left', 'right', 'middle', 'midpoint', 'trapezoid', 'trapezoidal', 'trapezium'],
      ...['simpson', "simpson's", 'lower', 'upper', 'random'],
    ].flatMap((rule) => [
      ...['riemann sum', 'sum', 'rule', 'strips', 'rectangles', 'heights'].map(
        (noun) => `${rule} ${noun}`,
      ),
      rule,
    ]),
    own: (rest, { text }) => [`area ${text.split(/\s/)[0]!} ${rest}`.trim()],
  },
  {
    said: [
      ...['antiderivative', 'primitive', 'area function', 'area so far', 'running total'],
      ...['accumulation', 'accumulated', 'fundamental theorem'],
    ],
    own: as('accumulate'),
  },
  {
    said: ['displacement and distance', 'displacement', 'distance travelled', 'velocity'],
    own: as('speeding up'),
  },
  {
    said: [
      ...['extremes', 'extrema', 'highs', 'lows', 'high points', 'low points', 'highest value'],
      ...['lowest value', 'best value', 'highest', 'lowest', 'maximum', 'minimum', 'maxima'],
      ...['minima', 'peaks', 'valleys', 'largest', 'smallest', 'optimum'],
    ],
    own: as('turning points'),
  },
  {
    said: [
      'inflection points',
      'points of inflection',
      'concavity',
      'concave',
      'convex',
      'bending',
    ],
    own: as('inflections'),
  },
  { said: ['stationary points'], own: as('critical points') },
  {
    said: ['roots', 'x-intercepts', 'intercepts', 'crosses the axis', 'crossing the axis'],
    own: as('zeros'),
  },
  { said: ['increasing', 'decreasing', 'rising', 'falling', 'growing'], own: as('features') },
  {
    said: ['kinks', 'jumps', 'gaps', 'breaks', 'poles', 'asymptotes', 'limits', 'domain'],
    own: () => ['features'],
  },
  { said: ['values', 'list of values', 'list'], own: as('table') },
  { said: ['regression', 'best fit', 'model', 'trend'], own: as('fit') },
  {
    said: ['intersections', 'intersection', 'intersect', 'crossings', 'meet', 'meets', 'equal'],
    own: (_rest, { curves }) =>
      curves.flatMap((a, i) => curves.slice(i + 1).map((b) => `where ${a.name} meets ${b.name}`)),
  },
  {
    said: ['closest point', 'closest', 'nearest point', 'nearest', 'shortest distance'],
    own: as('distance from'),
  },
  { said: ['what can be said', 'what follows', 'deduce'], own: as('conclude') },
]

/** Every phrase that is said for what the lines call by another name. */
export const everydayPhrases: readonly string[] = everyday.flatMap(({ said }) => said)

/** q′ at the place that was said, or at any. */
function valueOfDerivative(rest: string, { curves, variable }: Request): string[] {
  const { ref, place } = curveAndPlace(rest, variable.letter, curves)
  if (rest !== '' && place === null && ref === null) return []
  const refs = ref ? [ref] : curves.map(({ name }) => ({ curve: name, order: 0 }))
  return refs.map(({ curve, order }) =>
    `value of ${curveText({ curve, order: order + 1 })} ${place === null ? '' : `at ${place}`}`.trim(),
  )
}

function derivativeOfOrder(order: number) {
  return (rest: string, { curves, variable }: Request): string[] => {
    const { ref, place } = curveAndPlace(rest, variable.letter, curves)
    const names = ref ? [ref.curve] : curves.map((c) => c.name)
    return names.map((curve) => {
      const wanted = curveText({ curve, order: (ref?.order ?? 0) + order })
      return place === null ? `rate ${wanted}` : `value of ${wanted} at ${place}`
    })
  }
}

const leadIn = new RegExp(
  `^(?:${[
    ...['please', 'find', 'show', 'draw', 'plot', 'add', 'give', 'make', 'compute', 'calculate'],
    ...['determine', 'get', 'what is', "what's", 'how large is', 'me', 'graph of'],
    ...['the', 'an?(?= \\p{L}{3})', 'all', 'its', 'is there an?'],
  ].join('|')})\\s+(?=\\S)`,
  'iu',
)

/** A request without the words that lead to it, such as “please find the”. */
export function withoutLeadIn(typed: string): string {
  let text = typed.trim()
  while (leadIn.test(text)) text = text.replace(leadIn, '')
  return text
}

/**
 * A request as it is looked at: without the words that lead to it, q for q(t), "from 1 to 4" for
 * "between t = 1 and t = 4". A definition stays as it was typed.
 */
export function plainRequest(
  typed: string,
  letter: string,
  curves: readonly { name: string }[],
): string {
  const text = withoutLeadIn(typed)
  const known = (word: string) => {
    const ref = parseCurveRef(word)
    return ref !== null && curves.some((c) => c.name === ref.curve)
  }
  const defined = /^(?:let\s+)?(\p{L}[₀-₉]*)\s*(?:\(\s*\p{L}\s*\))?\s*=/u.exec(text)
  if (defined && !known(defined[1]!)) return text
  return text
    .replace(/^(?:when|at what \S+|for (?:which|what) \S+)\s+(?=is\b|does\b|\S+\s*=)/i, 'where ')
    .replace(
      /^where\s+(?:does|do|is|are)\s+(.+?)\s+(?:reach|hit|take|become|get to|equal)(?:es|s)?\s+(?=\S)/i,
      'where $1 = ',
    )
    .replace(/^how (?:steep|fast|quickly) (?:is|does)\b/i, 'slope of')
    .replace(/\?+$/, '')
    .replace(new RegExp(`\\b(from|to|at|and|between)\\s+${letter}\\s*=\\s*`, 'g'), '$1 ')
    .replace(new RegExp(`(\\S+?)\\s*\\(\\s*${letter}\\s*\\)`, 'gu'), (whole, name: string) =>
      known(name) ? name : whole,
    )
    .replace(/\bbetween\s+(\S+)\s+and\s+(\S+)/, (whole, from: string, to: string) =>
      known(from) || known(to) ? whole : `from ${from} to ${to}`,
    )
    .trim()
}

/** "where is q increasing" asks for what has words of its own. */
function whereIs({ text, curves }: Request): string[] {
  const [, subject = '', what] =
    /^where\s+(?:is|does|are|do)\s+(?:the\s+)?(?:(\S+)\s+)?(?:at its\s+|the\s+)?(\p{L}{4,})(?:\s+(?:up|down))?$/iu.exec(
      text,
    ) ?? []
  if (what === undefined) return []
  const ref = parseCurveRef(subject)
  const of = ref && curves.some((c) => c.name === ref.curve) ? ` of ${subject}` : ''
  const asked: [RegExp, string][] = [
    [/^(?:increas|decreas|ris|fall|grow|shrink|undefined)/i, 'features'],
    [/^(?:positive|negative)/i, 'sign chart'],
    [/^(?:concave|convex|bend|curv)/i, 'inflections'],
    [/^(?:high|low|maxim|minim|great|small|larg|turn|peak|steep)/i, 'turning points'],
    [/^(?:zero|vanish)/i, 'zeros'],
  ]
  const found = asked.find(([word]) => word.test(what))
  if (!found) return []
  const steep = /^steep/i.test(what) && ref ? ` of ${subject}′` : of
  return [`${found[1]}${steep}`]
}

/** "where is the slope 2": the words for q′ in place of its name. */
function whereRate({ text, curves }: Request): string[] {
  const [, target] =
    /^where\s+(?:is\s+)?(?:the\s+)?(?:slope|rate of change|rate|derivative|tangent|gradient)\s*(?:=|is|equals?)?\s*(\S.*)$/i.exec(
      text,
    ) ?? []
  if (target === undefined) return []
  const level = /^(?:level|horizontal|flat|zero)$/i.test(target) ? '0' : target
  return curves.map((c) => `where ${c.name}' = ${level}`)
}

/** "q(3)" and "q′(t) = 2" name no kind of line, and yet are plain. */
function asEquation({ text, curves, variable }: Request): string[] {
  const known = (name: string) => {
    const ref = parseCurveRef(name)
    return ref && curves.some((c) => c.name === ref.curve) ? curveText(ref) : null
  }
  const [, left, inside, right] =
    /^([^\s(=]+)\s*(?:\(([^()]*)\))?\s*(?:=\s*(.+))?$/.exec(text) ?? []
  const name = left === undefined ? null : known(left)
  if (name === null) {
    const [, subject = '', place] = /^(\S+)\s+at\s+(\S.*)$/.exec(text) ?? []
    return place !== undefined && known(subject) !== null ? [`value of ${subject} at ${place}`] : []
  }
  const free = inside === undefined || inside.trim() === variable.letter
  if (right !== undefined) {
    const ofVariable = new RegExp(`(?<!\\p{L})${variable.letter}(?!\\p{L})`, 'u').test(right)
    return free && (known(right) !== null || !ofVariable) ? [`where ${name} = ${right}`] : []
  }
  return free ? [`value of ${name}`] : [`value of ${name} at ${inside}`]
}

const readingsWords = ['points', 'measured points', 'readings', 'data', 'csv', 'measurements']
/** What was typed in the words of the lines, where it is said in others: the best fit first. */
export function inOwnWords(request: Request): string[] {
  const { text } = request
  const asked = [...asEquation(request), ...whereRate(request), ...whereIs(request)]
  if (text === '' || readingsWords.includes(text.toLowerCase())) return asked
  const found = everyday.flatMap(({ said, own }) => {
    const rest = wordsAfter(text, ...said)
    if (rest === null) return []
    // What was typed in full goes before what is still being typed, longer words before shorter.
    const full = said.filter((words) => `${text.toLowerCase()} `.startsWith(`${words} `))
    return [{ length: Math.max(0, ...full.map((words) => words.length)), own: own(rest, request) }]
  })
  const reworded = found.sort((a, b) => b.length - a.length).flatMap(({ own }) => own)
  return [...asked, ...reworded]
}

const curveWords = [
  'curve',
  'new curve',
  'another curve',
  'function',
  'formula',
  'level',
  'constant',
]
const twoCurveWords = [
  'between',
  'area between',
  'intersection',
  'intersections',
  'meet',
  'compare',
]

/** Why nothing is offered for what was typed, and what to type instead. */
export function nothingOffered(request: Request): string {
  const { text, curves, variable } = request
  const asks = (words: readonly string[]) => wordsAfter(text, ...words) !== null
  const taken = /^(?:let\s+|given\s+)?(\p{L}[₀-₉]*)\s*['’′″]{0,2}\s*(?:\(\s*\p{L}\s*\))?\s*=/u.exec(
    text,
  )?.[1]
  const free = ['r', 'g', 'p', 'k'].find((n) => !takenNames(request).has(n)) ?? 'w'
  const example = `let ${free}(${variable.letter}) = …`
  if (taken !== undefined && curves.some((c) => c.name === taken)) {
    return `There is a curve ${taken} already: change its formula where it stands, or give the new one another letter, ${example}`
  }
  if (taken !== undefined && [...request.sliders, ...request.otherSliders].includes(taken)) {
    return `${taken} is a slider, and what is built on it would change: give the curve another letter, ${example}`
  }
  if (asks(readingsWords)) {
    return 'Readings from a file or a list come in by the button on the right.'
  }
  if (/\bn\s*=\s*\d|\d\s+(?:strip|rectangle)/i.test(text)) {
    return 'Strips are counted from 1 to 10,000.'
  }
  if (asks(curveWords)) return `A new curve begins with its name: ${example}`
  if (asks(twoCurveWords) && curves.length < 2) {
    return `That takes a second curve: ${example}`
  }
  return `Nothing fits “${text}” yet. Try tangent, secant, where ${curves[0]?.name ?? 'f'}′ = 2, table, area, or ${example}`
}
