import { z } from 'zod'
import { isFreeWord } from '../language/tokens'

/** A letter, Latin or Greek, with an optional subscript: q, θ, n₂. */
export const nameSchema = z
  .string()
  .regex(/^[A-Za-zα-ωΑ-Ω](?:[₀-₉]{1,3}|_[A-Za-z])?$/, 'a name is one letter, such as q or n₂')
  .refine((name) => name !== 'e' && name !== 'π', 'e and π are taken')
/** A letter, or a word of up to 20 letters that means nothing else in a formula: time, speed. */
export const sliderNameSchema = z.union([
  nameSchema,
  z
    .string()
    .regex(/^[A-Za-z]{2,20}$/, 'a name is a letter or a word of up to 20 letters')
    .refine(isFreeWord, 'that word means something in a formula'),
])
export const formulaTextSchema = z.string().max(100_000)
/** A value on the axis as typed: 2, a, a + h. */
export const placeTextSchema = z.string().min(1).max(400)
export const unitSchema = z.string().trim().max(30)
export const idSchema = z.string().min(1).max(40)
const finite = z.number().finite()

export const manners = ['there and back', 'round again', 'once', 'in equal steps'] as const
export type Manner = (typeof manners)[number]

export const motionSchema = z.strictObject({
  /** Whether the transport moves this slider. */
  moves: z.boolean(),
  manner: z.enum(manners),
  /** Seconds from one bound to the other. */
  pace: finite.min(0.1).max(3600),
  /** In equal steps: how many, and how long it rests after each. */
  stops: z.int().min(1).max(1000).default(20),
  rest: finite.min(0.05).max(60).default(0.5),
  /** Whether it rests a while at zeros and turning points on its way. */
  pauses: z.boolean().default(false),
  /** Seconds of its first pass, where that is slower. */
  firstPass: finite.min(0.1).max(3600).optional(),
  /** Its turn, 1 unless it is said: sliders of one move together, those of the next when they have ended. */
  turn: z.int().min(1).max(20).optional(),
  /** The condition at which it stops. */
  stop: placeTextSchema.optional(),
})
export type Motion = z.infer<typeof motionSchema>
export const usualMotion: Motion = {
  moves: false,
  manner: 'there and back',
  pace: 8,
  stops: 20,
  rest: 0.5,
  pauses: false,
}

export const sliderSchema = z
  .strictObject({
    name: sliderNameSchema,
    value: finite,
    from: finite,
    to: finite,
    step: finite.positive(),
    /** Even steps along the track, or equal factors: fine at its beginning, coarse at its end. */
    scale: z.enum(['even', 'growing']).default('even'),
    /** Set where the slider stands for a place and carries a flag on the ruler. */
    place: z.boolean(),
    motion: motionSchema.default(usualMotion),
  })
  .refine((s) => s.from < s.to, { message: 'from must lie below to', path: ['from'] })
export type Slider = z.infer<typeof sliderSchema>

export const variableSchema = z.strictObject({
  letter: nameSchema,
  /** What it stands for, such as time. */
  name: z.string().trim().max(40),
  unit: unitSchema,
})
export type Variable = z.infer<typeof variableSchema>

export const lineColours = ['kelp', 'slate', 'plum', 'moss', 'umber', 'rust', 'ochre'] as const
export const lineDashes = ['usual', 'solid', 'dashed', 'dotted'] as const
/** What a point can be drawn as. */
export const markerShapes = [
  'diamond',
  'disc',
  'ring',
  'square',
  'triangle',
  'cross',
  'none',
] as const
export type MarkerShape = (typeof markerShapes)[number]
/** How a line of working is drawn, where someone wants it otherwise than usual. */
export const lineLookSchema = z.strictObject({
  colour: z.enum(lineColours).optional(),
  dash: z.enum(lineDashes).optional(),
  /** In pixels. */
  width: finite.min(0.5).max(8).optional(),
  label: z.string().max(80).optional(),
  /** What its points are drawn as, and how wide, in pixels. */
  marker: z.enum(markerShapes).optional(),
  markerWidth: finite.min(2).max(160).optional(),
  /** How large the words of a note are set, in pixels. */
  type: finite.min(8).max(96).optional(),
  /** Of a short line, from end to end, in pixels. */
  length: finite.min(10).max(4000).optional(),
  /** Labels of its points that someone has moved, in pixels from the point, or hidden. */
  moved: z.record(z.string().max(40), z.tuple([finite, finite])).optional(),
  without: z.array(z.string().max(40)).max(500).optional(),
  /** Worked out, and not drawn. */
  hidden: z.boolean().optional(),
})
export type LineLook = z.infer<typeof lineLookSchema>

