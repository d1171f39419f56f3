import { countPrimes } from '../../language/primes'
import type { CurveRef } from '../../statements/shared/slots'
import {
  asPattern,
  comparisons,
  expression as E,
  inFigures,
  letters,
  numberWords,
  type Relation,
  signWords,
} from './grammar'

/** A bound or both of a span; what is not said is left out. */
export interface SpanPart {
  from?: string
  to?: string
}

/** What a request says besides the words that ask for a kind of line: each with the words it took. */
export interface Parts {
  refs: CurveRef[]
  place?: string
  /** Two places that words join: "through 1 and 3". */
  pair?: readonly [string, string]
  /** A point of the plane, and whether it was said to lie on the curve. */
  point?: { x: string; y: string; on: boolean }
  span?: SpanPart
  /** "from 0", and "from 0 to x". */
  openFrom?: string
  count?: string
  rule?: string
  side?: 'left' | 'right'
  step?: string
  degree?: string
  slope?: string
  /** What a curve is compared with: a number, or a curve. */
  compared?: { relation: Relation; target: string; below?: string }
  /** The constant of an antiderivative, as the value at a place. */
  start?: { at: string; value: string }
  axis?: 'x' | 'y'
  /** What a graph is taken as, and what its conclusions are about. */
  taken?: string
  about?: string
}
export type PartName = keyof Parts

/** The words that are left, and for each part that was found the words it was found in. */
export interface Taken {
  parts: Parts
  left: string
  words: Partial<Record<PartName, string>>
}

export interface Around {
  /** The letter of the variable. */
  letter: string
  isCurve(name: string): boolean
}

type Found = Partial<Parts> | null
interface Rule {
  pattern: RegExp
  read(groups: readonly string[], taken: Taken): Found
}

/** Stands where words were taken out, so that what stood apart does not come together. */
const gap = ' \uE000 '

const orderWords: Readonly<Record<string, string>> = {
  ...{ first: '1', second: '2', third: '3', fourth: '4', fifth: '5', sixth: '6' },
  ...{ linear: '1', quadratic: '2', cubic: '3', quartic: '4' },
}

const ruleOf = (said: string): string => {
  const word = said.toLowerCase()
  if (/^mid/.test(word)) return 'midpoint'
  if (/^trap/.test(word)) return 'trapezoid'
  if (/^(?:simpson|parabol)/.test(word)) return 'simpson'
  if (/^(?:inscribed|lower)/.test(word)) return 'lower'
  if (/^(?:circumscribed|upper)/.test(word)) return 'upper'
  return word
}

const sums: Readonly<Record<string, string>> = {
  ...{ L: 'left', R: 'right', M: 'midpoint', T: 'trapezoid', S: 'simpson' },
}

const sideOf = (said: string | undefined) =>
  said === undefined
    ? undefined
    : /left|below|[-−⁻]/i.test(said)
      ? ('left' as const)
      : ('right' as const)

const stripNouns =
  'sub-?\\s?intervals?|strips?|rectangles?|trapezoids?|trapeziums?|trapezia|sub-?divisions?|divisions?|partitions?|panels?|bars?|slices?|boxes|columns?'

const letterIs = (letter: string) => String.raw`(?:${letter}\s*=\s*)?`

