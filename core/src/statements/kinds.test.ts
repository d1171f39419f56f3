import type { z } from 'zod'
import { readFileSync } from 'node:fs'
import path from 'node:path'
import {
  actionsOf,
  changeLine,
  createEvaluator,
  createSceneMaker,
  createStudy,
  editSlot,
  offersFor,
  placesOfLine,
  removeLine,
  renameSymbol,
  sentenceText,
  type Statement,
  type Study,
  studySchema,
  topicsOf,
} from '../index'
import { commonMembers } from '../vocabulary/members'
import { allKinds, isCurveMaker, kindOf, spanMembers } from './index'

/** The base of every kind: two curves, a slider each for a place and a count. */
function base(): Study {
  const made = createStudy('q(t) = 6 + 4 sin(0.9t) - 0.3t for 0 <= t <= 10')
  if (!made.ok) throw new Error(made.problems[0]!.message)
  return say(made.study, 'let r(t) = t/2')
}
function say(study: Study, words: string): Study {
  const offer = offersFor(words, study, null)[0]
  if (!offer) throw new Error(`nothing is offered for ${words}`)
  return offer.edit(study)
}
const readings: Statement = {
  kind: 'readings',
  id: 'readings',
  name: 'm',
  unit: '',
  points: [
    [0, 1],
    [1, 3],
    [2, 2],
  ],
}

const aboutSurfaces = ['plane', 'section', 'critical', 'directional', 'polynomial']

/** A study whose last line is of a kind, as someone would come by it. */
function withKind(kind: string, said: readonly string[]): Study {
  if (kind === 'curve') return base()
  if (said.length === 0) return { ...base(), lines: [...base().lines, readings] }
  if (kind === 'surface') return say(base(), 'surface z = x² y + x')
  const ready = aboutSurfaces.includes(kind)
    ? say(base(), 'surface z = x² y + x')
    : kind === 'fit'
      ? say(base(), 'table of q')
      : base()
  if (kind === 'given') return say(base(), whole(kind, said[0]!))
  // "average" may also be the beginning of "average rate".
  const studies = offersFor(said[0]!, ready, null).map(({ edit }) => edit(ready))
  const found = studies.find((study) => lastOf(study).kind === kind)
  if (!found) throw new Error(`${said[0]} does not offer ${kind}`)
  return found
}
/** Kinds that bring a formula want one behind their words. */
const whole = (kind: string, words: string) =>
  ({ curve: `${words} s(t) = t`, given: `${words} s'(t) = t, s(0) = 1` })[kind] ?? words
const lastOf = (study: Study) => study.lines.at(-1)!
const workedOut = (study: Study) => createEvaluator({ patience: Infinity })(study)
const draw = (study: Study) =>
  createSceneMaker()(workedOut(study), {
    width: 800,
    heights: Object.fromEntries(study.lanes.map((l) => [l.id, 200])),
  })
const itemsOf = (study: Study, id: string) =>
  draw(study).lanes.flatMap((lane) => lane.items.filter((i) => i.key.startsWith(`${id}.`)))

const documented = readFileSync(path.join(__dirname, '../../../docs/study-format.md'), 'utf8')

test('there are kinds, each with a name of its own', () => {
  expect(allKinds.length).toBeGreaterThan(15)
  expect(new Set(allKinds.map((k) => k.kind)).size).toBe(allKinds.length)
})

describe.each(allKinds.map((k) => [k.kind, k] as const))('%s', (name, kind) => {
  const study = withKind(name, kind.said)
  const line = lastOf(study)

  test('is what its words ask for, each of them', () => {
    expect(line.kind).toBe(name)
    for (const words of kind.said.slice(1)) {
      const offered = offersFor(whole(name, words), withKind(name, kind.said), null)
      const kinds = offered.map(({ edit }) => lastOf(edit(study)).kind)
      expect([words, kinds.includes(name)]).toEqual([words, true])
    }
  })

  test('reads as a sentence whose slots edit members it has', () => {
    const phrases = workedOut(study).sentences.get(line.id)!
    expect(sentenceText(phrases)).toMatch(/^\p{Lu}[^{}[\]]*\S/u)
    const slots = phrases.flatMap((p) => ('slot' in p ? [p] : []))
    for (const { field } of slots) expect(Object.keys(line)).toContain(field)
    // What a slot holds can be put back into it.
    for (const phrase of slots) {
      const source = phrase.choices ? phrase.choices[0]!.value : phrase.source
      const put = editSlot(study, line, phrase, source)
      expect([phrase.field, put.ok ? '' : put.message]).toEqual([phrase.field, ''])
    }
  })

  test('is worked out, and speaks, draws or tells', () => {
    const result = workedOut(study).lines.get(line.id)!
    expect(result.problems).toEqual([])
    expect(result.pending).toBeFalsy()
    expect(new Set(result.readouts.map((r) => r.id)).size).toBe(result.readouts.length)
    for (const readout of result.readouts) expect(readout.text).not.toMatch(/NaN|undefined/)
  })

  test('what takes it too long here is done elsewhere, and applied', () => {
    const here = createEvaluator({ patience: 0 })
    const pending = here(study).lines.get(line.id)!
    if (!pending.pending) return
    const work = createEvaluator({ results: false, sentences: false }).long(study, line.id)!
    let step = work.next()
    while (!step.done) step = work.next()
    expect(here.apply(pending, structuredClone(step.value))).toBe(true)
    expect(here(study).lines.get(line.id)).toEqual(workedOut(study).lines.get(line.id))
  })

  test('its marks are data, each with a name of its own', () => {
    const { marks } = workedOut(study).lines.get(line.id)!
    expect(structuredClone(marks)).toEqual(marks)
    expect(new Set(marks.map((m) => m.id)).size).toBe(marks.length)
    for (const { id } of marks) expect(id).toMatch(/^\S+$/)
  })

  test('goes through JSON and the schema and stays what it is', () => {
    const read = studySchema.parse(JSON.parse(JSON.stringify(study)))
    expect(lastOf(read)).toEqual(line)
  })
})

