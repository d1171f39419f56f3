import { asPattern, inFigures, letters, numberPattern } from '../grammar'
import { gap, type Rule } from './part'

const sums: Readonly<Record<string, string>> = {
  ...{ L: 'left', R: 'right', M: 'midpoint', T: 'trapezoid', S: 'simpson' },
}

const stripNouns =
  'sub-?\\s?intervals?|strips?|rectangles?|trapezoids?|trapeziums?|trapezia|sub-?divisions?|divisions?|partitions?|panels?|bars?|slices?|boxes|columns?'

export const ruleOf = (said: string): string => {
  const word = said.toLowerCase()
  if (/^mid/.test(word)) return 'midpoint'
  if (/^trap/.test(word)) return 'trapezoid'
  if (/^(?:simpson|parabol)/.test(word)) return 'simpson'
  if (/^(?:inscribed|lower)/.test(word)) return 'lower'
  if (/^(?:circumscribed|upper)/.test(word)) return 'upper'
  return word
}

/** How many strips, and where their heights are read. */
export function sumsParts(): Rule[] {
  return [
    {
      pattern: asPattern(
        String.raw`(?:\b(?:with|using|for|and|where)\s+|,\s*)?\bn\s*(?:=|is)\s*(\d+)(?:\s+(?:equal\s+)?(?:${stripNouns})(?![${letters}]))?`,
      ),
      read: ([, count]) => ({ count: count! }),
    },
    {
      pattern: asPattern(
        String.raw`(?:\b(?:with|using|by|into|of|and|in)\s+|,\s*)?${numberPattern}\s+(?:equal(?:ly)?[- ]?(?:spaced|wide|sized)?\s+|inscribed\s+|circumscribed\s+|left\s+|right\s+|midpoint\s+)?(${stripNouns})(?:\s+of\s+(?:the\s+)?(?:equal|same)\s+(?:width|length|size))?(?![${letters}])`,
      ),
      read: ([whole, count, noun]) => {
        const inside = /\b(left|right|midpoint|inscribed|circumscribed)\b/i.exec(whole!)?.[1]
        const rule = inside ?? (/^trap/i.test(noun!) ? 'trapezoid' : undefined)
        return { count: inFigures(count!), ...(rule ? { rule: ruleOf(rule) } : {}) }
      },
    },
    {
      pattern: /(?:^|(?<=\s))([LRMTS])(?:_?\{?(\d+)\}?|([₀-₉]+))(?=\s|$|,)/gu,
      read: ([, name, digits, small], _taken, around) =>
        around.isCurve(name!)
          ? null
          : {
              rule: sums[name!]!,
              count: digits ?? [...small!].map((d) => '₀₁₂₃₄₅₆₇₈₉'.indexOf(d)).join(''),
            },
    },
    {
      pattern: asPattern(
        String.raw`\b(?:sum|rule|simpson'?s?|rectangles|trapezoidal|trapezoids?|strips)\s+(?:with\s+|of\s+)?(\d+)(?=\s*$)`,
      ),
      read: ([whole, count], taken) => {
        taken.left = taken.left.replace(gap, ` ${whole!.replace(/\s.*$/, '')} `)
        return { count: count! }
      },
    },
    // M_n, with n said apart.
    {
      pattern: /(?:^|(?<=\s))([LRMTS])_?\{?n\}?(?=\s|$|,)/gu,
      read: ([, name], _taken, around) => (around.isCurve(name!) ? null : { rule: sums[name!]! }),
    },
  ]
}
