import { z } from 'zod'
import { fromFormat1 } from './fromFormat1'
import { isRecord, type Json } from './json'
import { presentFormat } from './format'
import { presentSchema, type Study } from './study'

export { presentFormat } from './format'
export { presentSchema, type Study, type StudyInput } from './study'

type Migration = (study: { [member: string]: Json }) => { [member: string]: Json }
/** From each format to the next. */
const migrations: Readonly<Record<number, Migration>> = { 1: fromFormat1 }

const newer = 'this study was made with a newer version'

/** A study of an older format as one of the present; what is newer is told. */
function upToDate(input: unknown, context: z.core.$RefinementCtx): unknown {
  if (!isRecord(input)) return input
  let study = input
  for (;;) {
    const { format } = study
    if (format === presentFormat) return study
    if (typeof format === 'number' && format > presentFormat) {
      const message = `${newer}: it has format ${format}, and this one reads up to ${presentFormat}`
      context.issues.push({ code: 'custom', message, path: ['format'], input: format })
      return z.NEVER
    }
    const migrate = typeof format === 'number' ? migrations[format] : undefined
    if (!migrate) return study
    study = migrate(study)
  }
}

/**
 * A study of any format up to the present one, brought up to that. Members nobody knows are refused
 * by name, never dropped: another version may have written them.
 */
export const studySchema: z.ZodType<Study> = z.preprocess(upToDate, presentSchema)

const pathOf = (path: readonly PropertyKey[]) => path.map(String).join('.')

/** Each problem of a body that is not a study, with the path to it. */
export function studyProblems(error: z.ZodError): { path: string; message: string }[] {
  return error.issues.flatMap((issue) => {
    const path = pathOf(issue.path) || '(whole)'
    if (issue.code === 'unrecognized_keys') {
      return issue.keys.map((key) => ({
        path: pathOf([...issue.path, key]),
        message: `${newer}: nothing here knows “${key}”`,
      }))
    }
    if (issue.code === 'invalid_union' && issue.path.at(-1) === 'kind') {
      return [{ path, message: `${newer}: nothing here knows this kind` }]
    }
    return [{ path, message: issue.message }]
  })
}

/** Whether problems come from a newer version rather than from damage. */
export const isNewer = (problems: readonly { message: string }[]) =>
  problems.length > 0 && problems.every(({ message }) => message.startsWith(newer))

export type StudyRead =
  { ok: true; study: Study } | { ok: false; problems: { path: string; message: string }[] }

/** The study in a file; older formats are brought up to the present one. Never throws. */
export function readStudyFile(text: string): StudyRead {
  let input: unknown
  try {
    input = JSON.parse(text)
  } catch (error) {
    const message = `this is not JSON: ${error instanceof Error ? error.message : String(error)}`
    return { ok: false, problems: [{ path: '(whole)', message }] }
  }
  const read = studySchema.safeParse(input)
  return read.success
    ? { ok: true, study: read.data }
    : { ok: false, problems: studyProblems(read.error) }
}

/** A study as the text of a file, which `readStudyFile` reads back to the same study. */
export const writeStudyFile = (study: Study): string => `${JSON.stringify(study, null, 2)}\n`
