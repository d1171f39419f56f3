import { z } from 'zod'
import type { SpanText } from '../vocabulary/members'
import { accumulateKind } from './accumulate'
import { areaKind } from './area/area'
import { averageKind } from './average'
import { averageRateKind } from './averageRate'
import { betweenKind } from './between'
import { concludeKind } from './conclude/conclude'
import { keptPart, printCondition, readCondition } from './condition'
import type { StatementKind } from './contract'
import { curveKind } from './curve'
import { distanceKind } from './distance'
import { familyKind } from './family/family'
import { featuresKind } from './features/features'
import { fitKind } from './fit'
import { givenKind } from './given'
import { continuityKind } from './continuity'
import { limitKind } from './limit/limit'
import { markerKind } from './marker'
import { measureKind } from './measure'
import { normalKind } from './normal'
import { noteKind } from './note'
import { rateKind } from './rate'
import { readingsKind } from './readings'
import { secantKind } from './secant'
import { spansOf, textsOf, renamed } from './shared/uses'
import { searchKind } from './search/search'
import { criticalKind } from './surface/critical'
import { directionalKind } from './surface/directional'
import { planeKind } from './surface/plane'
import { polynomialKind } from './surface/polynomial'
import { sectionKind } from './surface/section'
import { surfaceKind } from './surface/surface'
import { seriesIntegralKind } from './series/integral'
import { taylorKind } from './series/taylor'
import { signsKind } from './signs/signs'
import { theoremKind } from './theorem/theorem'
import { tableKind } from './table'
import { tangentKind } from './tangent'
import { tangentsKind } from './tangents'
import { trailKind } from './trail'
import { valueKind } from './value'
import { whereKind } from './where/where'

/**
 * Every kind of line, in the order in which their sentences are offered. A kind is added here and
 * nowhere else: the union, the schema and all that asks for a kind are derived from this list.
 */
const kinds = [
  curveKind,
  givenKind,
  readingsKind,
  rateKind,
  tangentKind,
  valueKind,
  secantKind,
  averageRateKind,
  whereKind,
  tableKind,
  fitKind,
  normalKind,
  tangentsKind,
  areaKind,
  betweenKind,
  averageKind,
  measureKind,
  accumulateKind,
  featuresKind,
  concludeKind,
  signsKind,
  distanceKind,
  searchKind,
  taylorKind,
  seriesIntegralKind,
  familyKind,
  limitKind,
  continuityKind,
  theoremKind,
  markerKind,
  noteKind,
  trailKind,
  surfaceKind,
  planeKind,
  sectionKind,
  criticalKind,
  directionalKind,
  polynomialKind,
] as const

type LineOf<K> = K extends StatementKind<infer L> ? L : never
/** A line of working. */
export type Statement = LineOf<(typeof kinds)[number]>

/** The kinds, typed so that each takes any line; the line's own tag chooses it. */
export const allKinds = kinds as unknown as readonly StatementKind<Statement>[]
const kindsByName = new Map(allKinds.map((kind) => [kind.kind, kind]))
export const kindOf = (line: Pick<Statement, 'kind'>): StatementKind<Statement> =>
  kindsByName.get(line.kind)!

type Schemas = Parameters<typeof z.discriminatedUnion>[1]
export const statementSchema = z.discriminatedUnion(
  'kind',
  allKinds.map((kind) => kind.schema) as unknown as Schemas,
) as unknown as z.ZodType<Statement>

/** A line that brings a curve with a name of its own. */
export type CurveMaker = Extract<Statement, { name: string }>
export const isCurveMaker = (line: Statement): line is CurveMaker =>
  kindOf(line).curve !== undefined

/** Whether a curve is known by a graph of the study as its derivative of an order. */
export function isGivenBy(line: CurveMaker, graph: string, order: number): boolean {
  const given = kindOf(line).curve?.givenBy?.(line)
  return given?.graph === graph && given.order === order
}

/** The orders whose lanes open with a curve. */
export const lanesOpened = (line: CurveMaker): readonly number[] =>
  kindOf(line).curve?.opens?.(line) ?? [0]

/** A line whose curve is given by a formula that is typed. */
export type FormulaLine = Extract<CurveMaker, { formula: string }>
export const isFormulaLine = (line: Statement): line is FormulaLine =>
  isCurveMaker(line) && kindOf(line).uses.formulas !== undefined

/** Whether the curve of a line is given by readings, so that nothing is known between them. */
export const isMeasured = (line: Statement): boolean => kindOf(line).curve?.measured === true

/** A line that brings a surface, with its name; null for one that brings none. */
export function surfaceOf(line: Statement): SurfaceMade | null {
  const { surface, uses } = kindOf(line)
  const name = textsOf(line, uses.surface ? [uses.surface] : [])[0]?.text
  if (!surface || name === undefined) return null
  return { name, letters: surface.letters(line), sides: surface.sides(line) }
}
interface SurfaceMade {
  name: string
  letters: readonly [string, string]
  sides: readonly [SpanText, SpanText]
}

/** The names that lines bring: of curves and of surfaces. */
export const allNames = (lines: readonly Statement[]): string[] =>
  lines.flatMap((line) => (isCurveMaker(line) ? [line.name] : (surfaceOf(line)?.name ?? [])))

/** A line that brings a surface by a formula that is typed. */
export type SurfaceMaker = Extract<Statement, { surface: string; formula: string }>
export const isSurfaceMaker = (line: Statement): line is SurfaceMaker =>
  kindOf(line).surface !== undefined

/** The members of a line that hold places, with what stands there. */
export const placeMembers = (line: Statement) => textsOf(line, kindOf(line).uses.places)

/** The point by which a line is dragged, and the member that holds its height; null where it has none. */
export function pointOf(line: Statement) {
  const { point, places = [] } = kindOf(line).uses
  if (!point) return null
  const members = line as unknown as Record<string, unknown>
  const height = members[point.height]
  const grid = point.grid === undefined ? null : members[point.grid]
  return {
    place: String(members[point.place]),
    placeMember: point.place as string,
    /** Its place is one on the ruler, with a flag. */
    onRuler: (places as readonly string[]).includes(point.place),
    height: typeof height === 'string' ? height : null,
    heightMember: point.height as string,
    grid: typeof grid === 'number' ? grid : null,
  }
}

/** The words of a line with live values in them, and the member that holds them; null where it has none. */
export const wordsOf = (line: Statement) => textsOf(line, kindOf(line).uses.words)[0] ?? null

/** The curves a line is about, by the letters that stand in it. */
export const curvesOfLine = (line: Statement): string[] =>
  textsOf(line, kindOf(line).uses.curves).map(({ text }) => text)

/** The spans a line hangs on, each with the member that holds it. */
export function spanMembers(line: Statement): { field: string; span: SpanText }[] {
  const { spans = [] } = kindOf(line).uses
  return spans.flatMap((field) => spansOf(line, [field]).map((span) => ({ field, span })))
}

/** A line with other names for curves and sliders. */
export function renameLine(line: Statement, names: (text: string) => string): Statement {
  const next = renamed(line, kindOf(line).uses, names)
  if (next.when === undefined) return next
  const read = readCondition(next.when)
  // What cannot be read as a condition is still looked through for names.
  const when = read.ok
    ? printCondition(read.condition, { names, part: keptPart })
    : names(next.when)
  return when === next.when ? next : { ...next, when }
}
