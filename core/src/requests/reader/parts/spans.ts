import {
  asPattern,
  inFigures,
  letters,
  numberPattern,
  timeUnits,
  expression as E,
} from '../grammar'
import { isCurveName, type Rule } from './part'

/** Spans, whole ones and those with one end, and how far the second place is from the first. */
export function spansParts(letter: string): Rule[] {
  const x = String.raw`(?:${letter}\s*=\s*)?`
  return [
    {
      pattern: asPattern(
        String.raw`(?:,\s*)?(?:\b(?:on|over|in|within|along|across|for|where|with|when|through|throughout|from)\s+)?(?:the\s+|its\s+)?(?:(?:closed|open|given|half-open)\s+)?(?:\b(?:interval|span|range|domain|stretch)\s+)?(?:from\s+)?(?:${letter}\s*(?:∈|\\in\b|in)\s*)?[[(\]]\s*(${E})\s*[,;]\s*(${E})\s*[\])[]`,
      ),
      read: ([whole, from, to]) => {
        const square = /[[\]]/.test(whole!)
        const said = /\b(?:on|over|in|within|interval|span)\b|∈|\\in\b/i.test(whole!)
        return square || said ? { span: { from: from!, to: to! } } : null
      },
    },
    {
      pattern: asPattern(
        String.raw`(?:,\s*)?(?:\b(?:for|on|over|where|with|when|in|and|interval|the)\s+)*(${E})\s*(?:<=?|≤|⩽|\\leq?)\s*${letter}\s*(?:<=?|≤|⩽|\\leq?)\s*(${E})`,
      ),
      read: ([, from, to]) => ({ span: { from: from!, to: to! } }),
    },
    {
      pattern: asPattern(
        String.raw`(?:,\s*)?(?:\b(?:on|over|in)\s+)?(?:the\s+)?(?:interval\s+|span\s+)?\b(?:from|between|over|on|in)\s+${x}(${E})\s+(?:to|until|till|and|up\s+to|through)\s+${x}(${E})`,
      ),
      read: ([, from, to], _taken, around) => {
        if (isCurveName(from!, around) || (isCurveName(to!, around) && to !== letter)) return null
        return to === letter ? { openFrom: from! } : { span: { from: from!, to: to! } }
      },
    },
    {
      pattern: asPattern(
        String.raw`(?:,\s*)?(?:\b(?:on|over|in)\s+)?(?<![${letters}\d.])([-−]?[\d.]+)\s*(?:to|\.\.|…|–)\s*([-−]?[\d.]+)(?![${letters}\d])`,
      ),
      read: ([, from, to]) => ({ span: { from: from!, to: to! } }),
    },
    {
      pattern: asPattern(
        String.raw`(?:,\s*)?(?:\b(?:for|when|where|with|on|if|over)\s+)?(?:all\s+)?(?<![${letters}])${letter}\s*(>=?|<=?|≥|≤|⩾|⩽)\s*(${E})`,
      ),
      read: ([, sign, bound]) => ({
        span: /[<≤⩽]/.test(sign!) ? { to: bound! } : { from: bound! },
      }),
    },
    {
      pattern: asPattern(
        String.raw`(?:,\s*)?\b(?:in|over|during|for|after)\s+(?:the\s+)?first\s+${numberPattern}\s+(?:${timeUnits})(?![${letters}])`,
      ),
      read: ([, to]) => ({ span: { from: '0', to: inFigures(to!) } }),
    },
    {
      pattern: asPattern(
        String.raw`(?:\b(?:with|for|and|using|where)\s+|,\s*)?(?<![${letters}])(?:h|Δ\s?${letter}|delta\s+${letter})\s*=\s*(${E})`,
      ),
      read: ([, h]) => ({ h: h! }),
    },
  ]
}
