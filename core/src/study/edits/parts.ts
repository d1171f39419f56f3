import { conditionsIn, keptPart, printCondition, readCondition } from '../../statements/condition'
import { mostParts, type Part } from '../../vocabulary/members'
import { fromRows, letterOfPart, rowsOf } from '../parts'
import type { Study } from '../schema'
import { type Edit, replaceLine } from './edit'
import { removeLine } from './lines'

const letters = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ']

/**
 * The first letter that no part has, and that no condition calls one that is gone by: it would seem to
 * be back.
 */
function freeLetter({ parts, lines }: Study): string | null {
  const taken = new Set(parts.map((part) => part.letter))
  for (const { when } of lines) {
    const read = when === undefined ? null : readCondition(when)
    if (!read?.ok) continue
    for (const one of conditionsIn(read.condition)) {
      if (one.kind === 'part' && one.id !== null) taken.add(one.letter)
    }
  }
  return (
    letters.find((letter) => !taken.has(letter)) ??
    letters.find((letter) => !parts.some((part) => part.letter === letter)) ??
    null
  )
}

const freshPart = (parts: readonly Part[]): string => {
  let n = 1
  while (parts.some(({ id }) => id === `part${n}`)) n += 1
  return `part${n}`
}

/** A new part at the end; the lines that are put to the end from now on are its own. */
export const addPart =
  (title: string): Edit =>
  (study) => {
    const letter = freeLetter(study)
    if (letter === null || study.parts.length >= mostParts) return study
    const id = freshPart(study.parts)
    const part = { id, letter, title, on: true, folded: false, onDeck: false }
    return { ...study, parts: [...study.parts, part] }
  }

export const changePart =
  (id: string, change: Partial<Omit<Part, 'id' | 'letter'>>): Edit =>
  (study) => ({
    ...study,
    parts: study.parts.map((part) => (part.id === id ? { ...part, ...change } : part)),
  })

/** Takes a part away: its lines stay where they are, without it, or go as well. */
export const removePart =
  (id: string, lines: 'stay' | 'go'): Edit =>
  (study) => {
    const own = study.lines.filter((line) => line.part === id).map((line) => line.id)
    const kept = lines === 'stay' ? study : own.reduce((now, one) => removeLine(one)(now), study)
    const rows = rowsOf(kept).filter((row) => row.kind === 'line' || row.part.id !== id)
    return fromRows(kept, rows)
  }

/**
 * Puts a row where another one stands: a line into, out of or within parts, a part with all that is
 * under it between others. A part never comes to stand inside another one.
 */
export const moveRow =
  (key: string, over: string): Edit =>
  (study) => {
    const rows = rowsOf(study)
    const from = rows.findIndex((row) => row.key === key)
    const to = rows.findIndex((row) => row.key === over)
    const moved = rows[from]
    if (from < 0 || to < 0 || from === to || !moved || moved.kind === 'end') return study
    if (moved.kind === 'line') {
      const others = rows.filter((row) => row !== moved)
      return fromRows(study, [...others.slice(0, to), moved, ...others.slice(to)])
    }
    const { id } = moved.part
    const end = rows.findIndex((row) => row.kind === 'end' && row.part.id === id)
    if (to > from && to <= end) return study
    const block = rows.slice(from, end + 1)
    const others = [...rows.slice(0, from), ...rows.slice(end + 1)]
    let at = to > end ? to - block.length + 1 : to
    // Within another part it goes to where that one begins, or behind its end.
    const partAt = (i: number) => {
      const row = others[i]
      return row?.kind === 'line' || row?.kind === 'end' ? row.part : null
    }
    while (at > 0 && at < others.length && partAt(at) !== null) at += to > from ? 1 : -1
    return fromRows(study, [...others.slice(0, at), ...block, ...others.slice(at)])
  }

/**
 * The condition under which a line is shown; an empty one is taken away. Parts are kept by their ids,
 * so that one that is called otherwise later stays meant. What cannot be read is kept as typed.
 */
export const setCondition =
  (id: string, text: string): Edit =>
  (study) =>
    replaceLine(study, id, (line) => {
      const { when: _, ...plain } = line
      if (text.trim() === '') return plain
      return { ...plain, when: keptCondition(text, study) }
    })

function keptCondition(text: string, { parts }: Study): string {
  const read = readCondition(text)
  if (!read.ok) return text
  const byLetter = (letter: string) => parts.find((part) => part.letter === letter)?.id ?? null
  return printCondition(read.condition, {
    part: (letter, known) => {
      const id = known ?? byLetter(letter)
      return keptPart((id === null ? null : letterOfPart(parts)(id)) ?? letter, id)
    },
  })
}

/** A condition without what it says of parts that are gone; null where nothing is left of it. */
export function withoutGoneParts(text: string, { parts }: Study): string | null {
  const read = readCondition(text)
  if (!read.ok) return text
  const isGone = (letter: string, id: string | null) =>
    !parts.some((part) => (id === null ? part.letter === letter : part.id === id))
  type Kept = ReturnType<typeof readCondition> & { ok: true }
  const without = (one: Kept['condition']): Kept['condition'] | null => {
    if (one.kind === 'part') return isGone(one.letter, one.id) ? null : one
    if (one.kind === 'not') {
      const of = without(one.of)
      return of && { ...one, of }
    }
    if (one.kind !== 'and' && one.kind !== 'or') return one
    const of = one.of.flatMap((each) => without(each) ?? [])
    return of.length === 0 ? null : of.length === 1 ? of[0]! : { ...one, of }
  }
  const left = without(read.condition)
  return left && printCondition(left, { part: keptPart })
}
