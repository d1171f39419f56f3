import type { SpanText } from '../../vocabulary/members'
import type { Uses } from '../contract'
import { renameInWords } from '../words/read'

/** The texts of some members of a line; a member it does not have holds none. */
export function textsOf(
  line: object,
  fields: readonly string[] = [],
): { field: string; text: string }[] {
  const members = line as Record<string, unknown>
  return fields.flatMap((field) => {
    const text = members[field]
    return typeof text === 'string' ? [{ field, text }] : []
  })
}

/** The spans of some members of a line. */
export function spansOf(line: object, fields: readonly string[] = []): SpanText[] {
  const members = line as Record<string, unknown>
  return fields.flatMap((field) => (members[field] as SpanText | undefined) ?? [])
}

/** A line with every text that names curves or sliders put through a change. */
export function renamed<L extends object>(
  line: L,
  uses: Uses<L>,
  names: (text: string) => string,
): L {
  const { name, curves = [], places = [], numbers = [], formulas = [], spans = [], domain } = uses
  const { surface, surfaces = [], sides = [] } = uses
  const words = textsOf(line, uses.words)
  const texts = textsOf(line, [
    ...(name ? [name] : []),
    ...(surface ? [surface] : []),
    ...surfaces,
    ...curves,
    ...places,
    ...numbers,
    ...formulas,
  ])
  const members = line as Record<string, unknown>
  const all = [...spans, ...sides, ...(domain ? [domain] : [])].filter(
    (field) => members[field] !== undefined,
  )
  const changed: [string, unknown][] = [
    ...texts.map(({ field, text }): [string, unknown] => [field, names(text)]),
    ...words.map(({ field, text }): [string, unknown] => [field, renameInWords(text, names)]),
    ...spansOf(line, all).map(({ from, to }, i): [string, unknown] => [
      all[i]!,
      { from: names(from), to: names(to) },
    ]),
  ]
  return { ...line, ...Object.fromEntries(changed) }
}
