import { z } from 'zod'
import { compileTree } from '../../evaluate/compile'
import { withValues } from '../../evaluate/withValues'
import { commonMembers, lineColours, nameSchema, placeTextSchema } from '../../vocabulary/members'
import { formatShort } from '../../vocabulary/numbers'
import {
  emptyResult,
  failed,
  type FamilyLine as DrawnLine,
  type LineContext,
  type LineProblem,
  type LineResult,
  type Mark,
  type Mix,
  type MixedInk,
  type Phrase,
  type StatementKind,
} from '../contract'
import { curveSlot, curveText, curvesMeant, placeText } from '../shared/slots'
import { chordEnvelope, type EnvelopePoint, normalEnvelope } from './envelope'
import { familyClaims, familySaid } from './said'

export const mostMembers = 2000
const membersWords = {
  tangents: 'Tangents to ',
  normals: 'Normals to ',
  secants: 'Secants to ',
  chords: 'Chords of ',
  members: '',
} as const

/** Tangents to q for t from −3 to 3, 120 of them; q for k from 0 to 3, 16 of them. */
export const familyLineSchema = z.strictObject({
  kind: z.literal('family'),
  ...commonMembers,
  curve: nameSchema,
  order: z.int().min(0).max(2),
  what: z.enum(['tangents', 'normals', 'secants', 'chords', 'members']),
  /** What runs: the letter of the axis, or of a slider for members. */
  letter: nameSchema,
  from: placeTextSchema,
  to: placeTextSchema,
  count: placeTextSchema,
  /** How wide secants and chords are. */
  width: placeTextSchema.optional(),
  /** How long each line is along the axis; whole where it is not said. */
  reach: placeTextSchema.optional(),
  /** Between these it is coloured, from the first member to the last. */
  colours: z.array(z.enum(lineColours)).min(1).max(3).optional(),
  /** In place of those: hue from 0 to 360 and lightness from 0 to 100, as expressions of the letter. */
  hue: placeTextSchema.optional(),
  lightness: placeTextSchema.optional(),
  /** From 0 to 1. */
  opacity: placeTextSchema.optional(),
  envelope: z.boolean().optional(),
})
export type FamilyLine = z.infer<typeof familyLineSchema>

const schemes: readonly (readonly [text: string, colours: NonNullable<FamilyLine['colours']>])[] = [
  ['one colour', ['rust']],
  ['kelp to rust', ['kelp', 'rust']],
  ['slate to ochre', ['slate', 'ochre']],
  ['plum, ochre, kelp', ['plum', 'ochre', 'kelp']],
]
const usualColours = schemes[1]![1]
const usualWidth = '1'