export const spanSchema = z.strictObject({ from: placeTextSchema, to: placeTextSchema })
/** A stretch of an axis, or of heights. */
export const windowSchema = z
  .tuple([z.number().finite(), z.number().finite()])
  .refine(([from, to]) => from < to, 'from must lie below to')
export type SpanText = z.infer<typeof spanSchema>

/** What every line has besides what its kind says. */
export const commonMembers = {
  id: idSchema,
  look: lineLookSchema.optional(),
  /** The condition under which it is shown, as typed; parts stand in it with their ids. */
  when: placeTextSchema.optional(),
  /** The part it belongs to. */
  part: idSchema.optional(),
}

export const mostParts = 26
const letterSchema = z.string().regex(/^[A-Z]{1,2}$/, 'a part is called by a letter')
/** A heading with the lines under it, which are switched on and off together. */
export const partSchema = z.strictObject({
  id: idSchema,
  letter: letterSchema,
  title: z.string().trim().max(120),
  on: z.boolean().default(true),
  folded: z.boolean().default(false),
  /** Its switch stands on the deck as well. */
  onDeck: z.boolean().default(false),
})
export type Part = z.infer<typeof partSchema>

export const laneSchema = z.strictObject({
  kind: z.literal('lane'),
  id: idSchema,
  curve: nameSchema,
  /** -1 for the area from the beginning of the span. */
  order: z.int().min(-1).max(3),
  /** Other curves and derivatives drawn in the same lane. */
  overlays: z
    .array(z.strictObject({ curve: nameSchema, order: z.int().min(-1).max(3) }))
    .max(10)
    .default([]),
  /** Hidden from the learner, who guesses first. */
  covered: z.boolean().default(false),
  /** What is asked for on a covered lane, where it is not left open. */
  asks: z.enum(['signs', 'graph']).optional(),
  /** A stretch that is drawn once more in a corner, at its own scale. */
  inset: z
    .tuple([finite, finite])
    .refine(([from, to]) => from < to, 'from must lie below to')
    .nullable()
    .optional(),
  /** The vertical frame someone has set; null while it follows the curve. */
  frame: z.tuple([finite, finite]).nullable(),
  /** One unit is as long upwards as it is across. */
  equalScale: z.boolean().default(false),
  /** How much of the height it gets beside the other lanes; null while nobody has set it. */
  share: finite.min(0.01).max(100).nullable().default(null),
})
export type Lane = z.infer<typeof laneSchema>
/** What stands in the picture: lanes, until there is another kind of view. */
export const viewSchema = z.discriminatedUnion('kind', [laneSchema])

/** Signs that a learner has marked on a stretch of the axis, before the graph is seen. */
export const signGuessSchema = z
  .strictObject({
    from: finite,
    to: finite,
    /** Where the sign is thought to change, in order. */
    cuts: z.array(finite).max(200),
    /** One for each stretch between neighbouring cuts; null where nothing is marked yet. */
    signs: z.array(z.union([z.literal(1), z.literal(-1), z.null()])).max(201),
  })
  .refine((s) => s.signs.length === s.cuts.length + 1, 'each stretch between cuts has one sign')
export type SignGuess = Readonly<z.infer<typeof signGuessSchema>>

