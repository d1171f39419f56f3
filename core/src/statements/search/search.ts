import { formatNumber, formatShort } from '../../vocabulary/numbers'
import { unitOfDerivative } from '../../vocabulary/units'
import type { SearchMethod } from '../../search/minimize'
import type { Found } from '../../search/walk'
import {
  emptyResult,
  failed,
  type LineContext,
  type LineResult,
  type Mark,
  type Phrase,
  type StatementKind,
} from '../contract'
import { numberReadout } from '../shared/lines'
import { listed } from '../shared/said'
import {
  curvesMeant,
  curveSlot,
  curveText,
  likelyPlace,
  likelySpan,
  placeSaid,
  placeSlot,
  numberSlot,
  spanSlot,
  wordsAfter,
} from '../shared/slots'
import { longOver, spanFacts } from '../shared/spanFacts'
import {
  beginsAtPlace,
  methodWords,
  type SearchLine,
  searchLineSchema,
  settings,
  settingsOf,
  usualRate,
  withMethods,
} from './line'
import { type Asked, askedOf, runOf } from './run'
import { searchSaid } from './said'
import { bestSoFar, probesTable, type Run, searchesTable } from './tables'
import { basinsOf, basinsTold, startsMark } from './starts'
import { besideProven, failureOf, leftValley, whyStopped } from './told'
import { searchMethods } from '../../search/minimize'

const goalWords = { low: 'a low point', high: 'a high point' } as const
const usualStarts = 40
/** The same one each time: who looks at it need not look again. */
const probeRole = { words: 'probe', marks: [] }

export const searchKind: StatementKind<SearchLine> = {
  kind: 'search',
  schema: searchLineSchema,
  topic: 'extremes',
  said: ['search', 'search for'],
  uses: {
    curves: ['curve'],
    places: ['start'],
    spans: ['span'],
    numbers: [...settings.map(({ field }) => field), 'probe'],
  },
  drawn: { pointWidth: 10 },

  sentence: (line, context) => [
    { text: 'Search ' },
    curveSlot(line, context),
    { text: ' for ' },
    {
      ...{ slot: 'choice', field: 'goal', text: goalWords[line.goal], source: line.goal },
      latex: `\\text{${goalWords[line.goal]}}`,
      choices: (['low', 'high'] as const).map((value) => ({ value, text: goalWords[value] })),
    },
    ...(line.start === undefined
      ? []
      : [{ text: ' from ' }, { ...placeSlot(line.start, context), field: 'start' } as Phrase]),
    ...(line.span === undefined ? [] : [{ text: ' on ' }, spanSlot(line.span, context)]),
    { text: ' by ' },
    methodSlot(line),
    ...settings.flatMap(({ field, words }): Phrase[] =>
      line[field] === undefined
        ? []
        : [{ text: `, ${words} ` }, numberSlot(field, line[field], context)],
    ),
  ],

  choose(line, field, text) {
    if (field !== 'methods') return null
    const method = searchMethods.find((m) => m === text)
    return method ? { change: withMethods(line, [method]) } : null
  },

  actions: (line) => [
    {
      id: 'methods',
      label: 'Side by side',
      does: 'choose',
      field: 'methods',
      all: searchMethods,
      options: searchMethods.map((value) => {
        const chosen = line.methods.includes(value)
        const next = chosen ? line.methods.filter((m) => m !== value) : [...line.methods, value]
        return {
          ...{ value, text: methodWords[value], chosen, fixed: chosen && next.length === 0 },
          change: next.length > 0 ? withMethods(line, next) : {},
        }
      }),
    },
    {
      id: 'settings',
      label: 'How it searches',
      does: 'numbers',
      fields: settingsOf(line.methods).map(({ field, words }) => ({
        ...{ field, words, text: line[field] ?? '' },
      })),
    },
    {
      ...{ id: 'play', label: 'Play the walk', does: 'follow', field: 'probe', letter: 'k' },
      table: 'Probes',
    },
    ...(line.methods.some(beginsAtPlace)
      ? [
          {
            ...{ id: 'starts', label: 'Many starts', does: 'change' as const },
            change: { starts: line.starts === undefined ? usualStarts : undefined },
            pressed: line.starts !== undefined,
          },
        ]
      : []),
  ],

  sliderRoles: ({ probe }) => (probe === undefined ? {} : { [probe]: probeRole }),

  long: longOver((line, context) => {
    const found = context.curve(line.curve)
    if (!found.ok || !found.curve.formula) return []
    const { curve } = found
    return [{ curve, order: line.order, from: curve.from, to: curve.to }]
  }),

  evaluate(line, context) {
    const asked = askedOf(line, context)
    if (!asked.ok) return failed(asked.problem)
    const runs = line.methods.map((method) => ({
      method,
      found: runOf(method, line, asked, context),
    }))
    const upTo = probeOf(line, runs[0]!.found, context)
    if (typeof upTo !== 'number') return failed(upTo)
    return told(line, asked, runs, upTo, context)
  },

  offers(request) {
    const rest = wordsAfter(request.text, 'search for', 'search')
    if (rest === null || request.text === '') return []
    const said = searchSaid(rest, request.variable.letter)
    if (said.rest !== '') return []
    const { refs } = curvesMeant(said.curve, request)
    const wanted = said.methods.length > 0 ? said.methods : (['simplex'] as const)
    return refs
      .filter((ref) => ref.order <= 2)
      .map((ref) => {
        const { place, sliders } =
          said.start === null ? likelyPlace(request) : placeSaid(said.start, request)
        const line: SearchLine = {
          ...{ kind: 'search', id: '', ...ref, goal: said.goal, methods: ['simplex'] },
          ...{ start: place, span: likelySpan(said.span, request, ref.curve) },
          ...(said.starts === null ? {} : { starts: Math.max(2, said.starts) }),
        }
        const { rate, ...chosen } = withMethods(line, wanted)
        const kept = Object.fromEntries(
          Object.entries({ ...line, ...chosen, ...said.settings }).filter(
            ([, v]) => v !== undefined,
          ),
        ) as SearchLine
        const own = chosen.methods!.includes('gradient')
          ? { rate: said.settings.rate ?? rate ?? usualRate }
          : {}
        const isNeeded = chosen.start !== undefined
        return { line: { ...kept, ...own }, newSliders: isNeeded ? sliders : [] }
      })
  },
}

