import { z } from 'zod'
import { curveKind, curveLineSchema, type CurveLine } from './curve'
import type { StatementKind } from './kind'
import { rateKind, rateLineSchema, type RateLine } from './rate'
import { tangentKind, tangentLineSchema, type TangentLine } from './tangent'
import { valueKind, valueLineSchema, type ValueLine } from './value'

/** A line of working. A kind is added here, in the schema and in the list, and nowhere else. */
export type Statement = CurveLine | RateLine | TangentLine | ValueLine

export const statementSchema = z.discriminatedUnion('kind', [
  curveLineSchema,
  rateLineSchema,
  tangentLineSchema,
  valueLineSchema,
])

type KindList = { [K in Statement['kind']]: StatementKind<Extract<Statement, { kind: K }>> }

const kinds: KindList = {
  curve: curveKind,
  rate: rateKind,
  tangent: tangentKind,
  value: valueKind,
}

/** The kind of a line, typed so that it takes any line; the line's own tag chose it. */
export const kindOf = (line: Pick<Statement, 'kind'>) =>
  kinds[line.kind] as unknown as StatementKind<Statement>

export const allKinds = Object.values(kinds) as unknown as StatementKind<Statement>[]