/** More points of one drawing than this are thinned. */
export const mostDrawnPoints = 1000
const drawnSchema = z.array(z.tuple([finite, finite])).max(mostDrawnPoints)
export const mostAttempts = 20
/** An answer that was put aside for another try. */
export const attemptSchema = z.strictObject({
  lane: idSchema,
  guess: drawnSchema.optional(),
  signs: signGuessSchema.optional(),
})
export type Attempt = z.infer<typeof attemptSchema>
const answered = {
  /** Graphs drawn by hand on covered lanes, in the lanes' own coordinates, from left to right. */
  guesses: z.record(idSchema, drawnSchema),
  signs: z.record(idSchema, signGuessSchema),
  earlier: z.array(attemptSchema).max(mostAttempts).default([]),
}
/** What learners have answered, by the lane they were asked on; in a step by its id. */
export const answersSchema = z.strictObject({
  ...answered,
  steps: z.record(idSchema, z.strictObject(answered)).default({}),
})
export type Answers = z.infer<typeof answersSchema>
export const noAnswers: Answers = { guesses: {}, signs: {}, earlier: [], steps: {} }

export const mostSteps = 100
/** A line drawn by hand on a picture, in shares of its width and height. */
export const strokeSchema = z.array(z.tuple([finite, finite])).max(mostDrawnPoints)
/** A state of the study kept under a title; what it speaks of may be gone meanwhile. */
/** How the surfaces of a study are looked at: all of them stand in one space. */
export const spaceSchema = z.strictObject({
  /** Where the viewer stands, in degrees: from the first axis towards the second, and up from the ground. */
  azimuth: finite.min(-360).max(360),
  elevation: finite.min(-90).max(90),
  perspective: z.boolean(),
  /** One unit is as long along every axis. */
  equalScale: z.boolean(),
  levels: z.boolean(),
  /** How much is seen through the surfaces, from 0 to 0.9. */
  clear: finite.min(0).max(0.9),
  /** The heights someone has set; null while they follow the surfaces. */
  heights: windowSchema.nullable(),
})
export type SpaceView = z.infer<typeof spaceSchema>
export const usualSpace: SpaceView = {
  azimuth: 305,
  elevation: 28,
  perspective: false,
  equalScale: false,
  levels: false,
  clear: 0,
  heights: null,
}

export const stepSchema = z.strictObject({
  id: idSchema,
  title: z.string().trim().max(120),
  /** Seen under the title while the step is presented. */
  question: z.string().max(600).default(''),
  /** For the speaker alone. */
  words: z.string().max(4000).default(''),
  values: z.record(sliderNameSchema, finite),
  frame: windowSchema.nullable(),
  lanes: z.array(z.discriminatedUnion('kind', [laneSchema])).max(20),
  /** Which parts are on; the letter says which part it was, where that is gone. */
  parts: z.array(z.strictObject({ id: idSchema, letter: letterSchema, on: z.boolean() })),
  /** What plays when the step is come to, each with its motion. */
  plays: z.array(z.strictObject({ slider: sliderNameSchema, motion: motionSchema })).max(20),
  /** Where places have been, by the lines of their trails. */
  trails: z.record(idSchema, z.array(z.array(finite).max(4000)).max(400)).default({}),
  /** What was drawn on the picture by hand and is to stay. */
  drawn: z.array(strokeSchema).max(200).default([]),
  /** How the surfaces are looked at; left out where the step does not say it. */
  space: spaceSchema.optional(),
})
export type Step = z.infer<typeof stepSchema>

export const looks = ['paper', 'night', 'chalk'] as const
export const displaySchema = z.strictObject({
  look: z.enum(looks),
  grid: z.boolean(),
  axes: z.boolean(),
  /** Whether numbers stand at the ticks. */
  numbers: z.boolean().default(true),
  /** Whether the study's title stands on its picture. */
  title: z.boolean().default(false),
  /** What the ticks of the axis count in. */
  ticks: z.enum(['numbers', 'pi']),
  /** How derivatives are typeset: q′ or dq/dt. */
  notation: z.enum(['primes', 'ratios']),
  /** Whether single keys are shortcuts. */
  keys: z.boolean(),
})
export type Display = z.infer<typeof displaySchema>
export const usualDisplay: Display = {
  look: 'paper',
  grid: true,
  axes: true,
  numbers: true,
  title: false,
  ticks: 'numbers',
  notation: 'primes',
  keys: true,
}
