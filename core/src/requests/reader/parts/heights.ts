import { asPattern, letters } from '../grammar'
import { ruleOf } from './sums'
import { type Rule } from './part'

/** As the sentence of a line tells them. */
const toldRules: Readonly<Record<string, string>> = {
  ...{ greatest: 'upper', least: 'lower', slanted: 'trapezoid', parabola: 'simpson' },
}

/** Where the heights of strips are read. */
export function heightsParts(): Rule[] {
  return [
    {
      pattern: asPattern(
        String.raw`(?:,\s*)?\bheights?\s+(?:at|along)\s+(?:the\s+|an?\s+)?(greatest|least|slanted|parabola)(?:\s+(?:values?|tops?|over\s+two\s+strips))?(?![${letters}])`,
      ),
      read: ([, said]) => ({ rule: toldRules[said!.toLowerCase()]! }),
    },
    {
      pattern: asPattern(
        String.raw`(?:,\s*)?(?:\b(?:with|using|and|by|at|from|use)\s+)*(?:the\s+)?(?:heights?\s+(?:at|on|from|along|of)\s+(?:the\s+)?)?\b(left|right|mid(?:dle|-?points?)?|lower|upper|trapezoid(?:al|s)?|trapezium|simpson(?:['’]?s)?|parabolas?|inscribed|circumscribed)(?:[- ]?hand)?(?:[- ]?(?:end\s?-?points?|points?|sides?|ends?|corners?|heights?|edges?))?(?![${letters}'’])`,
      ),
      read: ([, said]) => ({ rule: ruleOf(said!) }),
    },
  ]
}