const methodSlot = ({ methods }: SearchLine): Phrase => {
  const text = listed(methods.map((m) => methodWords[m]))
  return {
    ...{ slot: 'choice', field: 'methods', text, latex: `\\text{${text}}` },
    source: methods.length === 1 ? methods[0]! : 'several',
    choices: [
      ...(methods.length > 1 ? [{ value: 'several', text }] : []),
      ...searchMethods.map((value) => ({ value, text: methodWords[value] })),
    ],
  }
}

/** Up to which probe the walk is shown, or why that cannot be told. */
function probeOf({ probe }: SearchLine, found: Found, context: LineContext) {
  if (probe === undefined) return found.evaluations
  const read = context.number(probe)
  if (!read.ok) return read.problem
  return Math.max(1, Math.min(found.evaluations, Math.round(read.value)))
}

function told(
  line: SearchLine,
  asked: Asked,
  runs: readonly Run[],
  upTo: number,
  context: LineContext,
): LineResult {
  const { curve } = asked
  const { decimals, variable } = context
  const lane = { curve: line.curve, order: line.order }
  const [first] = runs as [Run, ...Run[]]
  const facts = curve.formula ? spanFacts(curve, line.order, curve.from, curve.to, context) : null
  const examination = facts?.examination ?? null
  const teller = { line, asked, context }
  const several = runs.length > 1
  const named = (method: SearchMethod, text: string) =>
    several ? `${capital(methodWords[method])}: ${lower(text)}` : text
  const problems = runs.flatMap(({ method, found }) => {
    const failure = failureOf(method, found, teller)
    return failure ? [{ ...failure, message: named(method, failure.message) }] : []
  })
  const conclusions = runs.flatMap(({ method, found }) => {
    const sentences = [
      ...(examination && Number.isFinite(found.value)
        ? [besideProven(found, examination, teller)]
        : []),
      ...(examination ? [leftValley(method, found, examination, teller)] : []),
    ]
    return sentences.flatMap((text) => (text ? [{ text: named(method, text), at: found.x }] : []))
  })
  const many = basinsOf(line, asked, context)
  const unit = unitOfDerivative(curve.unit, variable.unit, line.order)
  const { found } = first
  const walkMarks = runs.flatMap((run, i) => walkOf(run, i, upTo, several, line, context))
  return {
    ...emptyResult,
    readouts: [
      numberReadout(variable.letter, found.x, variable.unit, decimals),
      numberReadout('value', found.value, unit, decimals),
      count('iterations', found.iterations),
      count('evaluations', found.evaluations),
      ...(line.probe === undefined
        ? []
        : [{ ...count('probe', upTo), text: `${upTo} of ${found.evaluations}` }]),
    ],
    marks: [
      ...walkMarks,
      ...(asked.start !== null && line.start !== undefined
        ? [
            {
              ...{ kind: 'dot' as const, id: 'start', layer: 'points' as const, lane },
              ...{ x: asked.start, y: asked.f.value(asked.start), place: line.start },
            },
          ]
        : []),
      ...(many ? [startsMark(many.starts, lane)] : []),
    ],
    problems,
    notes: [
      ...runs.map((run) => named(run.method, whyStopped(run.method, run.found, teller))),
      ...(curve.formula ? [] : [`${line.curve} has no formula, so nothing about it is proven.`]),
    ],
    conclusions: [
      ...conclusions,
      ...(many ? basinsTold(many.basins, line, examination, context) : []),
    ],
    tables: [
      ...(several ? [searchesTable(runs, examination, line, context)] : []),
      ...runs.map((run) => probesTable(run, several, line, context)),
    ],
    charts: [
      {
        name: 'Best value against evaluations',
        xLabel: 'evaluations',
        yLabel: curveText(line),
        logarithmic: false,
        series: runs.map(({ method, found: one }) => ({
          name: methodWords[method],
          points: bestSoFar(one.log, line.goal).map((value, i) => [i + 1, value] as const),
        })),
        summary: runs
          .map(
            ({ method, found: one }) =>
              `${methodWords[method]}: ${formatNumber(one.value, decimals)} after ${one.evaluations} evaluations`,
          )
          .join('; '),
      },
    ],
    ...(facts && !examination ? { pending: true } : {}),
  }
}

