import { parseSpan } from '../../vocabulary/values'
import type { Request } from '../contract'
import type { FamilyLine } from './line'

/** What asks for a family, wherever it stands among the words. */
export const familyClaims =
  /^(?!let\b|slider\b)(?!.*=)(?!.*\b(?:through|passing|slope|parallel|perpendicular|horizontal|vertical)\b)(?:.*\bof them\b|.*\bfamil(?:y|ies)\b|\d{1,4} (?:tangents?|normals?|secants?|chords?)\b|.*\b(?:secants?|chords?) of width\b)/i

export interface FamilySaid {
  what: FamilyLine['what']
  curve: string
  letter: string | null
  from: string | null
  to: string | null
  count: string | null
  width: string | null
}

const kinds: readonly (readonly [FamilyLine['what'], RegExp])[] = [
  ['tangents', /\b(?:the )?tangents?(?: lines?)?\b/i],
  ['normals', /\b(?:the )?normals?(?: lines?)?\b/i],
  ['chords', /\b(?:the )?chords?\b/i],
  ['secants', /\b(?:the )?secants?(?: lines?)?\b/i],
]
const joining =
  /\b(?:a|an|the|family|families|of|to|for|with|and|members?|curves?|lines?|them|draw|show|along|on|over)\b|[,;]/gi

/** Reads a request for a family; null where it asks for none, or holds words that say nothing known. */
export function familySaid(text: string, { variable, curves }: Request): FamilySaid | null {
  if (!familyClaims.test(text)) return null
  let left = ` ${text} `
  const take = (pattern: RegExp): RegExpExecArray | null => {
    const found = pattern.exec(left)
    if (found) left = `${left.slice(0, found.index)} , ${left.slice(found.index + found[0].length)}`
    return found
  }
  const count =
    take(/(\S+) of them\b/i) ??
    take(/(?<=^\s*)(\d{1,4})(?=\s)/) ??
    take(/\b(\d{1,4}) (?:members|lines|curves)\b/i)
  const width = take(/\b(?:of |with )?(?:a )?(?:fixed )?width(?: of)? ([^\s,]+)/i)
  const lines = kinds.find(([, pattern]) => take(pattern))?.[0]
  const named = String.raw`\p{L}(?:[₀-₉]{1,3})?`
  const run =
    take(
      new RegExp(
        String.raw`\b(?:for|with|as|over)\s+(${named})\s+(?:runs?\s+|goes\s+)?(?:from|in)\s+(\S+)\s+to\s+([^\s,]+)`,
        'u',
      ),
    ) ??
    take(
      new RegExp(
        String.raw`\b(?:for|with)\s+(${named})\s+(?:between)\s+(\S+)\s+and\s+([^\s,]+)`,
        'u',
      ),
    ) ??
    take(/()\bfrom\s+(\S+)\s+to\s+([^\s,]+)/)
  const bracket = run ? null : take(/\b(?:over|on)\s+(\[[^\]]*\])/)
  const span = bracket ? parseSpan(bracket[1]!) : null
  const names = curves.map((c) => c.name).join('|')
  const curve =
    names === ''
      ? null
      : take(
          new RegExp(
            String.raw`(?<=[\s,])(${names})(['’′″‴]*)(?:\(${variable.letter}\))?(?=[\s,])`,
            'u',
          ),
        )
  if (left.replace(joining, ' ').trim() !== '') return null
  // What runs through members is a slider; along the axis tangents are what most look for.
  const ofMembers = run?.[1] !== undefined && run[1] !== '' && run[1] !== variable.letter
  const what = lines ?? (ofMembers ? 'members' : 'tangents')
  return {
    what,
    curve: curve ? `${curve[1]!}${curve[2] ?? ''}` : '',
    letter: run?.[1] ? run[1] : null,
    from: run ? run[2]! : (span?.from ?? null),
    to: run ? run[3]! : (span?.to ?? null),
    count: count ? count[1]! : null,
    width: width ? width[1]! : null,
  }
}
