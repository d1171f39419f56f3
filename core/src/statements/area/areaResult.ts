import { measuredSums } from '../../calculus/measuredSums'
import { overShort, stripTop } from '../../calculus/overShort'
import { riemannSum, type RiemannSum, stripEnds, type SumRule } from '../../calculus/riemann'
import { compensatedSum } from '../../calculus/quadrature'
import { extremesOnStrips } from '../../features/stripExtremes'
import { seeded } from '../../search/population'
import {
  addRational,
  divideRational,
  negateRational,
  type Rational,
  rational,
  rationalFromNumber,
  toDecimalText,
  toNumber,
} from '../../language/rational'
import { formatNumber, formatShort } from '../../study/numbers'
import { unitOfArea, unitOfDerivative, withUnit } from '../../study/units'
import type { AreaLine } from './area'
import { convergence } from './convergence'
import {
  type CurveResult,
  emptyResult,
  lazyTable,
  type LineContext,
  type LineResult,
  type Mark,
  type ResultTable,
} from '../contract'
import { numberReadout } from '../shared/lines'
import { curveText } from '../shared/slots'
import { exactOver, type SpanFacts, totalOf } from '../shared/spanFacts'

/** Strips beyond this are summed and not drawn one by one. */
const mostDrawn = 10_000
/** Rows of a table beyond this are left out, which it says. */
const mostRows = 10_000

/** The rule of a line as sums know it; random heights have none. */
function ruleOf(line: AreaLine, position: number): SumRule | null {
  if (line.rule === 'random') return null
  if (line.rule !== 'position') return line.rule
  const share = Math.min(1, Math.max(0, position))
  return share === 0
    ? 'left'
    : share === 1
      ? 'right'
      : share === 0.5
        ? 'midpoint'
        : { position: share }
}

/** The strips of a line; null while lower or upper still wait for the examination. */
function cut(line: AreaLine, facts: SpanFacts, n: number, position: number): RiemannSum | null {
  const { f, from, to, examination } = facts
  const rule = ruleOf(line, position)
  if (rule === null) return randomStrips(line, facts, n)
  if (rule === 'lower' || rule === 'upper') {
    if (!examination) return null
    const ends = stripEnds(from, to, n)
    const found = extremesOnStrips(f, ends, rule === 'upper' ? 1 : -1, examination)
    const strips = found.map(({ x, value }, i) => {
      const [a, b] = [ends[i]!, ends[i + 1]!]
      return { from: a, to: b, sample: x, height: value, area: value * (b - a) }
    })
    return { sum: compensatedSum(strips.map((s) => s.area)), strips }
  }
  const count = rule === 'simpson' ? n + (n % 2) : n
  return riemannSum(f, { from, to, count, rule })
}

function randomStrips({ seed }: AreaLine, { f, from, to }: SpanFacts, n: number): RiemannSum {
  const random = seeded(seed)
  const ends = stripEnds(from, to, n)
  const samples = Float64Array.from({ length: n }, (_, i) => {
    const [a, b] = [ends[i]!, ends[i + 1]!]
    return a + random() * (b - a)
  })
  const heights = f.values(samples)
  const strips = Array.from(heights, (height, i) => {
    const [a, b] = [ends[i]!, ends[i + 1]!]
    return { from: a, to: b, sample: samples[i]!, height, area: height * (b - a) }
  })
  return { sum: compensatedSum(strips.map((s) => s.area)), strips }
}

