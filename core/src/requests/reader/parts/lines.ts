import { asPattern, letters, expression as E } from '../grammar'
import { isCurveName, type Rule } from './part'

/** Points, pairs of places, slopes of lines and axes, and what a graph is taken as. */
export function linesParts(letter: string): Rule[] {
  const x = String.raw`(?:${letter}\s*=\s*)?`
  return [
    {
      pattern: asPattern(
        String.raw`\b(?:through|between|joining|connecting|from|via)\s+(?:the\s+)?(?:points?\s+)?(?:[${letters}]\s*)?\(\s*(${E})\s*,\s*(${E})\s*\)\s+(?:and|to)\s+(?:the\s+point\s+)?(?:[${letters}]\s*)?\(\s*(${E})\s*,\s*(${E})\s*\)`,
      ),
      read: ([, a, , b]) => ({ pair: [a!, b!] }),
    },
    {
      pattern: asPattern(
        String.raw`\b(?:through|at|joining|connecting|with|where|for)\s+(?:the\s+)?(?:points?\s+|places?\s+)?(?:(?:at|where|with)\s+)?(${x})(${E})\s+and\s+(?:at\s+)?${x}(${E})(?![${letters}])`,
      ),
      read: ([, , a, b], _taken, around) =>
        isCurveName(a!, around) || isCurveName(b!, around) ? null : { pair: [a!, b!] },
    },
    {
      pattern: asPattern(
        String.raw`\b(at|through|from|to|past|via|with|near)?\s*(?:the\s+)?(?:external\s+)?(?:point\s+)?(?:[${letters}]\s*)?\(\s*(${E})\s*,\s*(${E})\s*\)`,
      ),
      read: ([, how = '', a, b]) => ({ point: { x: a!, y: b!, on: /^(?:at|)$/i.test(how) } }),
    },
    {
      pattern: asPattern(String.raw`\b(?:to|from|through)\s+(?:the\s+)?origin\b`),
      read: () => ({ point: { x: '0', y: '0', on: false } }),
    },
    {
      pattern: asPattern(String.raw`\b(?:read\s+)?as\s+an?\s+(position|velocity)\b`),
      read: ([, readAs]) => ({ readAs: readAs!.toLowerCase() }),
    },
    {
      pattern: asPattern(
        String.raw`\bas\s+(itself|(?:the\s+graph\s+of\s+)?[${letters}]['’′″]*)(?![${letters}(])`,
      ),
      read: ([, taken]) => ({ taken: taken! }),
    },
    {
      pattern: asPattern(String.raw`\babout\s+([${letters}]['’′″]*)(?![${letters}(\d])`),
      read: ([, about], { parts }) => (parts.taken === undefined ? null : { about: about! }),
    },
    {
      pattern: asPattern(
        String.raw`(?:\b(?:that|which)\s+(?:has|have|is|are)\s+|\b(?:has|have|having|with|of|whose)\s+)(?:a\s+|the\s+)?(?:slope|gradient)s?\s*(?:of|=|is|equal\s+to|equals?)?\s*(${E})`,
      ),
      read: ([, slope]) => ({ slope: slope! }),
    },
    {
      pattern: asPattern(String.raw`\bparallel\s+to\s+the\s+(?:${letter}-?\s?)?axis`),
      read: () => ({ slope: '0' }),
    },
    {
      pattern: asPattern(
        String.raw`\b(?:(?:that|which)\s+(?:is|are)\s+)?(parallel|perpendicular|normal)\s+to\s+(?:the\s+)?(?:straight\s+)?(?:line\s+)?(?:y\s*=\s*)?([^,;]*(?<![${letters}])${letter}(?![${letters}-])[^,;]*|[^,;\s]+)`,
      ),
      read: ([, how, line], { left }) => {
        const across = how!.toLowerCase() !== 'parallel'
        // "normal to f" is a line by itself.
        if (across && !/\btangent/i.test(left)) return null
        return { slope: `${across ? '⟂' : ''}line ${line!.trim()}` }
      },
    },
    {
      pattern: asPattern(
        String.raw`\b(?:about|around|round|over)\s+(?:the\s+)?([${letters}]|upright|vertical|horizontal)-?\s?axis\b|\b(?:about|around|round)\s+(?:the\s+line\s+)?([${letters}])\s*=\s*0`,
      ),
      read: ([, axis, zero]) => {
        if (axis === undefined) return { axis: zero === letter ? 'y' : 'x' }
        const isUpright = /^(?:upright|vertical)$/i.test(axis)
        const isLetter = axis.length === 1 && axis.toLowerCase() !== letter
        return { axis: isUpright || isLetter ? 'y' : 'x' }
      },
    },
  ]
}