export const familyKind: StatementKind<FamilyLine> = {
  kind: 'family',
  schema: familyLineSchema,
  topic: 'rates',
  said: ['family of tangents', 'family', 'family of'],
  claims: familyClaims,
  uses: {
    curves: ['curve'],
    numbers: ['letter', 'from', 'to', 'count', 'width', 'reach', 'opacity', 'hue', 'lightness'],
  },
  drawn: {},

  sentence: (line, context) => [
    ...(line.what === 'members' ? [] : [{ text: membersWords[line.what] }]),
    curveSlot(line, context),
    ...(line.what === 'secants' || line.what === 'chords'
      ? [{ text: ' of width ' }, numberSlot('width', line.width ?? usualWidth, context)]
      : []),
    { text: ` for ${line.letter} from ` },
    numberSlot('from', line.from, context),
    { text: ' to ' },
    numberSlot('to', line.to, context),
    { text: ', ' },
    numberSlot('count', line.count, context),
    { text: ' of them' },
  ],

  actions: (line) => [
    ...(line.what === 'members'
      ? []
      : [
          {
            ...{ id: 'envelope', label: 'Envelope', does: 'change' as const },
            change: { envelope: line.envelope ? undefined : true },
            pressed: line.envelope === true,
          },
        ]),
    ...schemes.map(([text, colours]) => ({
      ...{ id: `colours ${text}`, label: capital(text), does: 'change' as const },
      change: { colours: [...colours], hue: undefined, lightness: undefined },
      pressed: line.hue === undefined && (line.colours ?? usualColours).join() === colours.join(),
    })),
    {
      id: 'looks',
      label: 'How they are drawn',
      does: 'numbers',
      fields: [
        ...(line.what === 'members'
          ? []
          : [{ field: 'reach', words: 'length along the axis', text: line.reach ?? '' }]),
        { field: 'opacity', words: 'opacity, 0 to 1', text: line.opacity ?? '' },
        { field: 'hue', words: `hue by ${line.letter}, 0 to 360`, text: line.hue ?? '' },
        {
          field: 'lightness',
          words: `lightness by ${line.letter}, 0 to 100`,
          text: line.lightness ?? '',
        },
      ],
    },
  ],

  evaluate(line, context) {
    const found = membersOf(line, context)
    return found.ok ? told(line, found, context) : failed(found.problem)
  },

  offers(request) {
    const said = familySaid(request.text, request)
    if (!said) return []
    return curvesMeant(said.curve, request)
      .refs.filter((ref) => ref.order <= 2)
      .map((ref) => {
        const own = request.curves.find((c) => c.name === ref.curve)
        return {
          line: {
            ...{ kind: 'family' as const, id: '', ...ref, what: said.what },
            letter: said.letter ?? request.variable.letter,
            from: said.from ?? own?.from ?? '-3',
            to: said.to ?? own?.to ?? '3',
            count: said.count ?? '60',
            ...(said.what === 'secants' || said.what === 'chords'
              ? { width: said.width ?? usualWidth }
              : {}),
          },
          newSliders: [],
        }
      })
  },
}

const capital = (text: string) => text[0]!.toUpperCase() + text.slice(1)
const numberSlot = (
  field: string,
  text: string,
  context: Parameters<typeof placeText>[1],
): Phrase => ({
  ...{ slot: 'number', field },
  ...placeText(text, context),
})

interface Members {
  ok: true
  curve: Extract<ReturnType<LineContext['curve']>, { ok: true }>['curve']
  /** The values of the letter, in order. */
  values: readonly number[]
  mixes: readonly Mix[]
  width: number
  reach: number | null
  opacity: number
}
type Refusal = { ok: false; problem: LineProblem }
const refused = (message: string, fix: string): Refusal => ({
  ok: false,
  problem: { message, fix },
})

function membersOf(line: FamilyLine, context: LineContext): Members | Refusal {
  const found = context.curve(line.curve)
  if (!found.ok) return found
  const { curve } = found
  const numbers: Record<string, number> = {}
  for (const field of ['from', 'to', 'count', 'width', 'reach', 'opacity'] as const) {
    const text = line[field]
    if (text === undefined) continue
    const read = context.number(text)
    if (!read.ok) return read
    numbers[field] = read.value
  }
  const {
    from,
    to,
    count,
    width = 1,
    reach = null,
    opacity = 1,
  } = numbers as {
    from: number
    to: number
    count: number
    width?: number
    reach?: number
    opacity?: number
  }
  const show = (x: number) => formatShort(x, 6)
  if (!Number.isInteger(count) || count < 2 || count > mostMembers) {
    return refused(
      `a family has from 2 to ${mostMembers} members, and not ${show(count)}`,
      `give ${count > mostMembers ? mostMembers : 60}`,
    )
  }
  if (!(from < to)) {
    return refused(
      `${line.letter} runs from ${show(from)} to ${show(to)}`,
      'let it begin below its end',
    )
  }
  if (width === 0)
    return refused('a secant of width 0 goes through one point', 'give another width')
  if (reach !== null && !(reach > 0))
    return refused('a length is a number above 0', 'give 1, or leave it open')
  if (!(opacity > 0 && opacity <= 1)) return refused('an opacity lies between 0 and 1', 'give 0.5')
  const isMembers = line.what === 'members'
  if (isMembers && curve.f.parameters[line.letter] === undefined) {
    return refused(
      `${line.curve} does not hang on ${line.letter}`,
      Object.keys(curve.f.parameters).length > 0
        ? `let ${Object.keys(curve.f.parameters)[0]!} run`
        : `put a slider into the formula of ${line.curve}`,
    )
  }
  if (!isMembers && line.letter !== context.variable.letter) {
    return refused(
      `along ${line.curve} it is ${context.variable.letter} that runs, and not ${line.letter}`,
      `say it for ${context.variable.letter}`,
    )
  }
  const values = Array.from({ length: count }, (_, i) =>
    i === count - 1 ? to : from + ((to - from) * i) / (count - 1),
  )
  const mixes = mixesOf(line, values, context)
  if ('ok' in mixes) return mixes
  return { ok: true, curve, values, mixes, width, reach, opacity }
}

