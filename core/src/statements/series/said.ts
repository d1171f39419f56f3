import type { SpanText } from '../../vocabulary/members'
import { parseSpan } from '../../vocabulary/values'

/** What words behind “Taylor polynomial” say; what is left over stands in `rest`. */
export interface TaylorSaid {
  curve: string
  place: string | null
  degree: string | null
  beside: string | null
  span: SpanText | null
  under: string | null
  all: boolean
  rest: string
}

const value = String.raw`(?:\p{L}[₀-₉]*\s*=\s*)?([^\s,;?]+(?:\s*[-−+*/·]\s*[^\s,;?a-z]+)*)`
const joining =
  /\b(?:of|the|a|an|with|and|for|to|about|around|which|is|enough|needed|over|on|taylor|maclaurin|polynomial|series|expansion|approximation|drawn|up)\b|[,;?]/gi
const numbers: Readonly<Record<string, string>> = {
  ...{ one: '1', two: '2', three: '3', four: '4', five: '5', six: '6', seven: '7', eight: '8' },
  ...{ nine: '9', ten: '10' },
}
const ordinals: Readonly<Record<string, string>> = {
  ...{ first: '1', second: '2', third: '3', fourth: '4', fifth: '5', sixth: '6', seventh: '7' },
  ...{ eighth: '8', ninth: '9', tenth: '10', linear: '1', quadratic: '2', cubic: '3' },
}

/** Reads the words; a curve stands first, or behind “of”. */
export function taylorSaid(words: string, letter: string): TaylorSaid {
  let left = ` ${words} `
  const take = (pattern: RegExp): RegExpExecArray | null => {
    const found = pattern.exec(left)
    if (found) left = `${left.slice(0, found.index)} , ${left.slice(found.index + found[0].length)}`
    return found
  }
  const all = take(/\b(?:in |of )?all (?:lower )?orders\b/i) !== null
  const under = take(
    new RegExp(
      String.raw`\b(?:(?:with )?(?:an |its )?\|?error\|? (?:is |stays )?(?:under|below|within|less than|at most)|(?<=enough.*)for(?= \S+\s*$))\s+${value}`,
      'iu',
    ),
  )
  const beside = take(new RegExp(String.raw`\b(?:its |the )?error at ${value}`, 'iu'))
  const degree =
    take(/\b(?:(?:of |to |up to )?(?:the )?(?:order|degree)s?(?: of| n\s*=)?)\s+([^\s,;?]+)/i) ??
    take(/\b(\d+)(?:st|nd|rd|th)?[- ](?:order|degree)\b/i) ??
    take(/(?<=\s)T_?(\d+)(?=[\s,])/)
  const ordinal = degree
    ? null
    : take(
        new RegExp(
          String.raw`\b(${Object.keys(ordinals).join('|')})(?:[- ](?:order|degree))?\b`,
          'i',
        ),
      )
  const span =
    take(/\b(?:over|on)\s+(\[[^\]]*\])/) ??
    take(/\b(?:over|on|from|between)\s+(\S+\s+(?:to|and)\s+[^\s,;?]+)/)
  const place = take(new RegExp(String.raw`\b(?:at|about|around|near)\s+${value}`, 'iu'))
  const curve =
    take(
      new RegExp(
        String.raw`(?<=^\s*(?:,\s*)?(?:of\s+|to\s+|for\s+)?(?:the\s+curve\s+)?)(?!a\s)(\p{L}(?:[₀-₉]{1,3}|_[A-Za-z])?)\s?(['’′″‴]*)(?:\(${letter}\))?(?=[\s,])`,
        'u',
      ),
    ) ??
    take(
      new RegExp(
        String.raw`\b(?:of|to|for)\s+(\p{L}(?:[₀-₉]{1,3}|_[A-Za-z])?)(['’′″‴]*)(?:\(${letter}\))?(?=[\s,])`,
        'u',
      ),
    )
  return {
    curve: curve ? `${curve[1]!}${curve[2] ?? ''}` : '',
    place: place ? place[1]!.trim() : null,
    degree: degree
      ? (numbers[degree[1]!.toLowerCase()] ?? degree[1]!)
      : ordinal
        ? ordinals[ordinal[1]!.toLowerCase()]!
        : null,
    beside: beside ? beside[1]!.trim() : null,
    span: span ? parseSpan(span[1]!.replace(/\s+and\s+/, ' to ')) : null,
    under: under ? under[1]!.trim() : null,
    all,
    rest: left.replace(joining, ' ').replace(/\s+/g, ' ').trim(),
  }
}
