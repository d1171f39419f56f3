import type {
  LineContext,
  LineResult,
  Phrase,
  Proposal,
  Request,
  SentenceContext,
} from '../contract'
import { failed, type StatementKind } from '../contract'
import { nameToLatex } from '../../language/latex'
import { escapeText, curveSlot, parseCurveRef, placeText, wordsAfter } from '../shared/slots'
import { limitAtEnd, limitAtPlace } from './found'
import { type LimitLine, limitLineSchema } from './line'

const sideWords = {
  both: 'from both sides',
  left: 'from the left',
  right: 'from the right',
} as const

/** Which end of the axis a place stands for, or null for a place on it. */
export const endOf = (place: string): 1 | -1 | null => {
  const found = /^\s*([-−+]?)\s*(?:∞|inf|infinity)\s*$/i.exec(place)
  return found ? (found[1] === '-' || found[1] === '−' ? -1 : 1) : null
}

const endText = (end: 1 | -1) => (end > 0 ? '∞' : '−∞')

export const limitKind: StatementKind<LimitLine> = {
  kind: 'limit',
  schema: limitLineSchema,
  topic: 'limits',
  said: ['limit', 'limit of', 'lim'],
  uses: { curves: ['curve'], places: ['place'] },
  reachesEnds: true,
  drawn: {},

  sentence: (line, context) => [
    { text: 'Limit of ' },
    curveSlot(line, context),
    { text: ' as ' },
    arrowSlot(line.place, context),
    ...(endOf(line.place) === null ? [{ text: ' ' }, sideSlot(line.side)] : []),
  ],

  evaluate(line: LimitLine, context: LineContext): LineResult {
    const found = context.curve(line.curve)
    if (!found.ok) return failed(found.problem)
    const { curve } = found
    if (!curve.formula) {
      return failed({
        message: `${curve.name} has no formula, so nothing is known of its limits`,
        fix: 'ask about a curve that is given by a formula',
      })
    }
    const end = endOf(line.place)
    if (end !== null) return limitAtEnd(line, curve, end, context)
    const place = context.number(line.place)
    if (!place.ok) return failed(place.problem)
    return limitAtPlace(line, curve, place, context)
  },

  offers: (request) => offersOf(request),
}

function arrowSlot(place: string, context: SentenceContext): Phrase {
  const { letter } = context.variable
  const end = endOf(place)
  const text = end === null ? placeText(place, context).text : endText(end)
  const tree = end === null ? placeText(place, context).latex : end > 0 ? '\\infty' : '-\\infty'
  return {
    slot: 'place',
    field: 'place',
    text: `${letter} → ${text}`,
    source: place,
    latex: `${nameToLatex(letter)} \\to ${tree || escapeText(place)}`,
  }
}

function sideSlot(side: LimitLine['side']): Phrase {
  return {
    slot: 'choice',
    field: 'side',
    text: sideWords[side],
    source: side,
    latex: `\\text{${sideWords[side]}}`,
    choices: (['both', 'left', 'right'] as const).map((value) => ({
      value,
      text: sideWords[value],
    })),
  }
}

/** “limit of q as t → 2 from the left”, “limit at infinity”, “lim t → 0+”. */
function offersOf(request: Request): Proposal<LimitLine>[] {
  const rest = wordsAfter(request.text, 'limit of', 'limit', 'lim')
  if (rest === null) return []
  const { letter } = request.variable
  let words = ` ${rest} `.replace(/→|->|−>/g, ' → ')
  let side: LimitLine['side'] = 'both'
  words = words.replace(/\s+from\s+(?:the\s+)?(left|below|right|above)\s/i, (_, way: string) => {
    side = /left|below/i.test(way) ? 'left' : 'right'
    return ' '
  })
  const arrow = new RegExp(
    `\\s(?:as\\s+)?(?:${letter}\\s+)?(?:→|approaches|tends to|goes to|towards|at|to)\\s+(\\S.*)$`,
    'i',
  ).exec(words)
  const subject = (arrow ? words.slice(0, arrow.index) : words).trim()
  let place = (arrow?.[1] ?? '').trim().replace(new RegExp(`^${letter}\\s*=\\s*`), '')
  const behind = /^(\S+)\s+(?:of\s+)?(\S+)$/.exec(place)
  const named = (text: string) => {
    const ref = parseCurveRef(text.replace(/\(.*\)$/, ''))
    return ref && request.curves.some((c) => c.name === ref.curve) ? ref : null
  }
  // “lim t → 2 q” names the curve behind the place.
  const last = behind ? named(behind[2]!) : null
  if (last) place = behind![1]!
  const signed = /^(.*[\d\p{L})])\s*([+-])$/u.exec(place)
  if (signed && signed[1] !== '') {
    place = signed[1]!
    side = signed[2] === '-' ? 'left' : 'right'
  }
  if (/^[-−+]?\s*(?:inf|infinity)$/i.test(place)) place = place.replace(/inf(?:inity)?/i, '∞')
  const ref = last ?? named(subject) ?? request.ref
  if (!ref && subject !== '' && subject !== letter) return []
  const refs = ref ? [ref] : request.curves.map((c) => ({ curve: c.name, order: 0 }))
  const likely = place || request.place || request.sliders[0] || 'a'
  return refs.flatMap(({ curve, order }) =>
    order > 2 || request.measured.includes(curve)
      ? []
      : [
          {
            line: { kind: 'limit' as const, id: '', curve, order, place: likely, side },
            ...(likely === 'a' && !request.sliders.includes('a')
              ? { newSliders: [{ name: 'a', place: true }] }
              : {}),
          },
        ],
  )
}
