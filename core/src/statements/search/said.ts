import { type SearchMethod, searchMethods } from '../../search/minimize'
import type { SpanText } from '../../vocabulary/members'
import { boundIn, parseSpan } from '../../vocabulary/values'
import { mostStarts, type SearchLine, type SettingField } from './line'

/** What words behind “search” say, as far as they say it. */
export interface SearchSaid {
  goal: SearchLine['goal']
  start: string | null
  span: SpanText | null
  methods: SearchMethod[]
  settings: Partial<Record<SettingField, string>>
  starts: number | null
  /** What names the curve. */
  curve: string
  /** Words that say nothing that is known. */
  rest: string
}

const methodPatterns: readonly (readonly [SearchMethod, RegExp])[] = [
  ['simplex', /\b(?:a |the )?(?:downhill )?simplex(?: (?:search|method|walk))?\b/i],
  ['golden', /\b(?:a |the )?golden[- ]section(?: search)?\b|\bgolden\b/i],
  ['newton', /\bnewton(?:['’]?s)?(?: (?:search|method|steps?))?\b/i],
  ['gradient', /\b(?:a |the )?gradient(?: (?:descent|search|method|steps?))?\b/i],
  ['population', /\b(?:a |the )?population(?: search)?\b|\bdifferential evolution\b/i],
]

/** A number or an expression without spaces; a sign or a root may stand before it. */
const value = String.raw`(?:\p{L}[₀-₉]*\s*=\s*)?([^\s,;]+(?:\s*[-−+*/·]\s*[^\s,;a-z]+)*)`
const settingPatterns: readonly (readonly [SettingField, RegExp])[] = [
  [
    'step',
    new RegExp(
      String.raw`\b(?:with )?(?:a )?(?:first |initial )?step(?: of| size)? ${value}`,
      'iu',
    ),
  ],
  ['tolerance', new RegExp(String.raw`\b(?:with )?(?:a )?tolerance(?: of)? ${value}`, 'iu')],
  [
    'rate',
    new RegExp(String.raw`\b(?:with |at )?(?:a )?(?:fixed |learning )?rate(?: of)? ${value}`, 'iu'),
  ],
  ['seed', new RegExp(String.raw`\b(?:with )?(?:a )?seed(?: of)? ${value}`, 'iu')],
  [
    'most',
    /\b(?:with |in )?(?:at most |no more than )?(\d+) (?:evaluations|probes|looks)(?: at (?:the )?most)?/i,
  ],
  ['most', /\bevaluations at most (\d+)/i],
  ['size', /\b(?:with |of )?(?:a population of )?(\d+) members\b|\b(?:of )?size (\d+)/i],
  ['size', /\bpopulation of (\d+)\b/i],
  ['generations', /\b(?:over |for |with )?(?:at most )?(\d+) generations\b/i],
]
const goalPattern =
  /\b(?:for )?(?:a |an |the |its |one )?(low(?:est)?|high(?:est)?|minimum|maximum|min|max|valley|peak)(?: (?:point|value|place)s?)?\b/i
const isHigh = /high|max|peak/i

/** Words that join what is said and say nothing by themselves. */
const joining =
  /\b(?:search|walk|look|from|for|by|with|and|of|in|the|a|an|using|method|over|on|at)\b|[,;]/gi

/** Reads the words behind “search”; what is left over stands in `rest`, in the order in which it was said. */
export function searchSaid(words: string, letter: string): SearchSaid {
  let left = ` ${words} `
  const take = (pattern: RegExp): RegExpExecArray | null => {
    const found = pattern.exec(left)
    if (found) left = `${left.slice(0, found.index)} , ${left.slice(found.index + found[0].length)}`
    return found
  }
  const starts = take(/\b(?:from |with )?(many|\d+) starts\b/i)
  const settings: Partial<Record<SettingField, string>> = {}
  for (const [field, pattern] of settingPatterns) {
    const found = settings[field] === undefined ? take(pattern) : null
    const said = found?.slice(1).find((group) => group !== undefined)
    if (said !== undefined) settings[field] = said.replace(/\.$/, '')
  }
  const methods = methodPatterns.flatMap(([method, pattern]) => (take(pattern) ? [method] : []))
  const all = methods.length === 0 && take(/\b(?:every|each|all|any)(?: the)?(?: methods?)?\b/i)
  const goal = take(goalPattern)
  const { span, rest } = spanSaid(left)
  left = rest
  const start = take(
    new RegExp(
      String.raw`\b(?:from|starting (?:at|from)|start(?: at)?)\s+(?:${letter}\s*=\s*)?${value}`,
      'iu',
    ),
  )
  const curve =
    take(
      new RegExp(
        String.raw`(?<=^\s*(?:,\s*)?(?:of\s+)?)(?!a\s)(\p{L}(?:[₀-₉]{1,3}|_[A-Za-z])?)\s?(['’′″‴]*)(?:\(${letter}\))?(?=[\s,])`,
        'u',
      ),
    ) ??
    take(
      new RegExp(
        String.raw`\b(?:of|on)\s+(\p{L}(?:[₀-₉]{1,3}|_[A-Za-z])?)(['’′″‴]*)(?:\(${letter}\))?(?=[\s,])`,
        'u',
      ),
    )
  return {
    goal: goal && isHigh.test(goal[1]!) ? 'high' : 'low',
    start: start ? start[1]!.trim() : null,
    span,
    methods: all ? [...searchMethods] : methods,
    settings,
    starts: starts ? Math.min(mostStarts, /\d/.test(starts[1]!) ? Number(starts[1]) : 40) : null,
    curve: curve ? `${curve[1]!}${curve[2] ?? ''}` : '',
    rest: left.replace(joining, ' ').replace(/\s+/g, ' ').trim(),
  }
}

/** A stretch among the words: [0, 10], “from 0 to 10”, “between 0 and 10”, “0 ≤ t ≤ 10”. */
function spanSaid(words: string): { span: SpanText | null; rest: string } {
  const patterns = [
    /\b(?:over|on|in|within)\s+(\[[^\]]*\])/,
    /\b(?:over|on|from|between|within)\s+(\S+\s+(?:to|and)\s+[^\s,]+)/,
    /(\S+\s*(?:<=|≤)\s*\p{L}\s*(?:<=|≤)\s*[^\s,]+)/u,
  ]
  for (const pattern of patterns) {
    const found = pattern.exec(words)
    if (!found) continue
    const text = found[1]!.replace(/\s+and\s+/, ' to ')
    const bound = boundIn(text)?.span
    const span =
      bound?.from !== undefined && bound.to !== undefined
        ? { from: bound.from, to: bound.to }
        : parseSpan(text)
    if (!span) continue
    const rest = `${words.slice(0, found.index)} , ${words.slice(found.index + found[0].length)}`
    return { span, rest }
  }
  return { span: null, rest: words }
}
