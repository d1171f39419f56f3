import { isRecord, type Json } from './json'

/** "3.label": in format 1 a label was known by the position of its mark. */
const byPosition = /^(\d+)\.(?:label|words)$/

/** What format 2 calls a mark by its position, until it is called by its name. */
const named = (label: string) => label.replace(byPosition, '#$1')

function lookOf(look: Json): Json {
  if (!isRecord(look)) return look
  const { moved, without } = look
  return {
    ...look,
    ...(isRecord(moved)
      ? { moved: Object.fromEntries(Object.entries(moved).map(([k, v]) => [named(k), v])) }
      : {}),
    ...(Array.isArray(without)
      ? { without: without.map((label) => (typeof label === 'string' ? named(label) : label)) }
      : {}),
  }
}

const each = (all: Json, change: (one: { [member: string]: Json }) => Json): Json =>
  Array.isArray(all) ? all.map((one) => (isRecord(one) ? change(one) : one)) : all

/**
 * Format 1 to 2: lanes are one kind of view, labels are kept by the name of their mark, and what
 * learners answer is part of the study. What does not look like a study of format 1 is left as it is
 * for the schema to refuse.
 */
export function fromFormat1(study: { [member: string]: Json }): { [member: string]: Json } {
  return {
    ...study,
    format: 2,
    lanes: each(study.lanes ?? null, (lane) => ({ kind: 'lane', ...lane })),
    lines: each(study.lines ?? null, (line) =>
      line.look === undefined ? line : { ...line, look: lookOf(line.look) },
    ),
  }
}
