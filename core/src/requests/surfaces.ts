import { surfaceOf } from '../statements'
import { curveMakers } from '../study/edits/names'
import type { Study } from '../study/schema'

/** What asks for a line about a surface, and the words of that line. */
const asked: readonly (readonly [RegExp, string])[] = [
  [/\bdirectional\s+derivative\b/i, 'directional derivative'],
  [
    /\b(?:slope|rate(?:\s+of\s+change)?|derivative)\b(?=.*\b(?:along|towards?|direction)\b)/i,
    'directional derivative',
  ],
  [/\b(?:cross[-\s]?)?sections?\b|\bslices?\b|\bcuts?\b|\btraces?\b/i, 'cross-section'],
  [
    /\btaylor\b(?:\s+polynomial)?|\b(?:quadratic|second[-\s]order)\s+(?:taylor\s+)?(?:approximation|polynomial)\b/i,
    'taylor polynomial of the surface',
  ],
  [
    /\btangent\s+planes?\b|\bplane\b|\btangent\b|\blineari[sz]ation\b|\blinear\s+approximation\b|\bgradient\b|\bpartial(?:s|\s+derivatives?)?\b|∂\S*/i,
    'tangent plane',
  ],
  [
    /\b(?:critical|stationary|saddle|turning|high|low)\s+points?\b|\bsaddles?\b|\bextrem\w*|\bmaxim\w*|\bminim\w*|\bmax\b|\bmin\b|\bhighs?\b|\blows?\b|\bhighest\b|\blowest\b|\bfeatures?\b/i,
    'critical points of the surface',
  ],
]
/** These are said of surfaces alone. */
const ofSurfacesAlone =
  /\btangent\s+planes?\b|\bdirectional\s+derivative\b|\bpartial\s+derivatives?\b|\bsaddle|∂|\bcross[-\s]section|^section$|\bsections?\b.*(?<!\p{L})[xyz](?!\p{L})/iu

/** A polynomial at two coordinates is none of a curve. */
const polynomialAtPoint = /\b(?:taylor|quadratic)\b.*\bat\s*\([^(),]+,[^(),]+\)/i

const formulaOfTwo = /^(?:let\s+)?z\s*=(.*)$/isu
const usesY = /(?<!\p{L})y(?!\p{L})/u

/**
 * A request as the lines about surfaces say it: where it names a surface, speaks of one, or where a
 * study has nothing else; else as it was typed.
 */
export function asSurface(typed: string, study: Study): string {
  const text = typed.trim()
  const defined = formulaOfTwo.exec(text)
  if (defined && usesY.test(defined[1]!)) return `surface ${text.replace(/^let\s+/i, '')}`
  const surfaces = study.lines.flatMap((line) => surfaceOf(line)?.name ?? [])
  if (surfaces.length === 0 || /^(?:let|note|part|title|surface)\b|=\s*>/i.test(text)) return typed
  const named = surfaces.find((name) =>
    new RegExp(`(?<![\\p{L}\\d])${name}(?![\\p{L}\\d])`, 'u').test(text),
  )
  const isAbout =
    named !== undefined ||
    /\bsurface\b/i.test(text) ||
    ofSurfacesAlone.test(text) ||
    polynomialAtPoint.test(text) ||
    curveMakers(study).length === 0
  if (!isAbout) return typed
  const found = asked.find(([pattern]) => pattern.test(text))
  if (!found) return typed
  const [pattern, words] = found
  const rest = text
    .replace(pattern, ' ')
    .replace(/\b(?:of|to|for)\s+(?:the\s+)?surface\b|\bthe\s+surface\b|\bsurface\b/gi, ' ')
    .replace(/^(?:\s*(?:find|show|draw|add|plot|give|the|all|me|please)\b)+/i, ' ')
    .replace(
      named === undefined
        ? /$^/
        : new RegExp(
            `\\b(?:of|to|for)\\s+${named}(?:\\([^()]*\\))?(?![\\p{L}\\d])|^\\s*${named}(?![\\p{L}\\d])`,
            'u',
          ),
      ' ',
    )
    .replace(/\s+/g, ' ')
    .trim()
  return `${words}${named === undefined ? '' : ` of ${named}`}${rest === '' ? '' : ` ${rest}`}`
}
