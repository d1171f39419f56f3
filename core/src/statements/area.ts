import { z } from 'zod'
import { measuredSums } from '../calculus/measuredSums'
import { overShort, stripTop } from '../calculus/overShort'
import { riemannSum, type RiemannSum, stripEnds, type SumRule } from '../calculus/riemann'
import { exactPolynomialArea } from '../calculus/exactArea'
import { compensatedSum } from '../calculus/quadrature'
import { extremesOnStrips } from '../features/stripExtremes'
import { seeded } from '../search/population'
import { formatNumber, formatShort } from '../study/numbers'
import { placeTextSchema } from '../study/parts'
import { unitOfArea, unitOfDerivative, withUnit } from '../study/units'
import { convergence } from './convergence'
import {
  type CurveResult,
  emptyResult,
  failed,
  lazyTable,
  type LineContext,
  type LineResult,
  type Mark,
  type NewSlider,
  type Phrase,
  type ResultTable,
  type SentenceContext,
  type SliderRole,
  type StatementKind,
} from './kind'
import { numberReadout } from './lines'
import { lookOverFormula, overSpanFields, renameOver } from './overSpan'
import {
  curvesMeant,
  curveSlot,
  curveText,
  likelySpan,
  placeText,
  spanIn,
  spanSlot,
  wordsAfter,
} from './slots'
import { type SpanFacts, spanFacts } from './spanFacts'

export const areaRules = ['position', 'trapezoid', 'simpson', 'lower', 'upper', 'random'] as const
export type AreaRule = (typeof areaRules)[number]

/** Area under q over [1, 7] with n = 8 strips, height at the left. */
export const areaLineSchema = z.object({
  kind: z.literal('area'),
  ...overSpanFields,
  order: z.int().min(0).max(3),
  /** How many strips, and where in each the height is read: numbers or sliders. */
  count: placeTextSchema,
  rule: z.enum(areaRules),
  position: placeTextSchema,
  seed: z.int().min(1).max(1_000_000),
  /** Whether the error against the count is shown, and for which error strips are counted. */
  convergence: z.boolean(),
  tolerance: placeTextSchema,
})
export type AreaLine = z.infer<typeof areaLineSchema>

/** Strips beyond this are summed and not drawn one by one. */
const mostDrawn = 10_000
const mostStrips = 100_000
/** Rows of a table beyond this are left out, which it says. */
const mostRows = 10_000

export const ruleWords: Record<AreaRule, string> = {
  position: 'at a share of each strip',
  trapezoid: 'along a slanted top',
  simpson: 'along a parabola over two strips',
  lower: 'at the least value',
  upper: 'at the greatest value',
  random: 'at a random place in each',
}
const namedPositions = [
  { value: '0', text: 'at the left' },
  { value: '0.5', text: 'at the middle' },
  { value: '1', text: 'at the right' },
]

const noMarks: SliderRole['marks'] = []
const positionMarks: SliderRole['marks'] = namedPositions.map(({ value, text }) => ({
  value: Number(value),
  text: text.replace('at the ', ''),
}))