describe.each(allKinds.map((k) => [k.kind, k] as const))('%s', (name, kind) => {
  const study = withKind(name, kind.said)
  const line = lastOf(study)
  test('keeps its meaning when curve and variable get other letters', () => {
    const renamed = renameSymbol('t', 'x')(renameSymbol('q', 'w')(study))
    const back = renameSymbol('x', 't')(renameSymbol('w', 'q')(renamed))
    expect(lastOf(back)).toEqual(line)
    const before = workedOut(study).lines.get(line.id)!
    const after = workedOut(renamed).lines.get(line.id)!
    expect(after.problems).toEqual([])
    expect(after.readouts.map((r) => r.value)).toEqual(before.readouts.map((r) => r.value))
    if ('curve' in line && line.curve === 'q') expect(lastOf(renamed)).toMatchObject({ curve: 'w' })
  })

  test('says so where its curve is missing, and takes nothing else along', () => {
    if (!('curve' in line)) return
    const curve = study.lines.find((l) => isCurveMaker(l) && l.name === line.curve)!
    const evaluation = workedOut(removeLine(curve.id)(study))
    const { problems } = evaluation.lines.get(line.id)!
    expect(problems.map((p) => p.message).join()).toMatch(new RegExp(`\\b${line.curve}\\b`))
    expect(problems.map((p) => p.message).join()).not.toMatch(/could not be worked out|undefined/)
  })

  test('draws nothing while it is hidden', () => {
    const shown = itemsOf(study, line.id)
    if (shown.length > 0) expect(kind.drawn).toBeDefined()
    const hidden = changeLine(line.id, { look: { ...line.look, hidden: true } })(study)
    expect(itemsOf(hidden, line.id)).toEqual([])
    if (!kind.drawn?.stands) return
    const { curve, order } = kind.drawn.stands(line)
    const open = { ...study.lanes[0]!, id: 'own', curve, order }
    const pathOf = (s: Study) => {
      const lane = draw({ ...s, lanes: [open] }).lanes[0]!
      const item = lane.items.find((i) => i.key === 'curve')
      return item?.kind === 'path' ? item.d : ''
    }
    expect(pathOf(study)).not.toBe('')
    expect(pathOf(hidden)).toBe('')
  })

  test('says what it uses: places have flags, spans have bars, members are there', () => {
    const { uses } = kind
    const evaluation = workedOut(study)
    for (const place of placesOfLine(line)) {
      expect(evaluation.places.map((p) => p.text)).toContain(place)
    }
    for (const { span } of spanMembers(line)) {
      expect(evaluation.spans.map((s) => s.text)).toContainEqual(span)
    }
    const named = [uses.name, uses.domain, ...(uses.curves ?? []), ...(uses.spans ?? [])]
    const members = Object.keys((kind.schema as unknown as z.ZodObject).shape)
    for (const member of named) if (member) expect(members).toContain(member)
    expect(isCurveMaker(line)).toBe(uses.name !== undefined)
  })

  test('what it can do fits its schema, or is another line that does', () => {
    for (const action of actionsOf(line, study, true)) {
      expect(action.label).toMatch(/^\p{Lu}/u)
      if (action.does === 'change' || action.does === 'sweep') {
        const changed = changeLine(line.id, { ...action.change })(study)
        expect(studySchema.safeParse(changed).success).toBe(true)
        expect(lastOf(changed)).not.toEqual(line)
      }
      if (action.does === 'add') {
        const added = { ...study, lines: [...study.lines, { ...action.line, id: 'added' }] }
        expect(studySchema.safeParse(added).success).toBe(true)
      }
    }
  })

  test('has its place in the list of studies and its row in the study format', () => {
    if (kind.topic) expect(topicsOf(study)).toContain(kind.topic)
    const row = documented.split('\n').find((l) => l.startsWith(`| \`${name}\``))
    expect(row).toBeDefined()
    const { shape } = kindOf(line).schema as unknown as { shape: Record<string, unknown> }
    for (const member of Object.keys(shape)) {
      if (member === 'kind' || member in commonMembers) continue
      expect([member, row!.includes(`\`${member}\``)]).toEqual([member, true])
    }
  })
})
