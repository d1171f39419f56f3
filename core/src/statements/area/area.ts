import { roundStep } from '../../features/whatMatters'
import { formatShort } from '../../vocabulary/numbers'
import { stripsResult } from './areaResult'
import { isAsTheyLie, measuredResult } from './measured'
import {
  failed,
  type NewSlider,
  type Phrase,
  type SentenceContext,
  type StatementKind,
} from '../contract'
import { lookOverFormula } from '../shared/overSpan'
import {
  curvesMeant,
  curveSlot,
  endsOpen,
  likelySpan,
  placeText,
  spanIn,
  spanSlot,
  wordsAfter,
} from '../shared/slots'
import { spanFacts, asksOver, longOver } from '../shared/spanFacts'
import { type AreaLine, type AreaRule, areaLineSchema, areaRules } from './line'
import { cut, mostStrips, namedPositions, noMarks, positionMarks, ruleWords } from './stripWords'

export const areaKind: StatementKind<AreaLine> = {
  kind: 'area',
  schema: areaLineSchema,
  topic: 'areas',
  said: ['area', 'area under'],
  uses: { curves: ['curve'], spans: ['span'], numbers: ['count', 'position', 'tolerance'] },
  actions(line, { isMeasured, number }) {
    // Between readings the curve is not known: there is no error to look at.
    if (isMeasured(line.curve)) return []
    const { convergence, rule, seed, tolerance } = line
    const change = { convergence: !convergence }
    return [
      { id: 'convergence', label: 'Convergence', does: 'change', change, pressed: convergence },
      ...(rule === 'random'
        ? [
            {
              id: 'places',
              label: 'Other places',
              does: 'change' as const,
              change: { seed: seed + 1 },
            },
          ]
        : []),
      ...(convergence
        ? [
            {
              id: 'tolerance',
              label: 'Error under',
              does: 'number' as const,
              field: 'tolerance',
              words: 'error under',
              value: number(tolerance) ?? 0.001,
            },
          ]
        : []),
    ]
  },
  choose(_line, field, text) {
    if (field !== 'rule' || text === 'here') return field === 'rule' ? { change: {} } : null
    const share = Number(text)
    if (text.trim() === '' || Number.isNaN(share)) return null
    return {
      change: { rule: 'position', position: text },
      slide: { member: 'position', value: share },
    }
  },
  drawn: { tinted: 'areas' },

  sentence: (line, context) =>
    context.isMeasured(line.curve)
      ? [
          { text: 'Area under ' },
          curveSlot(line, context),
          { text: ' over ' },
          spanSlot(line.span, context),
          { text: ' at its readings' },
          ...(isAsTheyLie(line)
            ? []
            : [{ text: ' with ' }, countSlot(line, context), { text: ' strips' }]),
          { text: isAsTheyLie(line) ? ', ' : ', height ' },
          heightSlot(line, context),
        ]
      : [
          { text: 'Area under ' },
          curveSlot(line, context),
          { text: ' over ' },
          spanSlot(line.span, context),
          { text: ' with ' },
          countSlot(line, context),
          { text: context.number(line.count) === 1 ? ' strip, height ' : ' strips, height ' },
          heightSlot(line, context),
        ],

  long: longOver(asksOver()),

  evaluate(line, context) {
    const found = context.curve(line.curve)
    if (!found.ok) return failed(found.problem)
    if (found.curve.readings) return measuredResult(line, found.curve, context)
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
    return stripsResult(line, curve, facts, n, position.value, context)
  },

  offers(request) {
    const rest = wordsAfter(request.text, 'area under', 'area')
    if (rest === null || request.text === '') return []
    if (/^between\b/.test(rest) || endsOpen(rest, request.variable.letter)) return []
    const strips = stripsIn(rest)
    if (!strips) return []
    const { rule, share, count, rest: unruled } = strips
    const { span, rest: words } = spanIn(unruled)
    const { refs } = curvesMeant(words, request)
    const free = (name: string) =>
      ['', '₂', '₃', '₄', '₅', '₆', '₇', '₈', '₉']
        .map((index) => name + index)
        .find((n) => !request.otherSliders.includes(n)) ?? name
    const [n, s] = [free('n'), free('s')]
    const bySlider = rule === undefined || rule === 'position'
    const sliders: NewSlider[] = [
      { name: n, value: count ?? 8, ...countsUpTo(count ?? 8) },
      ...(bySlider
        ? [{ name: s, value: share ?? 0, from: 0, to: 1, step: 0.01, place: false }]
        : []),
    ]
    return refs
      .filter((ref) => ref.order <= 3)
      .map(({ curve, order }) => {
        const measured = request.measured.includes(curve)
        const line = {
          kind: 'area' as const,
          id: '',
          curve,
          order,
          span: likelySpan(span, request, curve),
          seed: 1,
          convergence: false,
          tolerance: '0.001',
        }
        if (measured) {
          const how = rule ?? ('trapezoid' as const)
          const strips = String(count ?? 0)
          return { line: { ...line, count: strips, position: String(share ?? 0), rule: how } }
        }
        return {
          line: {
            ...line,
            count: n,
            rule: rule ?? ('position' as const),
            position: bySlider ? s : '0',
          },
          newSliders: sliders,
        }
      })
  },

  sliderRoles: (line) => ({
    [line.count]: { words: 'strips', marks: noMarks },
    [line.position]: {
      words: line.rule === 'position' ? 'height at' : 'height at (not in use)',
      marks: positionMarks,
    },
  }),
}