/** All that a line shows of n strips under a formula. */
export function stripsResult(
  line: AreaLine,
  curve: CurveResult,
  facts: SpanFacts,
  n: number,
  position: number,
  context: LineContext,
): LineResult {
  const { variable, decimals } = context
  const { f, exact, area, turns } = facts
  const made = cut(line, facts, n, position)
  if (!made) return { ...emptyResult, pending: true }
  const { strips, sum } = made
  const name = curveText(line)
  const show = (x: number) => formatShort(x, Math.max(3, decimals))
  const valueUnit = unitOfDerivative(curve.unit, variable.unit, line.order)
  const unit = unitOfArea(valueUnit, variable.unit)
  const lane = { curve: line.curve, order: line.order }
  const rule = ruleOf(line, position)
  const bad = strips.find((s) => !Number.isFinite(s.height))
  const problems = [
    ...(exact.undefinedOn
      ? [
          {
            message: `${name} has no value from ${variable.letter} = ${show(exact.undefinedOn[0])} to ${show(exact.undefinedOn[1])}`,
            fix: 'choose a span on which the curve is drawn',
          },
        ]
      : []),
    ...(exact.diverges
      ? [
          {
            message: `the area grows without bound at ${variable.letter} = ${show(exact.divergesAt!)}: sums do not settle`,
            fix: 'keep the span away from there',
          },
        ]
      : []),
    ...(bad
      ? [
          {
            message: `${name} has no finite height in the strip from ${show(bad.from)} to ${show(bad.to)}`,
            fix: 'read the height elsewhere in the strips, or move the span',
          },
        ]
      : []),
  ]
  const measurable = Number.isFinite(exact.value) && !bad
  const level = rule === null ? 'left' : rule
  // Without its turns f could cross a strip's top unseen, and the totals would be too small.
  const apart = measurable && facts.examination ? overShort(f, strips, level, area, turns) : null
  const difference = sum - exact.value
  const form = exactOver('area', line, facts, context)
  const total = facts.examination ? totalOf(facts) : null
  const said = `${difference > 0 ? 'over' : 'short'} by ${withUnit(formatNumber(Math.abs(difference), decimals), unit)}`
  const rounded = /[1-9]/.test(formatNumber(difference, decimals))
  const marks: Mark[] =
    strips.length <= mostDrawn
      ? [
          {
            kind: 'strips',
            lane,
            strips: strips.filter((s) => Number.isFinite(s.height)),
            curved: rule === 'trapezoid' || rule === 'simpson' ? stripTop(f, strips, rule) : null,
            slivers: apart?.slivers ?? [],
            f: (x) => f.value(x),
          },
        ]
      : [{ kind: 'shade', lane, from: facts.from, to: facts.to, f: (x) => f.value(x) }]
  const chart = line.convergence && measurable ? convergence(line, facts, context) : null
  return {
    readouts: [
      ...(bad ? [] : [numberReadout('sum', sum, unit, decimals)]),
      ...(Number.isFinite(exact.value)
        ? [
            {
              ...numberReadout('exact', exact.value, unit, decimals),
              ...(form ? { exact: form } : {}),
            },
          ]
        : []),
      ...(measurable
        ? [
            {
              id: 'difference',
              label: 'difference',
              text: rounded ? said : 'none at this rounding',
              value: difference,
            },
          ]
        : []),
      ...(apart
        ? [
            numberReadout('over', apart.over, unit, decimals),
            numberReadout('short', apart.short, unit, decimals),
          ]
        : []),
      ...(total !== null && Math.abs(total - Math.abs(exact.value)) > 0.5 * 10 ** -decimals
        ? [numberReadout('total', total, unit, decimals)]
        : []),
    ],
    marks,
    problems,
    hints: [],
    notes: [
      `w = (${show(facts.to)} − ${wrapped(show(facts.from))})/${strips.length} ${widthText(widthOf(facts.from, facts.to, strips.length), variable.unit)}`,
      ...(measurable ? because(line, facts, strips.length, position, context) : []),
      ...(total !== null && Math.abs(total - Math.abs(exact.value)) > 0.5 * 10 ** -decimals
        ? ['Parts below the axis count against those above; the total counts every part.']
        : []),
      ...(line.rule === 'simpson' && n % 2 === 1
        ? [`A parabola takes two strips, so ${n + 1} stand here for ${n}.`]
        : []),
      ...(chart?.notes ?? []),
    ],
    tables: [...(chart?.tables ?? []), stripTable(strips, context, name)],
    charts: chart?.charts ?? [],
    sigma: sigmaLatex(line, facts, strips.length, position, context, sum),
    ...(facts.examination
      ? { examined: { ...lane, from: facts.from, to: facts.to, found: facts.examination } }
      : { pending: true }),
  }
}

const wrapped = (text: string) => (text.startsWith('−') ? `(${text})` : text)