/** A family has so many colours at the most: more cannot be told apart. */
const mostShades = 48
const inks: Readonly<Record<(typeof lineColours)[number], MixedInk>> = {
  ...{ kelp: 'curve1', slate: 'curve2', plum: 'curve3', moss: 'curve4', umber: 'curve5' },
  ...{ rust: 'place', ochre: 'span' },
}

/** The colour of each member, by its place in the row or by expressions of the letter. */
function mixesOf(
  line: FamilyLine,
  values: readonly number[],
  context: LineContext,
): readonly Mix[] | Refusal {
  if (line.hue !== undefined || line.lightness !== undefined) {
    const of = (text: string) => {
      // A slider runs in the place of the axis here: its letter is read as the variable.
      const own = text.replace(
        new RegExp(`(?<![\\p{L}\\d])${line.letter}(?![\\p{L}\\d])`, 'gu'),
        context.variable.letter,
      )
      return context.formula(own)
    }
    const [hue, lightness] = [of(line.hue ?? '20'), of(line.lightness ?? '45')]
    if (!hue.ok) return hue
    if (!lightness.ok) return lightness
    return values.map((v) => ({
      hue: Math.round((((hue.f.value(v) || 0) % 360) + 360) % 360),
      lightness: Math.round(Math.max(0, Math.min(100, lightness.f.value(v) || 0))),
    }))
  }
  const colours = (line.colours ?? usualColours).map((c) => inks[c])
  const shades = Math.min(mostShades, values.length)
  return values.map((_, i) => {
    const share = Math.round((i / (values.length - 1)) * (shades - 1)) / (shades - 1)
    if (colours.length === 1) return { between: [colours[0]!, colours[0]!], share: 0 }
    const way = share * (colours.length - 1)
    const k = Math.min(colours.length - 2, Math.floor(way))
    return { between: [colours[k]!, colours[k + 1]!], share: way - k }
  })
}

