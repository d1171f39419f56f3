import { z } from 'zod'
import { type SearchMethod, searchMethods } from '../../search/minimize'
import { commonMembers, nameSchema, placeTextSchema, spanSchema } from '../../vocabulary/members'

export const mostStarts = 200

/** Search q for a low point from t = 3 by simplex. */
export const searchLineSchema = z.strictObject({
  kind: z.literal('search'),
  ...commonMembers,
  curve: nameSchema,
  order: z.int().min(0).max(2),
  goal: z.enum(['low', 'high']),
  methods: z.array(z.enum(searchMethods)).min(1).max(searchMethods.length),
  /** Where it begins; for methods that begin at a place. */
  start: placeTextSchema.optional(),
  /** Where it looks; for methods that begin with a stretch. */
  span: spanSchema.optional(),
  /** What was said for methods that are not chosen now. */
  kept: z
    .strictObject({ start: placeTextSchema.optional(), span: spanSchema.optional() })
    .optional(),
  /** The first step of the simplex. */
  step: placeTextSchema.optional(),
  tolerance: placeTextSchema.optional(),
  /** The most evaluations it may make. */
  most: placeTextSchema.optional(),
  /** The fixed rate of the gradient. */
  rate: placeTextSchema.optional(),
  /** Of a population. */
  seed: placeTextSchema.optional(),
  size: placeTextSchema.optional(),
  generations: placeTextSchema.optional(),
  /** The walk is shown up to this probe; all of it where it is not said. */
  probe: placeTextSchema.optional(),
  /** So many starts over the span are looked at as well. */
  starts: z.int().min(2).max(mostStarts).optional(),
})
export type SearchLine = z.infer<typeof searchLineSchema>

export const methodWords: Readonly<Record<SearchMethod, string>> = {
  simplex: 'simplex',
  golden: 'golden section',
  newton: 'Newton',
  gradient: 'gradient',
  population: 'population',
}
/** Methods that begin at a place; the others begin with a stretch. */
export const beginsAtPlace = (method: SearchMethod) =>
  method !== 'golden' && method !== 'population'

export const usualRate = '0.1'

/** The numbers that methods take beside start and span, with what they are where nothing is said. */
export const settings = [
  { field: 'step', words: 'first step', methods: ['simplex'] },
  { field: 'rate', words: 'rate', methods: ['gradient'] },
  { field: 'seed', words: 'seed', methods: ['population'] },
  { field: 'size', words: 'members', methods: ['population'] },
  { field: 'generations', words: 'generations', methods: ['population'] },
  { field: 'tolerance', words: 'tolerance', methods: searchMethods },
  { field: 'most', words: 'evaluations at most', methods: searchMethods },
] as const satisfies readonly {
  field: keyof SearchLine
  words: string
  methods: readonly SearchMethod[]
}[]
export type SettingField = (typeof settings)[number]['field']

/** The settings that the chosen methods take. */
export const settingsOf = (methods: readonly SearchMethod[]) =>
  settings.filter((one) => one.methods.some((m: SearchMethod) => methods.includes(m)))

/**
 * A change of methods, in the order of the list: what only others take is put aside, and comes back when
 * they are chosen again.
 */
export function withMethods(
  { start, span, kept = {}, rate }: SearchLine,
  chosen: readonly SearchMethod[],
): Partial<SearchLine> {
  const methods = searchMethods.filter((m) => chosen.includes(m))
  const [atPlace, overSpan] = [methods.some(beginsAtPlace), methods.some((m) => !beginsAtPlace(m))]
  const here = { start: start ?? kept.start, span: span ?? kept.span }
  const aside = {
    ...(!atPlace && here.start !== undefined ? { start: here.start } : {}),
    ...(!overSpan && here.span !== undefined ? { span: here.span } : {}),
  }
  return {
    methods,
    start: atPlace ? here.start : undefined,
    span: overSpan ? here.span : undefined,
    kept: Object.keys(aside).length > 0 ? aside : undefined,
    rate: methods.includes('gradient') ? (rate ?? usualRate) : rate,
  }
}