function stripTable(
  strips: readonly { from: number; to: number; sample: number; height: number; area: number }[],
  { variable, decimals }: LineContext,
  name: string,
): ResultTable {
  const short = (x: number) => formatShort(x, Math.max(3, decimals))
  const columns = [
    'i',
    'from',
    'to',
    `sample ${variable.letter}`,
    `height ${name}`,
    'area',
    'sum so far',
  ]
  const count = Math.min(strips.length, mostRows)
  return lazyTable({ name: 'Strips', columns, count, open: false }, () => {
    let running = 0
    return strips.slice(0, count).map((s, i) => {
      running += s.area
      return {
        cells: [
          String(i + 1),
          short(s.from),
          short(s.to),
          short(s.sample),
          formatNumber(s.height, decimals),
          formatNumber(s.area, decimals),
          formatNumber(running, decimals),
        ],
        values: [i + 1, s.from, s.to, s.sample, s.height, s.area, running],
        x: s.sample,
      }
    })
  })
}

/** Stretches beyond this are counted. */
const mostReasons = 6

/** Why the sum is over or short, where the shape decides it. */
function because(
  line: AreaLine,
  { examination, from, to }: SpanFacts,
  n: number,
  position: number,
  { decimals }: LineContext,
): string[] {
  if (!examination) return []
  const name = curveText(line)
  const show = (x: number) => formatShort(x, decimals)
  type Stretch = readonly [number, number]
  const where = ([a, b]: Stretch) =>
    a === from && b === to ? 'throughout' : `from ${show(a)} to ${show(b)}`
  /** The shape decides over strips that lie in one stretch, and over no other. */
  const holdsStrip = ([a, b]: Stretch) => {
    const width = (to - from) / n
    const first = Math.ceil((a - from) / width - 1e-9)
    return from + (first + 1) * width <= b + 1e-9 * width
  }
  /** Both ways of the shape, in the order in which they come along the span. */
  const sentences = (
    what: string,
    ...ways: readonly (readonly [list: readonly Stretch[], does: string, way: string])[]
  ) => {
    const stretches = ways
      .flatMap(([list, does, way]) => list.map(([a, b]) => ({ does, way, a, b })))
      .map((one) => ({ ...one, span: [Math.max(one.a, from), Math.min(one.b, to)] as const }))
      .filter(({ span: [a, b] }) => b - a > 1e-9 * (to - from))
      .sort((p, q) => p.a - q.a)
    const all = stretches.filter(({ span }) => holdsStrip(span))
    if (stretches.length > 0 && all.length === 0) {
      return [`No strip lies where the shape of ${name} decides it; with more strips some do.`]
    }
    const said = all
      .slice(0, mostReasons)
      .map(({ does, way, span }) => `${name} ${does} ${where(span)}, so ${what} ${way} there.`)
    const more = all.length - said.length
    return more > 0 ? [...said, `And so on: ${more} more stretches.`] : said
  }
  const { rising, falling, concaveUp, concaveDown } = examination
  switch (ruleOf(line, position)) {
    case 'left':
      return sentences(
        'left heights',
        [falling, 'falls', 'are too high'],
        [rising, 'rises', 'are too low'],
      )
    case 'right':
      return sentences(
        'right heights',
        [falling, 'falls', 'are too low'],
        [rising, 'rises', 'are too high'],
      )
    case 'trapezoid':
      return sentences(
        'slanted tops',
        [concaveUp, 'is concave up', 'lie over it'],
        [concaveDown, 'is concave down', 'lie under it'],
      )
    case 'midpoint':
      return sentences(
        'middle heights',
        [concaveUp, 'is concave up', 'come out short'],
        [concaveDown, 'is concave down', 'come out over'],
      )
    case 'lower':
      return ['Every strip stays at or below the curve, so the sum is never over.']
    case 'upper':
      return ['Every strip reaches the curve’s greatest value, so the sum is never short.']
    default:
      return []
  }
}

/** The width of a strip by the ends as they are written, without rounding. */
const widthOf = (from: number, to: number, n: number) =>
  divideRational(
    addRational(rationalFromNumber(to), negateRational(rationalFromNumber(from))),
    rational(BigInt(n)),
  )
function shortDecimal(width: Rational): string | null {
  const text = toDecimalText(width)
  return text !== null && text.length <= longestDecimal ? text : null
}

/** "= 0.625 h", and "≈ 0.833333333 h" where that is rounded. */
function widthText(width: Rational, unit: string): string {
  const short = shortDecimal(width)
  return short !== null
    ? `= ${withUnit(short, unit)}`
    : `≈ ${withUnit(formatShort(toNumber(width), 9), unit)}`
}