/** A count runs so far unless more is asked for. */
const usualCounts = 50
const countsUpTo = (count: number) => {
  const to = Math.max(usualCounts, roundStep(count))
  const scale = to > 4 * usualCounts ? ('growing' as const) : ('even' as const)
  return { from: 1, to, step: 1, place: false, scale }
}
const mostCounts = 10_000

/** How strips are asked for: [words, rule, share of each strip]. */
const askedRules: readonly (readonly [RegExp, AreaRule, number?])[] = [
  [/^left\b/, 'position', 0],
  [/^(?:middles?|midpoints?)\b/, 'position', 0.5],
  [/^right\b/, 'position', 1],
  [/^trapez(?:oid|oidal|ium)s?\b/, 'trapezoid'],
  [/^simpson(?:'s|’s)?(?!\p{L})/u, 'simpson'],
  [/^lower\b/, 'lower'],
  [/^upper\b/, 'upper'],
  [/^random\b/, 'random'],
]

/** The rule and the count that words name; null for a count that cannot be. */
function stripsIn(words: string): {
  rule?: AreaRule
  share?: number
  count?: number
  rest: string
} | null {
  const counted =
    /(?:^|\s)(?:with\s+|by\s+)?(?:n\s*=\s*(\d+)(?:\s+strips?\b)?|(\d+)\s+(?:strips?|rectangles?|trapezoids?)\b)/i.exec(
      words,
    )
  const digits = counted?.[1] ?? counted?.[2]
  const number = Number(digits)
  if (digits !== undefined && !(number >= 1 && number <= mostCounts)) return null
  const fits = digits !== undefined
  const left = fits ? cut(words, counted!.index, counted![0].length) : words
  const named =
    /(?:^|\s)(?:with\s+|by\s+)?(?=(?:left|mid|right|trapez|simpson|lower|upper|random))/i
  const at = named.exec(left)
  const from = at === null ? 0 : at.index + at[0].length
  const found = at && askedRules.find(([word]) => word.test(left.slice(from).toLowerCase()))
  const base = fits ? { count: number } : {}
  if (!at || !found) return { ...base, rest: left }
  const [word, rule, share] = found
  const length = from - at.index + word.exec(left.slice(from).toLowerCase())![0].length
  const rest = cut(left, at.index, length)
  return { ...base, rule, ...(share === undefined ? {} : { share }), rest }
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
    ...namedPositions,
    ...(line.rule === 'position' && !near ? [{ value: 'here', text: share }] : []),
    ...areaRules
      .filter((r) => r !== 'position' && (!measured || r === 'trapezoid' || r === 'simpson'))
      .map((value) => ({ value: value, text: ruleWords[value] })),
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