export const areaKind: StatementKind<AreaLine> = {
  kind: 'area',
  schema: areaLineSchema,

  sentence: (line, context) =>
    context.isMeasured(line.curve)
      ? [
          { text: 'Area under ' },
          curveSlot(line, context),
          { text: ' at its readings, ' },
          heightSlot(line, context),
        ]
      : [
          { text: 'Area under ' },
          curveSlot(line, context),
          { text: ' over ' },
          spanSlot(line.span, context),
          { text: ' with ' },
          countSlot(line, context),
          { text: ' strips, height ' },
          heightSlot(line, context),
        ],

  evaluate(line, context) {
    const found = context.curve(line.curve)
    if (!found.ok) return failed(found.problem)
    if (found.curve.readings) return measured(line, found.curve, context)
    const over = lookOverFormula(line, context)
    if (!over.ok) return failed(over.problem)
    const { curve, from, to } = over
    const count = context.number(line.count)
    if (!count.ok) return failed(count.problem)
    const n = Math.round(count.value)
    if (n < 1 || n > mostStrips) {
      return failed({
        message: `${formatShort(count.value, 3)} is no count of strips`,
        fix: `use 1 to ${mostStrips}`,
      })
    }
    const position = context.number(line.position)
    if (!position.ok) return failed(position.problem)
    const facts = spanFacts(curve, line.order, from, to, context)
    return withStrips(line, curve, facts, n, position.value, context)
  },

  offers(request) {
    const rest = wordsAfter(request.text, 'area under', 'area')
    if (rest === null || request.text === '') return []
    if (/^(between|from)\b/.test(rest)) return []
    const { span, rest: words } = spanIn(rest)
    const { refs } = curvesMeant(words, request)
    const free = (name: string) => (request.otherSliders.includes(name) ? `${name}₂` : name)
    const [n, s] = [free('n'), free('s')]
    const sliders: NewSlider[] = [
      { name: n, value: 8, from: 1, to: 10_000, step: 1, place: false, scale: 'growing' },
      { name: s, value: 0, from: 0, to: 1, step: 0.01, place: false },
    ]
    return refs
      .filter((ref) => ref.order <= 3)
      .map(({ curve, order }) => ({
        line: {
          kind: 'area' as const,
          id: '',
          curve,
          order,
          span: likelySpan(span, request, curve),
          count: n,
          rule: 'position' as const,
          position: s,
          seed: 1,
          convergence: false,
          tolerance: '0.001',
        },
        newSliders: request.measured.includes(curve) ? [] : sliders,
      }))
      .map((offer) =>
        offer.newSliders.length > 0
          ? offer
          : {
              ...offer,
              line: { ...offer.line, count: '1', position: '0', rule: 'trapezoid' as const },
            },
      )
  },

  placeFields: [],
  hasSpan: true,
  sliderRoles: (line) => ({
    [line.count]: { words: 'strips', marks: noMarks },
    [line.position]: {
      words: line.rule === 'position' ? 'height at' : 'height at (not in use)',
      marks: positionMarks,
    },
  }),
  rename: (line, names) => ({
    ...renameOver(line, names),
    count: names(line.count),
    position: names(line.position),
    tolerance: names(line.tolerance),
  }),
}

/** "n = 8" where n is a slider, else "8". */
function countSlot(line: AreaLine, context: SentenceContext): Phrase {
  const base = placeText(line.count, context)
  const value = context.number(line.count)
  const named = value !== null && base.text !== String(value)
  return {
    slot: 'number',
    field: 'count',
    ...base,
    ...(named
      ? {
          text: `${base.text} = ${Math.round(value)}`,
          latex: `${base.latex} = ${Math.round(value)}`,
        }
      : {}),
  }
}

function heightSlot(line: AreaLine, context: SentenceContext): Phrase {
  const value = context.number(line.position)
  const near = namedPositions.find((p) => Number(p.value) === value)
  const share = value === null ? '' : `at ${formatShort(value, 2)} of each strip`
  const text = line.rule === 'position' ? (near?.text ?? share) : ruleWords[line.rule]
  const measured = context.isMeasured(line.curve)
  const choices = [
    ...namedPositions.filter((p) => !measured || p.value !== '0.5'),
    ...(line.rule === 'position' && !near ? [{ value: 'here', text: share }] : []),
    ...areaRules
      .filter((r) => r !== 'position' && (!measured || r === 'trapezoid'))
      .map((value) => ({ value: value as string, text: ruleWords[value] })),
  ]
  return {
    slot: 'choice',
    field: 'rule',
    text,
    source: line.rule === 'position' ? (near?.value ?? 'here') : line.rule,
    latex: `\\text{${text}}`,
    choices,
  }
}

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

