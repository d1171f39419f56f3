import { z } from 'zod'
import { accumulateKind, type AccumulateLine, accumulateLineSchema } from './accumulate'
import { areaKind, type AreaLine, areaLineSchema } from './area'
import { averageKind, type AverageLine, averageLineSchema } from './average'
import { betweenKind, type BetweenLine, betweenLineSchema } from './between'
import { averageRateKind, type AverageRateLine, averageRateLineSchema } from './averageRate'
import { concludeKind, type ConcludeLine, concludeLineSchema } from './conclude'
import { curveKind, curveLineSchema, type CurveLine } from './curve'
import { distanceKind, type DistanceLine, distanceLineSchema } from './distance'
import { featuresKind, type FeaturesLine, featuresLineSchema } from './features'
import { fitKind, type FitLine, fitLineSchema } from './fit'
import type { StatementKind } from './kind'
import { normalKind, type NormalLine, normalLineSchema } from './normal'
import { rateKind, rateLineSchema, type RateLine } from './rate'
import { readingsKind, type ReadingsLine, readingsLineSchema } from './readings'
import { secantKind, type SecantLine, secantLineSchema } from './secant'
import { signsKind, type SignsLine, signsLineSchema } from './signs'
import { tableKind, type TableLine, tableLineSchema } from './table'
import { tangentKind, tangentLineSchema, type TangentLine } from './tangent'
import { valueKind, valueLineSchema, type ValueLine } from './value'
import { whereKind, type WhereLine, whereLineSchema } from './where'

/** A line of working. A kind is added here, in the schema and in the list, and nowhere else. */
export type Statement =
  | CurveLine
  | ReadingsLine
  | AccumulateLine
  | RateLine
  | TangentLine
  | ValueLine
  | SecantLine
  | NormalLine
  | AverageRateLine
  | WhereLine
  | TableLine
  | FitLine
  | AreaLine
  | BetweenLine
  | AverageLine
  | FeaturesLine
  | ConcludeLine
  | SignsLine
  | DistanceLine

export const statementSchema = z.discriminatedUnion('kind', [
  curveLineSchema,
  readingsLineSchema,
  accumulateLineSchema,
  rateLineSchema,
  tangentLineSchema,
  valueLineSchema,
  secantLineSchema,
  normalLineSchema,
  averageRateLineSchema,
  whereLineSchema,
  tableLineSchema,
  fitLineSchema,
  areaLineSchema,
  betweenLineSchema,
  averageLineSchema,
  featuresLineSchema,
  concludeLineSchema,
  signsLineSchema,
  distanceLineSchema,
])

type KindList = { [K in Statement['kind']]: StatementKind<Extract<Statement, { kind: K }>> }

/** In the order in which their sentences are offered. */
const kinds: KindList = {
  curve: curveKind,
  readings: readingsKind,
  rate: rateKind,
  tangent: tangentKind,
  value: valueKind,
  secant: secantKind,
  averageRate: averageRateKind,
  where: whereKind,
  table: tableKind,
  fit: fitKind,
  normal: normalKind,
  area: areaKind,
  between: betweenKind,
  average: averageKind,
  accumulate: accumulateKind,
  features: featuresKind,
  conclude: concludeKind,
  signs: signsKind,
  distance: distanceKind,
}

/** The kind of a line, typed so that it takes any line; the line's own tag chose it. */
export const kindOf = (line: Pick<Statement, 'kind'>) =>
  kinds[line.kind] as unknown as StatementKind<Statement>

export const allKinds = Object.values(kinds) as unknown as StatementKind<Statement>[]

/** A line that brings a curve with a name of its own. */
export type CurveMaker = CurveLine | ReadingsLine | AccumulateLine | DistanceLine
export const isCurveMaker = (line: Statement): line is CurveMaker =>
  line.kind === 'curve' ||
  line.kind === 'readings' ||
  line.kind === 'accumulate' ||
  line.kind === 'distance'
