import { asPattern, inFigures, letters, numberWords, timeUnits, expression as E } from '../grammar'
import { isCurveName, type Rule } from './part'

const orderWords: Readonly<Record<string, string>> = {
  ...{ first: '1', second: '2', third: '3', fourth: '4', fifth: '5', sixth: '6' },
  ...{ linear: '1', quadratic: '2', cubic: '3', quartic: '4' },
}

/** Steps, degrees and places. */
export function placesParts(letter: string): Rule[] {
  const x = String.raw`(?:${letter}\s*=\s*)?`
  return [
    {
      pattern: asPattern(
        String.raw`(?:,\s*)?\b(?:(?:in|with)\s+)?(?:by|steps?\s+(?:of|size)?|increments?\s+of|every)\s*(?:of\s+)?(\d+(?:\.\d+)?(?:\/\d+)?|π\/\d+)`,
      ),
      read: ([, step]) => ({ step: step! }),
    },
    {
      pattern: asPattern(
        String.raw`\b(?:of\s+)?(?:degree|order)\s*(?:=|n\s*=)?\s*(\d+|${numberWords})\b|\b(\d+)(?:st|nd|rd|th)[- ]?(?:degree|order)?\b|\b(first|second|third|fourth|fifth|sixth)[- ](?:degree|order)\b|\b(linear|quadratic|cubic|quartic)(?=\s+(?:approximation|taylor|maclaurin|polynomial))`,
      ),
      read: ([, a, b, c, d]) => ({
        degree: inFigures(a ?? b ?? orderWords[(c ?? d)!.toLowerCase()]!),
      }),
    },
    {
      pattern: asPattern(
        String.raw`(?:,\s*)?(?:\b(?:at|about|around|near|for|when|where|if|with|on|in|of|cent(?:er|r)ed\s+(?:at|on|about|around)|based\s+at)\s+)*(?:the\s+)?(?:(?:point|place|value|time|moment|instant|input)s?\s+)?(?:(?:where|with|when|at)\s+)?(?<![${letters}])${letter}\s*(?:=|is|equals|equal\s+to)\s*(${E})`,
      ),
      read: ([, place], _taken, around) => (isCurveName(place!, around) ? null : { place: place! }),
    },
    {
      pattern: asPattern(
        String.raw`\b(?:at|about|around|near|cent(?:er|r)ed\s+(?:at|on|about|around)|based\s+at|after)\s+(?:the\s+)?(?:(?:point|place|value|time)\s+)?(${E}|${numberWords})(?![${letters}])(?:\s*(?:${timeUnits}|h|s)(?![${letters}]))?`,
      ),
      read: ([, place], _taken, around) =>
        isCurveName(place!, around) ? null : { place: inFigures(place!) },
    },
    {
      pattern: asPattern(String.raw`\binitial(?:ly)?\b(?!\s+(?:guess|condition))`),
      read: () => ({ place: '0' }),
    },
    {
      pattern: asPattern(String.raw`\bat\s+(?:the\s+)?origin\b`),
      read: () => ({ place: '0' }),
    },
    {
      pattern: asPattern(String.raw`\b(?:at|to)\s+(minus\s+|negative\s+|[-−])?infinity\b`),
      read: ([, minus]) => ({ place: minus ? '−∞' : '∞' }),
    },
    {
      pattern: asPattern(
        String.raw`\bfrom\s+${x}(${E})(?=\s*$|\s*\uE000|\s+(?:onwards?|on|plus|as|and)\b)`,
      ),
      read: ([, from], _taken, around) => (isCurveName(from!, around) ? null : { openFrom: from! }),
    },
  ]
}
