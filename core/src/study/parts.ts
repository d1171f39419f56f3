import type { Statement } from '../statements'
import type { Part } from '../vocabulary/members'
import type { Study } from './schema'

/** What stands in the working from top to bottom: lines, and where a part begins and ends. */
export type Row =
  | { kind: 'line'; key: string; line: Statement; part: Part | null }
  | { kind: 'part'; key: string; part: Part }
  | { kind: 'end'; key: string; part: Part }

const heading = (part: Part): Row => ({ kind: 'part', key: `part:${part.id}`, part })
const foot = (part: Part): Row => ({ kind: 'end', key: `end:${part.id}`, part })

/**
 * The rows of a study. A part without lines stands before the next one that has some, else at the end.
 */
export function rowsOf({ lines, parts }: Pick<Study, 'lines' | 'parts'>): Row[] {
  const rows: Row[] = []
  const byId = new Map(parts.map((part) => [part.id, part]))
  const filled = new Set(lines.map((l) => l.part))
  const waiting = [...parts]
  const empties = () => {
    while (waiting[0] && !filled.has(waiting[0].id)) {
      const part = waiting.shift()!
      rows.push(heading(part), foot(part))
    }
  }
  let open: Part | null = null
  for (const line of lines) {
    const part: Part | null = (line.part && byId.get(line.part)) || null
    if (part !== open) {
      if (open) rows.push(foot(open))
      if (part) {
        empties()
        waiting.splice(waiting.indexOf(part), 1)
        rows.push(heading(part))
      }
      open = part
    }
    rows.push({ kind: 'line', key: line.id, line, part })
  }
  if (open) rows.push(foot(open))
  empties()
  return rows
}

/** The study whose rows these are, parts and lines in this order. */
export function fromRows(study: Study, rows: readonly Row[]): Study {
  const lines: Statement[] = []
  const parts: Part[] = []
  let open: Part | null = null
  for (const row of rows) {
    if (row.kind === 'part') parts.push((open = row.part))
    if (row.kind === 'end') open = null
    if (row.kind === 'line') lines.push(inPart(row.line, open?.id))
  }
  return { ...study, lines, parts }
}

/** A line as one of a part, or of none. */
export function inPart(line: Statement, part: string | undefined): Statement {
  if (line.part === part) return line
  const { part: _, ...plain } = line
  return part === undefined ? plain : { ...plain, part }
}

/** The part that a line put at the end belongs to: the one that the working ends with. */
export function lastPart(study: Pick<Study, 'lines' | 'parts'>): string | undefined {
  const last = rowsOf(study).at(-1)
  return last?.kind === 'end' ? last.part.id : undefined
}

/** Whether the lines of a part are shown; null where there is no such part. */
export const partIsOn =
  (parts: readonly Part[]) =>
  (letter: string, id: string | null): boolean | null =>
    parts.find((part) => (id === null ? part.letter === letter : part.id === id))?.on ?? null

export const letterOfPart =
  (parts: readonly Part[]) =>
  (id: string): string | null =>
    parts.find((part) => part.id === id)?.letter ?? null
