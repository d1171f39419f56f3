import { z } from 'zod'
import type { Steps } from '../../features/budget'
import { surfaceExtremes } from '../../surfaces/extremes'
import { levelLines } from '../../surfaces/levels'
import { stationaryPoints } from '../../surfaces/stationary'
import { planeSurface, type ZeroCurve } from '../../surfaces/zeroCurve'
import { commonMembers, nameSchema } from '../../vocabulary/members'
import { formatNumber } from '../../vocabulary/numbers'
import {
  emptyResult,
  failed,
  lazyTable,
  type LineContext,
  type LineResult,
  type ResultTable,
  type SpaceMark,
  type StatementKind,
  type SurfaceResult,
} from '../contract'
import {
  because,
  type Found,
  kindWords,
  notesSaid,
  extremesSaid,
  verdictSaid,
} from './criticalWords'
import { surfaceMeant } from './said'
import { ofSurface } from './shared'

/** Critical points of f, with the highest and lowest of its rectangle. */
export const criticalLineSchema = z.strictObject({
  kind: z.literal('critical'),
  ...commonMembers,
  of: nameSchema,
})
export type CriticalLine = z.infer<typeof criticalLineSchema>

/** The outcome of the long work, kept with the surface that it is about. */
interface Known {
  found: Found | null
  work: Steps<Found>
}

const knownOf = (surface: SurfaceResult, context: LineContext): Known =>
  context.memo(surface, 'critical', () => ({ found: null, work: searched(surface) }))

/** Work that was stopped before goes on where it was, and is done once. */
function* answered(known: Known): Steps<Found> {
  while (!known.found) {
    const step = known.work.next()
    if (step.done) known.found = step.value
    else yield step.value
  }
  return known.found
}

function* searched({ f, within, ends }: SurfaceResult): Steps<Found> {
  const points = yield* stationaryPoints(f, within)
  const extremes = yield* surfaceExtremes(f, within, ends, points)
  return { points, extremes }
}

export const criticalKind: StatementKind<CriticalLine> = {
  kind: 'critical',
  schema: criticalLineSchema,
  topic: 'surfaces',
  said: ['critical points of the surface'],
  claims: /^critical\s+points\s+of\s+the\s+surface\b/i,
  uses: { surfaces: ['of'] },
  drawn: { pointWidth: 10 },

  sentence: (line) => [
    { text: 'Critical points' },
    ...(line.of === 'z' ? [{ text: ' of the surface' }] : ofSurface(line.of, 'of')),
  ],

  long: {
    steps(line, context) {
      const found = context.surface(line.of)
      return found.ok ? answered(knownOf(found.surface, context)) : null
    },
    apply(line, outcome, context) {
      const found = context.surface(line.of)
      if (found.ok) knownOf(found.surface, context).found = outcome as Found
    },
  },

  evaluate(line, context) {
    const made = context.surface(line.of)
    if (!made.ok) return failed(made.problem)
    const known = knownOf(made.surface, context)
    context.steps(answered(known))
    if (!known.found) return { ...emptyResult, pending: true }
    return told(made.surface, known.found, context)
  },

  offers(request) {
    const words = /^critical\s+points\s+of\s+the\s+surface\b(.*)$/i.exec(request.text)
    const surface = words && surfaceMeant(`surface${words[1]!}`, request)
    return surface ? [{ line: { kind: 'critical', id: '', of: surface.name } }] : []
  },
}

function told(surface: SurfaceResult, found: Found, context: LineContext): LineResult {
  const { decimals } = context
  const { points, curve } = found.points
  const marks = points.map((p): SpaceMark => {
    const z = surface.f.value(p.x, p.y)
    const label = p.kind === 'open' ? 'critical' : kindWords[p.kind]
    return {
      ...{ kind: 'spot', id: `critical@${p.x.toPrecision(6)} ${p.y.toPrecision(6)}`, held: false },
      ...{ at: [p.x, p.y, z], label },
    }
  })
  const along = curve && curve !== 'everywhere' ? [pathOf(curve, surface)] : []
  return {
    ...emptyResult,
    tables: points.length > 0 ? [tableOf(surface, points, decimals)] : [],
    conclusions: extremesSaid(surface, found, decimals).map((text) => ({ text })),
    notes: notesSaid(surface, found),
    verdict: verdictSaid(surface, found.points, decimals),
    space: [...marks, ...along],
  }
}

/** The curve that critical points fill, on the surface. */
function pathOf({ polynomial }: ZeroCurve, { f, within }: SurfaceResult): SpaceMark {
  const everything = { lo: -Infinity, hi: Infinity }
  const lines = levelLines(planeSurface(polynomial, f.letters), within, [0], everything)
  const points = lines.flatMap(({ pieces }) =>
    Array.from({ length: pieces.length / 4 }, (_, i) => {
      const [x0, y0, x1, y1] = pieces.subarray(i * 4, i * 4 + 4) as unknown as number[]
      const end = (x: number, y: number) => [x, y, f.value(x, y)] as const
      return [end(x0!, y0!), end(x1!, y1!), [NaN, NaN, NaN] as const]
    }).flat(),
  )
  return { kind: 'path', id: 'critical', points }
}

function tableOf(
  { f, name, letters }: SurfaceResult,
  points: Found['points']['points'],
  decimals: number,
): ResultTable {
  const columns = [...letters, name, 'kind', 'because']
  return lazyTable({ name: 'Features', columns, count: points.length, open: true }, () =>
    points.map((p) => {
      const z = f.value(p.x, p.y)
      const cells = [p.x, p.y, z].map((v) => formatNumber(v, decimals))
      return {
        cells: [...cells, kindWords[p.kind], because(p, name, letters, decimals)],
        values: [p.x, p.y, z, null, null],
      }
    }),
  )
}