/** Every part as people say it, in the order in which they are looked for. */
function rulesFor({ letter, isCurve }: Around): Rule[] {
  const x = letterIs(letter)
  const here = asPattern.bind(null)
  const number = String.raw`(\d+|${numberWords})`
  const curveNamed = (text: string) => isCurve(text.replace(/['’′″\s]/g, ''))
  return [
    // ∫₀² and lim have their ends beside the sign.
    {
      pattern: here(
        String.raw`(?:∫|\\int|\bint|\bintegral)\s*_?\s*\{?\s*(${E})\s*\}?\s*\^\s*\{?\s*(${E})\s*\}?`,
      ),
      read: ([, from, to], taken) => {
        taken.left = taken.left.replace(gap, ' integral ')
        return to === letter ? { openFrom: from! } : { span: { from: from!, to: to! } }
      },
    },
    {
      pattern: here(
        String.raw`(?:\bas\s+|_\s*\{?\s*|\bwhen\s+|\()?\b${letter}\s*(?:->|→|⟶|\\to\b|\\rightarrow\b|to\b|approaches|tends\s+to|goes\s+to|nears)\s*(${E})\s*(?:\^?\{?([-−+⁺⁻])(?![\d${letters}])\}?)?\s*[)}]?`,
      ),
      read: ([, at, side]) => ({ place: at!, ...(side ? { side: sideOf(side)! } : {}) }),
    },
    {
      pattern: here(
        String.raw`\bfrom\s+(?:the\s+)?(left|right|below|above)\b(?:[- ]hand)?(?:\s+side)?|\b(left|right)[- ]?hand(?:ed)?(?=\s+limit)|\b(left|right)(?:-sided)?(?=\s+limit)`,
      ),
      read: ([, a, b, c]) => ({ side: sideOf(a ?? b ?? c)! }),
    },
    // The constant of an antiderivative, before values that are asked for.
    {
      pattern: here(
        String.raw`(?:with\s+|where\s+|and\s+|,\s*)*\b([${letters}])\((${E})\)\s*=\s*(${E})`,
      ),
      read: ([, name, at, value]) =>
        isCurve(name!) ? null : { start: { at: at!, value: value! } },
    },
    // How many strips.
    {
      pattern: here(
        String.raw`(?:\b(?:with|using|by|into|of|and|in)\s+|,\s*)?${number}\s+(?:equal(?:ly)?[- ]?(?:spaced|wide|sized)?\s+|inscribed\s+|circumscribed\s+|left\s+|right\s+|midpoint\s+)?(${stripNouns})(?:\s+of\s+(?:the\s+)?(?:equal|same)\s+(?:width|length|size))?(?![${letters}])`,
      ),
      read: ([whole, count, noun]) => {
        const inside = /\b(left|right|midpoint|inscribed|circumscribed)\b/i.exec(whole!)?.[1]
        const rule = inside ?? (/^trap/i.test(noun!) ? 'trapezoid' : undefined)
        return { count: inFigures(count!), ...(rule ? { rule: ruleOf(rule) } : {}) }
      },
    },
    {
      pattern: here(String.raw`(?:\b(?:with|using|for|and|where)\s+|,\s*)?\bn\s*(?:=|is)\s*(\d+)`),
      read: ([, count]) => ({ count: count! }),
    },
    {
      pattern: /(?:^|(?<=\s))([LRMTS])(?:_?\{?(\d+)\}?|([₀-₉]+))(?=\s|$|,)/u,
      read: ([, name, digits, small]) =>
        isCurve(name!)
          ? null
          : {
              rule: sums[name!]!,
              count: digits ?? [...small!].map((d) => '₀₁₂₃₄₅₆₇₈₉'.indexOf(d)).join(''),
            },
    },
    {
      pattern: here(
        String.raw`\b(?:sum|rule|simpson'?s?|rectangles|trapezoidal|strips)\s+(?:with\s+|of\s+)?(\d+)(?=\s*$)`,
      ),
      read: ([whole, count], taken) => {
        taken.left = taken.left.replace(gap, ` ${whole!.replace(/\s.*$/, '')} `)
        return { count: count! }
      },
    },
    // Spans.
    {
      pattern: here(
        String.raw`(?:,\s*)?(?:\b(?:on|over|in|within|along|across|for|where|with|when|through|throughout|from)\s+)?(?:the\s+|its\s+)?(?:(?:closed|open|given|half-open)\s+)?(?:\b(?:interval|span|range|domain|stretch)\s+)?(?:from\s+)?(?:${letter}\s*(?:∈|\\in\b|in)\s*)?[[(\]]\s*(${E})\s*[,;]\s*(${E})\s*[\])[]`,
      ),
      read: ([whole, from, to]) => {
        const square = /[[\]]/.test(whole!)
        const said = /\b(?:on|over|in|within|interval|span)\b|∈|\\in\b/i.test(whole!)
        return square || said ? { span: { from: from!, to: to! } } : null
      },
    },
    {
      pattern: here(
        String.raw`(?:,\s*)?(?:\b(?:for|on|over|where|with|when|in|and|interval|the)\s+)*(${E})\s*(?:<=?|≤|⩽|\\leq?)\s*${letter}\s*(?:<=?|≤|⩽|\\leq?)\s*(${E})`,
      ),
      read: ([, from, to]) => ({ span: { from: from!, to: to! } }),
    },
    {
      pattern: here(
        String.raw`(?:,\s*)?(?:\b(?:on|over|in)\s+)?(?:the\s+)?(?:interval\s+|span\s+)?\b(?:from|between)\s+${x}(${E})\s+(?:to|until|till|and|up\s+to|through)\s+${x}(${E})`,
      ),
      read: ([, from, to]) => {
        if (curveNamed(from!) || (curveNamed(to!) && to !== letter)) return null
        return to === letter ? { openFrom: from! } : { span: { from: from!, to: to! } }
      },
    },
    {
      pattern: here(
        String.raw`(?:,\s*)?(?:\b(?:on|over|in)\s+)?(?<![${letters}\d.])([-−]?[\d.]+)\s*(?:to|\.\.|…|–)\s*([-−]?[\d.]+)(?![${letters}\d])`,
      ),
      read: ([, from, to]) => ({ span: { from: from!, to: to! } }),
    },
    {
      pattern: here(
        String.raw`(?:,\s*)?(?:\b(?:for|when|where|with|on|if|over)\s+)?(?:all\s+)?(?<![${letters}])${letter}\s*(>=?|<=?|≥|≤|⩾|⩽)\s*(${E})`,
      ),
      read: ([, sign, bound]) => ({
        span: /[<≤⩽]/.test(sign!) ? { to: bound! } : { from: bound! },
      }),
    },
    // Two points, two places, one point.
    {
      pattern: here(
        String.raw`\b(?:through|between|joining|connecting|from|via)\s+(?:the\s+)?(?:points?\s+)?(?:[${letters}]\s*)?\(\s*(${E})\s*,\s*(${E})\s*\)\s+(?:and|to)\s+(?:the\s+point\s+)?(?:[${letters}]\s*)?\(\s*(${E})\s*,\s*(${E})\s*\)`,
      ),
      read: ([, a, , b]) => ({ pair: [a!, b!] }),
    },
    {
      pattern: here(
        String.raw`\b(?:through|at|joining|connecting|with|where|for)\s+(?:the\s+)?(?:points?\s+|places?\s+)?(?:(?:at|where|with)\s+)?(${x})(${E})\s+and\s+(?:at\s+)?${x}(${E})(?![${letters}])`,
      ),
      read: ([, , a, b]) => (curveNamed(a!) || curveNamed(b!) ? null : { pair: [a!, b!] }),
    },
    {
      pattern: here(
        String.raw`\b(at|through|from|to|past|via|with|near)?\s*(?:the\s+)?(?:external\s+)?(?:point\s+)?(?:[${letters}]\s*)?\(\s*(${E})\s*,\s*(${E})\s*\)`,
      ),
      read: ([, how = '', a, b]) => ({ point: { x: a!, y: b!, on: /^(?:at|)$/i.test(how) } }),
    },
    {
      pattern: here(String.raw`\b(?:to|from|through)\s+(?:the\s+)?origin\b`),
      read: () => ({ point: { x: '0', y: '0', on: false } }),
    },
    // What a graph is taken as, and what is said about another.
    {
      pattern: here(
        String.raw`\bas\s+(itself|(?:the\s+graph\s+of\s+)?[${letters}]['’′″]*)(?![${letters}(])`,
      ),
      read: ([, taken]) => ({ taken: taken! }),
    },
    {
      pattern: here(String.raw`\babout\s+([${letters}]['’′″]*)(?![${letters}(\d])`),
      read: ([, about], { parts }) => (parts.taken === undefined ? null : { about: about! }),
    },
    // Slopes of lines.
    {
      pattern: here(
        String.raw`(?:\b(?:that|which)\s+(?:has|have|is|are)\s+|\b(?:has|have|having|with|of|whose)\s+)(?:a\s+|the\s+)?(?:slope|gradient)s?\s*(?:of|=|is|equal\s+to|equals?)?\s*(${E})`,
      ),
      read: ([, slope]) => ({ slope: slope! }),
    },
    {
      pattern: here(String.raw`\bparallel\s+to\s+the\s+(?:${letter}-?\s?)?axis`),
      read: () => ({ slope: '0' }),
    },
    {
      pattern: here(
        String.raw`\b(?:(?:that|which)\s+(?:is|are)\s+)?(parallel|perpendicular|normal)\s+to\s+(?:the\s+)?(?:straight\s+)?(?:line\s+)?(?:y\s*=\s*)?([^,;]*(?<![${letters}])${letter}(?![${letters}-])[^,;]*|[^,;\s]+)`,
      ),
      read: ([, how, line], { left }) => {
        const across = how!.toLowerCase() !== 'parallel'
        // "normal to f" is a line by itself.
        if (across && !/\btangent/i.test(left)) return null
        return { slope: `${across ? '⟂' : ''}line ${line!.trim()}` }
      },
    },
    // Which axis something turns about.
    {
      pattern: here(
        String.raw`\b(?:about|around|round|over)\s+(?:the\s+)?([${letters}])-?\s?axis\b|\b(?:about|around|round)\s+(?:the\s+line\s+)?([${letters}])\s*=\s*0`,
      ),
      read: ([, axis, zero]) => ({
        axis: (axis === undefined ? zero === letter : axis.toLowerCase() !== letter) ? 'y' : 'x',
      }),
    },
    // Steps and degrees.
    {
      pattern: here(
        String.raw`(?:,\s*)?\b(?:(?:in|with)\s+)?(?:by|steps?\s+(?:of|size)?|increments?\s+of|every)\s*(?:of\s+)?(\d+(?:\.\d+)?(?:\/\d+)?|π\/\d+)`,
      ),
      read: ([, step]) => ({ step: step! }),
    },
    {
      pattern: here(
        String.raw`\b(?:of\s+)?(?:degree|order)\s*(?:=|n\s*=)?\s*(\d+|${numberWords})\b|\b(\d+)(?:st|nd|rd|th)[- ]?(?:degree|order)?\b|\b(first|second|third|fourth|fifth|sixth)[- ](?:degree|order)\b|\b(linear|quadratic|cubic|quartic)(?=\s+(?:approximation|taylor|maclaurin|polynomial))`,
      ),
      read: ([, a, b, c, d]) => ({
        degree: inFigures(a ?? b ?? orderWords[(c ?? d)!.toLowerCase()]!),
      }),
    },
    // Places.
    {
      pattern: here(
        String.raw`(?:,\s*)?(?:\b(?:at|about|around|near|for|when|where|if|with|on|in|of|cent(?:er|r)ed\s+(?:at|on|about|around)|based\s+at)\s+)*(?:the\s+)?(?:(?:point|place|value|time|moment|instant|input)s?\s+)?(?:(?:where|with|when|at)\s+)?(?<![${letters}])${letter}\s*(?:=|is|equals|equal\s+to)\s*(${E})`,
      ),
      read: ([, place]) => (curveNamed(place!) ? null : { place: place! }),
    },
    {
      pattern: here(
        String.raw`\b(?:at|about|around|near|cent(?:er|r)ed\s+(?:at|on|about|around)|based\s+at|after)\s+(?:the\s+)?(?:(?:point|place|value|time)\s+)?(${E}|${numberWords})(?![${letters}])(?:\s*(?:seconds?|secs?|minutes?|hours?|h|s)(?![${letters}]))?`,
      ),
      read: ([, place]) => (curveNamed(place!) ? null : { place: inFigures(place!) }),
    },
    {
      pattern: here(String.raw`\bat\s+(?:the\s+)?origin\b`),
      read: () => ({ place: '0' }),
    },
    {
      pattern: here(String.raw`\b(?:at|to)\s+(minus\s+|negative\s+|[-−])?infinity\b`),
      read: ([, minus]) => ({ place: minus ? '−∞' : '∞' }),
    },
    {
      pattern: here(String.raw`\bfrom\s+${x}(${E})(?=\s*$|\s*\uE000|\s+(?:onwards?|on)\b)`),
      read: ([, from]) => (curveNamed(from!) ? null : { openFrom: from! }),
    },
    // Heights.
    {
      pattern: here(
        String.raw`(?:,\s*)?(?:\b(?:with|using|and|by|at|from|use)\s+)*(?:the\s+)?(?:heights?\s+(?:at|on|from|along|of)\s+(?:the\s+)?)?\b(left|right|mid(?:dle|-?points?)?|lower|upper|trapezoid(?:al|s)?|trapezium|simpson(?:['’]?s)?|parabolas?|inscribed|circumscribed)(?:[- ]?hand)?(?:[- ]?(?:end\s?-?points?|points?|sides?|ends?|corners?|heights?|edges?))?(?![${letters}'’])`,
      ),
      read: ([, said]) => ({ rule: ruleOf(said!) }),
    },
  ]
}

/** A curve by its name and primes, perhaps called at a place: f, f′, f(3), f'(x). */
const called = new RegExp(
  String.raw`(?<![${letters}\d_{\\])([${letters}](?:[₀-₉]{1,3}|_[A-Za-z])?)(['’′″‴"]*)(?:\s*\(\s*(${E})\s*\))?(?![${letters}'’-])`,
  'g',
)

/** Takes the curves out of a text, with the first place that one is called at. */
function takeCurves(taken: Taken, { letter, isCurve }: Around): void {
  const { parts } = taken
  taken.left = taken.left.replace(
    called,
    (whole, name: string, primes: string, inside?: string) => {
      if (!isCurve(name)) return whole
      const place = inside?.trim()
      const free = place === undefined || place === letter
      if (!free && parts.place !== undefined) return whole
      parts.refs.push({ curve: name, order: countPrimes(primes) })
      if (!free) {
        parts.place = place
        taken.words.place = ''
      }
      return gap
    },
  )
}

/**
 * Takes a request apart: the curves, places, spans, counts and comparisons it names, and the words
 * that are left. A part that is said twice stays among the words.
 */
export function takeParts(text: string, around: Around): Taken {
  const taken: Taken = { parts: { refs: [] }, left: text, words: {} }
  takeComparison(taken, around)
  const rules = rulesFor(around)
  // Letters of curves stand in points and ends; only then are the curves themselves taken.
  rules.slice(0, -1).forEach((rule) => applyRule(rule, taken))
  takeCurves(taken, around)
  rules.slice(-1).forEach((rule) => applyRule(rule, taken))
  return taken
}

function applyRule(rule: Rule, taken: Taken): void {
  const match = rule.pattern.exec(taken.left)
  if (!match) return
  const before = taken.left
  taken.left = `${before.slice(0, match.index)}${gap}${before.slice(match.index + match[0].length)}`
  const found = rule.read([...match], taken)
  const names = Object.keys(found ?? {}) as PartName[]
  const twice = names.some((name) => name !== 'rule' && taken.parts[name] !== undefined)
  if (!found || twice) {
    taken.left = before
    return
  }
  const { rule: earlier } = taken.parts
  Object.assign(taken.parts, found, earlier === undefined ? {} : { rule: earlier })
  for (const name of names) taken.words[name] ??= match[0].trim()
}

/** Takes a curve and what it is compared with: "f(x) = 2", "f′ is at least k", "q positive". */
function takeComparison(taken: Taken, { letter, isCurve }: Around): void {
  const text = taken.left
  const name = String.raw`(?<![${letters}\d_])([${letters}](?:[₀-₉]{1,3}|_[A-Za-z])?)(['’′″‴"]*)(?:\s*\(\s*${letter}\s*\))?(?![${letters}'’(-])`
  const refAt = (found: RegExpExecArray): CurveRef => ({
    curve: found[1]!,
    order: countPrimes(found[2] ?? ''),
  })
  const negated = (found: RegExpExecArray) => /\b(?:not|n't|never)\b/i.test(found[0])
  for (const [said, relation] of signWords) {
    const pattern = new RegExp(
      String.raw`${name}\s+(?:(?:is|are|be|lies?|goes|does|equals?|(?:is\s+)?equal\s+to|=)\s+)*(?:equal\s+to\s+)?(?:${said})(?![${letters}])`,
      'i',
    )
    const found = pattern.exec(text)
    if (found && isCurve(found[1]!) && !negated(found)) {
      took(taken, found, refAt(found), { relation, target: '0' })
      return
    }
  }
  const within = new RegExp(
    String.raw`(?:\b(?:is|does|are)\s+${name}|${name}\s+(?:(?:is|are|lies?|stays?|be)\s+)+)\s*between\s+(${E})\s+and\s+(${E})`,
    'i',
  ).exec(text)
  if (within) {
    const [, before, primesBefore, after, primesAfter, low, high] = within
    const ref = { curve: before ?? after!, order: countPrimes(primesBefore ?? primesAfter ?? '') }
    if (isCurve(ref.curve) && !isCurve(low!)) {
      took(taken, within, ref, { relation: '>', target: low!, below: high! })
      return
    }
  }
  const plain = new RegExp(
    String.raw`\b(?:is|does|are)\s+${name}\s+(${E})(?=\s*(?:$|\?|\bon\b|\bfor\b|\bbetween\b|\bfrom\b|,))`,
    'i',
  ).exec(text)
  if (plain && isCurve(plain[1]!) && !isCurve(plain[3]!)) {
    took(taken, plain, refAt(plain), { relation: '=', target: plain[3]!.trim() })
    return
  }
  for (const [said, relation] of comparisons) {
    const pattern = new RegExp(
      String.raw`${name}\s*(?:\s(?:is|are|be|lies?|does)\s+)*(?:${said})\s*(?:the\s+(?:value|number|curve|graph\s+of)\s+)?(?:([${letters}]['’′″]*)\(${letter}\)|(${E})|(${numberWords}))(?![${letters}'’])`,
      'i',
    )
    const found = pattern.exec(text)
    if (!found || !isCurve(found[1]!)) continue
    const target = found[3] ?? found[4] ?? inFigures(found[5]!)
    // "f is a" begins a sentence about something else.
    if (relation === '=' && /\b(?:is|are|be|of)\s+[a-zα-ω]$/i.test(found[0]) && !isCurve(target))
      continue
    took(taken, found, refAt(found), { relation, target: target.trim() })
    return
  }
}

function took(
  taken: Taken,
  found: RegExpExecArray,
  ref: CurveRef,
  compared: NonNullable<Parts['compared']>,
): void {
  const { left: text, parts, words } = taken
  taken.left = `${text.slice(0, found.index)}${gap}${text.slice(found.index + found[0].length)}`
  words.compared = found[0]
  parts.refs.push(ref)
  parts.compared = compared
}
