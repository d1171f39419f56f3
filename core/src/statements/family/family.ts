import { compileTree } from '../../evaluate/compile'
import { withValues } from '../../evaluate/withValues'
import {
  emptyResult,
  failed,
  type FamilyLine as DrawnLine,
  type LineContext,
  type LineProblem,
  type LineResult,
  type Mark,
  type StatementKind,
} from '../contract'
import { curveSlot, curveText, curvesMeant, numberSlot } from '../shared/slots'
import { chordEnvelope, type EnvelopePoint, normalEnvelope } from './envelope'
import { type FamilyLine, familyLineSchema, usualColours } from './line'
import { type Members, membersOf } from './members'
import { familyClaims, familySaid } from './said'

const membersWords = {
  tangents: 'Tangents to ',
  normals: 'Normals to ',
  secants: 'Secants to ',
  chords: 'Chords of ',
  members: '',
} as const

const schemes: readonly (readonly [text: string, colours: NonNullable<FamilyLine['colours']>])[] = [
  ['one colour', ['rust']],
  ['kelp to rust', ['kelp', 'rust']],
  ['slate to ochre', ['slate', 'ochre']],
  ['plum, ochre, kelp', ['plum', 'ochre', 'kelp']],
]
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
  const isAt = line.what === 'tangents' || line.what === 'normals'
  // All at once: a family moves with every frame of a drag.
  const ys = f.values(values)
  const further = isAt
    ? curve.derivative(line.order + 1).f.values(values)
    : f.values(values.map((x) => x + width))
  const lines: DrawnLine[] = []
  values.forEach((x, i) => {
    const [y, other, mix] = [ys[i]!, further[i]!, mixes[i]!]
    const end = isAt ? x : x + width
    const isIn = Math.min(x, end) >= from && Math.max(x, end) <= to
    if (!isIn || !Number.isFinite(y) || !Number.isFinite(other)) return
    if (!isAt) lines.push({ x, y, slope: (other - y) / width, run: width, mix })
    else {
      const across = other === 0 ? Infinity : -1 / other
      lines.push({ x, y, slope: line.what === 'tangents' ? other : across, run: 0, mix })
    }
  })
  return lines
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