const capital = (text: string) => text[0]!.toUpperCase() + text.slice(1)
const lower = (text: string) =>
  /^[A-Z][a-z]* /.test(text) ? text[0]!.toLowerCase() + text.slice(1) : text

const count = (label: string, value: number) => ({ id: label, label, text: String(value), value })

/** The walk on the picture, and where it ended. */
function walkOf(
  { method, found }: Run,
  index: number,
  upTo: number,
  several: boolean,
  line: SearchLine,
  context: LineContext,
): Mark[] {
  const lane = { curve: line.curve, order: line.order }
  const name = several ? `${method}.` : ''
  const shown = line.probe === undefined ? found.evaluations : Math.min(upTo, found.evaluations)
  const isWhole = shown === found.evaluations
  const place = formatShort(found.x, Math.max(3, context.decimals))
  return [
    {
      ...{ kind: 'walk', id: `${name}walk`, layer: 'marks', lane, index },
      probes: found.log.slice(0, shown),
      isWhole,
    },
    ...(isWhole && Number.isFinite(found.value)
      ? [
          {
            ...{ kind: 'stem' as const, id: `${name}found`, layer: 'marks' as const, lane },
            ...{ x: found.x, y: found.value },
            label: `${several ? `${methodWords[method]} ` : ''}${place}`,
          },
        ]
      : []),
  ]
}