/** A width as a decimal, or as a fraction of whole numbers where it has no short decimal. */
function widthLatex(width: Rational): string {
  const rounded = () => formatShort(toNumber(width), 6)
  return (
    shortDecimal(width) ??
    (width.d <= largestDenominator ? `\\tfrac{${width.n}}{${width.d}}` : rounded())
  )
}
const largestDenominator = 10_000n
const longestDecimal = 9

/** The sum in sigma notation with this study's numbers. */
function sigmaLatex(
  line: AreaLine,
  { from, to }: SpanFacts,
  n: number,
  position: number,
  { decimals, variable }: LineContext,
  sum: number,
): string {
  const rule = ruleOf(line, position)
  const short = (x: number) => formatShort(x, 6).replaceAll('−', '-')
  const width = widthLatex(widthOf(from, to, n))
  const name = `${line.curve}${"'".repeat(line.order)}`
  const start = from === 0 ? '' : `${short(from)} + `
  const at = (shift: string) => `${name}\\left(${start}${shift}\\cdot ${width}\\right)`
  const { letter } = variable
  const strip = `[${letter}_{i-1},\\,${letter}_i]`
  const value = Number.isFinite(sum)
    ? ` \\approx ${formatNumber(sum, decimals).replaceAll('−', '-')}`
    : ''
  const total = (terms: string, count = n) =>
    `\\sum_{i=1}^{${count}} ${terms}\\cdot ${width}${value}`
  switch (rule) {
    case null:
      return total(`${name}(${letter}_i^*)`).concat(`,\\quad ${letter}_i^* \\in ${strip}`)
    case 'left':
      return total(at('(i - 1)'))
    case 'right':
      return total(at('i'))
    case 'midpoint':
      return total(at('(i - \\tfrac12)'))
    case 'trapezoid':
      return total(`\\frac{${at('(i - 1)')} + ${at('i')}}{2}`)
    case 'simpson':
      return total(`\\frac{${at('(2i - 2)')} + 4${at('(2i - 1)')} + ${at('2i')}}{3}`, n / 2)
    case 'lower':
      return total(`\\Bigl(\\min_{${strip}} ${name}\\Bigr)`)
    case 'upper':
      return total(`\\Bigl(\\max_{${strip}} ${name}\\Bigr)`)
    default:
      return total(at(`(i - 1 + ${short(rule.position)})`))
  }
}

/** Strips between readings: their own widths, left, right or slanted. */
export function measuredResult(
  line: AreaLine,
  curve: CurveResult,
  context: LineContext,
): LineResult {
  const { variable, decimals } = context
  const { xs, ys } = curve.readings!
  const position = context.number(line.position)
  const rule =
    line.rule === 'position'
      ? position.ok && position.value >= 0.5
        ? 'right'
        : 'left'
      : 'trapezoid'
  const sums = measuredSums(xs, ys)
  const unit = unitOfArea(curve.unit, variable.unit)
  const strips = xs.slice(1).map((to, i) => {
    const from = xs[i]!
    const [left, right] = [ys[i]!, ys[i + 1]!]
    const height = rule === 'left' ? left : rule === 'right' ? right : (left + right) / 2
    const sample = rule === 'left' ? from : rule === 'right' ? to : (from + to) / 2
    return { from, to, sample, height, area: height * (to - from) }
  })
  const top = (i: number, x: number) => {
    const { from, to } = strips[i]!
    return ys[i]! + ((ys[i + 1]! - ys[i]!) * (x - from)) / (to - from)
  }
  return {
    ...emptyResult,
    readouts: [
      numberReadout('sum', sums[rule], unit, decimals),
      numberReadout('difference', sums[rule] - sums.trapezoid, unit, decimals),
    ],
    marks: [
      {
        kind: 'strips',
        lane: { curve: line.curve, order: 0 },
        strips,
        curved: rule === 'trapezoid' ? top : null,
        slivers: [],
        f: (x) => curve.f.value(x),
      },
    ],
    notes: [
      `Left ${formatNumber(sums.left, decimals)}, right ${formatNumber(sums.right, decimals)}, slanted ${withUnit(formatNumber(sums.trapezoid, decimals), unit)}; widths as they were read. The difference is to the slanted sum, since between readings the curve is not known.`,
    ],
    tables: [stripTable(strips, context, curve.name)],
  }
}
