import { asPattern, letters, expression as E } from '../grammar'
import { gap, type Rule } from './part'

const sideOf = (said: string | undefined) =>
  said === undefined
    ? undefined
    : /left|below|[-−⁻]/i.test(said)
      ? ('left' as const)
      : ('right' as const)

/** The ends of an integral, what a limit goes to, the constant of an antiderivative. */
export function calculusParts(letter: string): Rule[] {
  return [
    {
      pattern: asPattern(
        String.raw`(?:∫|\\int|\bint|\bintegral)\s*_?\s*\{?\s*(${E})\s*\}?\s*\^\s*\{?\s*(${E})\s*\}?`,
      ),
      read: ([, from, to], taken) => {
        taken.left = taken.left.replace(gap, ' integral ')
        return to === letter ? { openFrom: from! } : { span: { from: from!, to: to! } }
      },
    },
    {
      pattern: asPattern(
        String.raw`(?:\bas\s+|_\s*\{?\s*|\bwhen\s+|\()?\b${letter}\s*(?:->|→|⟶|\\to\b|\\rightarrow\b|to\b|approaches|tends\s+to|goes\s+to|nears)\s*(${E})\s*(?:\^?\{?([-−+⁺⁻])(?![\d${letters}])\}?)?\s*[)}]?`,
      ),
      read: ([, at, side]) => ({ place: at!, ...(side ? { side: sideOf(side)! } : {}) }),
    },
    {
      pattern: asPattern(
        String.raw`\bfrom\s+(?:the\s+)?(left|right|below|above)\b(?:[- ]hand)?(?:\s+side)?|\b(left|right)[- ]?hand(?:ed)?(?=\s+limit)|\b(left|right)(?:-sided)?(?=\s+limit)`,
      ),
      read: ([, a, b, c]) => ({ side: sideOf(a ?? b ?? c)! }),
    },
    {
      pattern: asPattern(
        String.raw`(?:with\s+|where\s+|and\s+|,\s*)*\b([${letters}])\((${E})\)\s*=\s*(${E})`,
      ),
      read: ([, name, at, value], _taken, around) =>
        around.isCurve(name!) ? null : { start: { at: at!, value: value! } },
    },
    {
      pattern: asPattern(String.raw`(?:,\s*)?\bplus\s+(${E})`),
      read: ([, plus]) => ({ plus: plus! }),
    },
    // The value that a theorem speaks of.
    {
      pattern: asPattern(
        String.raw`(?:,\s*)?\b(?:and|with|at|for)\s+(?:the\s+)?(?:value|level|height)\s+(${E})(?![${letters}])`,
      ),
      read: ([, target]) => ({ compared: { relation: '=', target: target! } }),
    },
  ]
}
