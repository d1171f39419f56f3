import { z } from 'zod'
import { commonMembers, nameSchema, placeTextSchema } from '../vocabulary/members'
import { failed, type Mark, type StatementKind } from './contract'
import { lookAt } from './shared/atPlace'
import { escapeText, placeSlot } from './shared/slots'
import { fillWords } from './words'

export const notePins = [
  ...(['auto', 'top left', 'top right', 'bottom left', 'bottom right', 'spot', 'place'] as const),
] as const
export const noteSizes = ['small', 'usual', 'large'] as const
/** How large each sets its words, in pixels. */
const typeSizes = { small: 14, usual: 17, large: 24 } as const

/** Note “Going down: q′ = {q'(a)}”, in a corner, at a spot of the picture or at a place on a curve. */
export const noteLineSchema = z.strictObject({
  kind: z.literal('note'),
  ...commonMembers,
  text: z.string().min(1).max(4000),
  /** The lane it stands on. */
  curve: nameSchema,
  order: z.int().min(-1).max(3),
  pin: z.enum(notePins),
  /** At a spot: the share of the width and height; at a place: how far from its point, in pixels. */
  x: z.number().min(-4000).max(4000),
  y: z.number().min(-4000).max(4000),
  place: placeTextSchema.optional(),
  size: z.enum(noteSizes),
})
export type NoteLine = z.infer<typeof noteLineSchema>

const pinWords: Readonly<Record<(typeof notePins)[number], string>> = {
  ...{ auto: 'where there is room', 'top left': 'top left', 'top right': 'top right' },
  ...{ 'bottom left': 'bottom left', 'bottom right': 'bottom right' },
  ...{ spot: 'where it was put', place: 'beside the curve' },
}

export const noteKind: StatementKind<NoteLine> = {
  kind: 'note',
  schema: noteLineSchema,
  topic: null,
  said: ['note'],
  ownWords: true,
  uses: { curves: ['curve'], places: ['place'], words: ['text'] },
  drawn: { typeSize: ({ size }) => typeSizes[size] },

  sentence: (line, context) => [
    { text: 'Note ' },
    {
      slot: 'words',
      field: 'text',
      text: `“${line.text}”`,
      source: line.text,
      latex: `\\text{${escapeText(`“${line.text}”`)}}`,
    },
    { text: ', ' },
    {
      slot: 'choice',
      field: 'pin',
      text: pinWords[line.pin],
      source: line.pin,
      latex: `\\text{${pinWords[line.pin]}}`,
      choices: notePins.map((value) => ({ value, text: pinWords[value] })),
    },
    ...(line.pin === 'place' && line.place !== undefined
      ? [{ text: ' at ' }, placeSlot(line.place, context)]
      : []),
  ],

  actions: (line) =>
    noteSizes
      .map(
        (size) =>
          ({
            id: size,
            label: { small: 'Small', usual: 'Usual size', large: 'Large' }[size],
            does: 'change',
            change: { size: line.size === size ? 'usual' : size },
            pressed: line.size === size,
          }) as const,
      )
      .filter(({ id }) => id !== 'usual'),

  choose: (line, field, text) =>
    field !== 'pin' ? null : { change: pinned(line, text as NoteLine['pin']) },

  evaluate(line, context) {
    const lane = context.curve(line.curve)
    if (!lane.ok) return failed(lane.problem)
    const words = fillWords(line.text, context, true)
    const at =
      line.pin === 'place' && line.place !== undefined
        ? lookAt({ curve: line.curve, place: line.place }, Math.max(0, line.order), context)
        : null
    if (at && !at.ok) return failed(at.problem)
    const point = at && { x: at.at.x, y: at.at.derivatives[Math.max(0, line.order)]! }
    const mark: Mark = {
      kind: 'note',
      id: 'note',
      layer: 'marks',
      lane: { curve: line.curve, order: line.order },
      lines: words.lines,
      spoken: words.spoken,
      ...{ pin: line.pin, shiftX: line.x, shiftY: line.y, type: typeSizes[line.size] },
      ...(point && Number.isFinite(point.y) ? { point } : {}),
    }
    return {
      readouts: [],
      marks: [mark],
      problems: words.problems.map(({ message, piece }) => ({
        message: piece === '' ? message : `“${piece}”: ${message}`,
        piece,
      })),
      hints: [],
    }
  },

  offers(request) {
    const said = /^note(?:\s+|$)(.*)$/is.exec(request.typed)
    const [first] = request.curves
    if (!said || !first) return []
    const text = said[1]!.trim().replace(/^[“"](.*)[”"]$/s, '$1') || 'a note'
    const ref = request.ref ?? { curve: first.name, order: 0 }
    return [{ line: newNote(text.slice(0, 4000), ref.curve, ref.order) }]
  },
}

export const newNote = (text: string, curve: string, order: number): NoteLine => ({
  ...{ kind: 'note', id: '', text, curve, order, pin: 'auto', x: 0, y: 0, size: 'usual' },
})

/** A note pinned elsewhere, with what that pin needs. */
function pinned(line: NoteLine, pin: NoteLine['pin']): Partial<NoteLine> {
  if (pin === 'spot') return line.pin === 'spot' ? { pin } : { pin, x: 0.5, y: 0.5 }
  if (pin === 'place') return { pin, x: 16, y: -16, place: line.place ?? '0' }
  return { pin, x: 0, y: 0 }
}