function withStrips(
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
  const apart = measurable ? overShort(f, strips, level, area, turns) : null
  const difference = sum - exact.value
  const exactForm = exactPolynomialArea(f, facts.from, facts.to)
  const total = facts.examination ? totalOf(facts) : null
  const said = `${difference > 0 ? 'over' : 'short'} by ${withUnit(formatNumber(Math.abs(difference), decimals), unit)}`
  const rounded = /[1-9]/.test(formatNumber(difference, decimals))
  const width = (facts.to - facts.from) / strips.length
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
              ...(exactForm ? { exact: exactForm } : {}),
            },
          ]
        : []),
      ...(measurable
        ? [
            {
              label: 'difference' as const,
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
      `w = (${show(facts.to)} − ${wrapped(show(facts.from))})/${strips.length} = ${withUnit(formatShort(width, 9), variable.unit)}`,
      ...(measurable ? because(line, facts, position, context) : []),
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
  }
}

const wrapped = (text: string) => (text.startsWith('−') ? `(${text})` : text)

/** The area with every part counted as positive, from the proven zeros. */
function totalOf({ area, from, to, examination }: SpanFacts): number | null {
  if (!examination?.complete) return null
  const breaks = examination.breaks.map((b) => b.x)
  const cuts = [from, ...examination.zeros.map((z) => z.x), ...breaks, to]
    .filter((x) => x >= from && x <= to)
    .sort((a, b) => a - b)
  return compensatedSum(cuts.slice(1).map((x, i) => Math.abs(area.value(x) - area.value(cuts[i]!))))
}

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

/** Why the sum is over or short, where the shape decides it. */
function because(
  line: AreaLine,
  { examination, from, to }: SpanFacts,
  position: number,
  { decimals }: LineContext,
): string[] {
  if (!examination) return []
  const name = curveText(line)
  const show = (x: number) => formatShort(x, decimals)
  const inside = (list: readonly (readonly [number, number])[]) =>
    list
      .map(([a, b]) => [Math.max(a, from), Math.min(b, to)] as const)
      .filter(([a, b]) => b - a > 1e-9 * (to - from))
      .slice(0, 3)
  const where = ([a, b]: readonly [number, number]) =>
    a === from && b === to ? 'throughout' : `from ${show(a)} to ${show(b)}`
  const rule = ruleOf(line, position)
  const sentences = (
    list: readonly (readonly [number, number])[],
    does: string,
    what: string,
    way: string,
  ) => inside(list).map((span) => `${name} ${does} ${where(span)}, so ${what} ${way} there.`)
  switch (rule) {
    case 'left':
      return [
        ...sentences(examination.falling, 'falls', 'left heights', 'are too high'),
        ...sentences(examination.rising, 'rises', 'left heights', 'are too low'),
      ]
    case 'right':
      return [
        ...sentences(examination.falling, 'falls', 'right heights', 'are too low'),
        ...sentences(examination.rising, 'rises', 'right heights', 'are too high'),
      ]
    case 'trapezoid':
      return [
        ...sentences(examination.concaveUp, 'is concave up', 'slanted tops', 'lie over it'),
        ...sentences(examination.concaveDown, 'is concave down', 'slanted tops', 'lie under it'),
      ]
    case 'midpoint':
      return [
        ...sentences(examination.concaveUp, 'is concave up', 'middle heights', 'come out short'),
        ...sentences(examination.concaveDown, 'is concave down', 'middle heights', 'come out over'),
      ]
    case 'lower':
      return ['Every strip stays at or below the curve, so the sum is never over.']
    case 'upper':
      return ['Every strip reaches the curve’s greatest value, so the sum is never short.']
    default:
      return []
  }
}

/** The sum in sigma notation with this study's numbers. */
function sigmaLatex(
  line: AreaLine,
  { from, to }: SpanFacts,
  n: number,
  position: number,
  { decimals }: LineContext,
  sum: number,
): string | null {
  const rule = ruleOf(line, position)
  const short = (x: number) => formatShort(x, 6).replaceAll('−', '-')
  const width = short((to - from) / n)
  const name = `${line.curve}${"'".repeat(line.order)}`
  const result = formatNumber(sum, decimals).replaceAll('−', '-')
  const approx = '\\approx'
  const start = short(from)
  const at = (shift: string) => `${name}\\left(${start} + ${shift}\\cdot ${width}\\right)`
  const simple: Record<string, string> = {
    left: '(i - 1)',
    right: 'i',
    midpoint: '(i - \\tfrac12)',
  }
  if (typeof rule === 'string' && rule in simple) {
    return `\\sum_{i=1}^{${n}} ${at(simple[rule]!)}\\cdot ${width} ${approx} ${result}`
  }
  if (typeof rule === 'object' && rule) {
    return `\\sum_{i=1}^{${n}} ${at(`(i - 1 + ${short(rule.position)})`)}\\cdot ${width} ${approx} ${result}`
  }
  if (rule === 'trapezoid') {
    return `\\sum_{i=1}^{${n}} \\frac{${at('(i - 1)')} + ${at('i')}}{2}\\cdot ${width} ${approx} ${result}`
  }
  return null
}

/** Strips between readings: their own widths, left, right or slanted. */
function measured(line: AreaLine, curve: CurveResult, context: LineContext): LineResult {
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