function told(line: FamilyLine, members: Members, context: LineContext): LineResult {
  const { curve, values, mixes, opacity } = members
  const lane = { curve: line.curve, order: line.order }
  const common = { layer: 'insides' as const, lane, opacity }
  const { letter } = context.variable
  if (line.what === 'members') {
    const { tree, parameters } = curve.derivative(line.order).f
    const own = values.map((v, i) => ({ v, mix: mixes[i]! }))
    const valued = own.filter(({ v }) => {
      const f = compileTree(withValues(tree, { ...parameters, [line.letter]: v }), {
        variable: letter,
      })
      return samplePlaces(curve.from, curve.to).some((x) => Number.isFinite(f.value(x)))
    })
    if (valued.length === 0) return failed(noValues(line, context))
    return {
      ...emptyResult,
      readouts: [countOf(valued.length, values.length)],
      marks: valued.map(({ v, mix }, i): Mark => ({
        ...{ ...common, kind: 'graph', id: `member@${i}`, from: curve.from, to: curve.to, mix },
        of: { formula: withValues(tree, { ...parameters, [line.letter]: v }), letter },
      })),
    }
  }
  const lines = straightLines(line, members)
  if (lines.length === 0) return failed(noValues(line, context))
  const envelope = line.envelope ? envelopeOf(line, members, context) : null
  return {
    ...emptyResult,
    readouts: [countOf(lines.length, values.length)],
    marks: [
      {
        ...common,
        kind: 'family',
        id: 'family',
        lines,
        reach: members.reach,
        between: line.what === 'chords',
      },
      ...(envelope && envelope.points.length > 1
        ? [
            {
              ...{ kind: 'path' as const, id: 'envelope', layer: 'marks' as const, lane },
              points: envelope.points,
            },
          ]
        : []),
    ],
    notes: [
      ...(lines.length < values.length
        ? [`${values.length - lines.length} of them have no value or no slope, and are left out.`]
        : []),
      ...(envelope ? [envelope.words] : []),
    ],
  }
}

const countOf = (drawn: number, all: number) => ({
  ...{ id: 'drawn', label: 'drawn', text: drawn === all ? String(all) : `${drawn} of ${all}` },
  value: drawn,
})

const samplePlaces = (from: number, to: number) =>
  Array.from({ length: 9 }, (_, i) => from + ((to - from) * (i + 0.5)) / 9)

function noValues(line: FamilyLine, context: LineContext): LineProblem {
  return {
    message: `no member has a value: ${curveText(line)} is not drawn for ${line.letter} from there`,
    fix: `let ${line.letter} run over where ${line.curve} is drawn, in ${context.variable.letter}`,
  }
}

/** Each line by a point, its slope (infinite where it is upright), and for a chord how far it goes. */
function straightLines(line: FamilyLine, { curve, values, mixes, width }: Members): DrawnLine[] {
  const { f } = curve.derivative(line.order)
  const { from, to } = curve.reach
  const isIn = (x: number) => x >= from && x <= to
  return values.flatMap((x, i): DrawnLine[] => {
    if (!isIn(x)) return []
    const mix = mixes[i]!
    if (line.what === 'tangents' || line.what === 'normals') {
      const [y, slope] = f.derivatives(x, 1) as [number, number]
      if (!Number.isFinite(y) || !Number.isFinite(slope)) return []
      return [
        {
          x,
          y,
          slope: line.what === 'tangents' ? slope : slope === 0 ? Infinity : -1 / slope,
          run: 0,
          mix,
        },
      ]
    }
    if (!isIn(x + width)) return []
    const [y, end] = [f.value(x), f.value(x + width)]
    if (!Number.isFinite(y) || !Number.isFinite(end)) return []
    return [{ x, y, slope: (end - y) / width, run: width, mix }]
  })
}

/** The curve that all of them touch, where it is known, and what is said of it. */
function envelopeOf(
  line: FamilyLine,
  { curve, values, width }: Members,
  context: LineContext,
): { points: readonly EnvelopePoint[]; words: string } {
  const { f } = curve.derivative(line.order)
  const name = curveText(line)
  const [from, to] = [values[0]!, values.at(-1)!]
  const inside: [number, number] = [Math.max(from, curve.reach.from), Math.min(to, curve.reach.to)]
  if (line.what === 'tangents') {
    return {
      points: [],
      words: `Their envelope is ${name} itself: each touches it at its own place.`,
    }
  }
  const key = `envelope ${line.what} ${line.order} ${inside.join(' ')} ${width}`
  const points = context.memo(curve, key, () =>
    line.what === 'normals' ? normalEnvelope(f, ...inside) : chordEnvelope(f, ...inside, width),
  )
  return {
    points,
    words:
      line.what === 'normals'
        ? `Their envelope is where the centres of curvature of ${name} lie.`
        : `Their envelope is drawn where neighbours of them meet.`,
  }
}
