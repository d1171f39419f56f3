import { readdirSync, readFileSync } from 'node:fs'
import path from 'node:path'
import {
  createEvaluator,
  createSceneMaker,
  createStudy,
  isNewer,
  presentFormat,
  readStudyFile,
  setGuess,
  setSignGuess,
  shownStudy,
  type SignGuess,
  type Study,
  studyProblems,
  studySchema,
  toggleLane,
  writeStudyFile,
} from '../..'
import { allKinds } from '../../statements'

const folder = path.join(__dirname, 'samples/format1')
const samples = readdirSync(folder)
const textOf = (name: string) => readFileSync(path.join(folder, name), 'utf8')
const sampleOf = (name: string) => JSON.parse(textOf(name)) as Record<string, unknown>
function read(text: string): Study {
  const found = readStudyFile(text)
  if (!found.ok) throw new Error(found.problems.map((p) => `${p.path}: ${p.message}`).join())
  return found.study
}
const problemsOf = (study: unknown) => {
  const found = readStudyFile(JSON.stringify(study))
  return found.ok ? [] : found.problems
}

describe('studies of format 1', () => {
  test('there are samples of every kind of line', () => {
    const kinds = samples.flatMap((name) =>
      (sampleOf(name).lines as { kind: string }[]).map((l) => l.kind),
    )
    // Kinds that came later were never written in this format.
    const later = new Set([
      ...[
        'limit',
        'continuity',
        'given',
        'theorem',
        'tangents',
        'measure',
        'marker',
        'note',
        'trail',
        'search',
        'taylor',
        'family',
        'surface',
        'plane',
        'section',
        'critical',
        'directional',
        'polynomial',
        'seriesIntegral',
      ],
    ])
    const then = allKinds.map((k) => k.kind as string).filter((kind) => !later.has(kind))
    expect(new Set(kinds)).toEqual(new Set(then))
  })

  test.each(samples)(
    '%s is read, keeps all it says, and is written in the present format',
    (name) => {
      const old = sampleOf(name)
      expect(old.format).toBe(1)
      const study = read(textOf(name))
      expect(study.format).toBe(presentFormat)
      const kept = JSON.parse(writeStudyFile(study)) as Record<string, unknown>
      for (const member of ['title', 'about', 'variable', 'decimals', 'sliders', 'frame']) {
        expect(kept[member]).toEqual(old[member])
      }
      const plain = (all: unknown) =>
        (all as Record<string, unknown>[]).map(({ look: _, kind: __, ...line }) => line)
      expect(plain(kept.lines)).toEqual(plain(old.lines))
      expect(plain(kept.lanes)).toEqual(plain(old.lanes))
      expect(read(writeStudyFile(study))).toEqual(study)
    },
  )

  test('labels stay where they were put, and hidden ones hidden', () => {
    const study = read(textOf('labels.json'))
    // A tangent's trail was switched on after its label was moved: without it, marks count as then.
    const lines = study.lines.map((l) => (l.kind === 'tangent' ? { ...l, trail: false } : l))
    const still = { ...study, lines }
    const heights = Object.fromEntries(study.lanes.map((l) => [l.id, 300]))
    const evaluation = createEvaluator({ patience: Infinity })(still)
    const scene = createSceneMaker()(evaluation, { width: 800, heights })
    const labels = scene.lanes.flatMap((lane) =>
      lane.items.flatMap((i) => (i.kind === 'label' && i.owner ? [i] : [])),
    )
    expect(labels.length).toBeGreaterThanOrEqual(6)
    for (const { x, y, beside } of labels) {
      expect([Math.round(x - beside!.x), Math.round(y - beside!.y)]).toEqual([12, -34])
    }
    const value = study.lines.find((l) => l.kind === 'value')!
    expect(labels.some((l) => l.owner?.line === value.id)).toBe(false)
  })
})

describe('what nobody knows is refused by name, wherever it stands', () => {
  const made = createStudy('q(t) = sin t for 0 <= t <= 10', [])
  if (!made.ok) throw new Error('unreadable')
  const study = JSON.parse(writeStudyFile(made.study)) as Record<string, unknown> & {
    lines: object[]
    lanes: object[]
    display: object
  }
  const tomorrow: [string, object][] = [
    ['tomorrow', { ...study, tomorrow: 1 }],
    ['lines.0.tomorrow', { ...study, lines: [{ ...study.lines[0], tomorrow: 1 }] }],
    ['lines.0.look.tomorrow', { ...study, lines: [{ ...study.lines[0], look: { tomorrow: 1 } }] }],
    ['lanes.0.tomorrow', { ...study, lanes: [{ ...study.lanes[0], tomorrow: 1 }] }],
    ['variable.tomorrow', { ...study, variable: { letter: 't', name: '', unit: '', tomorrow: 1 } }],
    ['answers.tomorrow', { ...study, answers: { guesses: {}, signs: {}, tomorrow: 1 } }],
    ['display.tomorrow', { ...study, display: { ...study.display, tomorrow: 1 } }],
  ]
  test.each(tomorrow)('%s', (at, body) => {
    const problems = problemsOf(body)
    expect(problems.map((p) => p.path)).toContain(at)
    expect(isNewer(problems)).toBe(true)
    expect(problems[0]!.message).toMatch(/newer version.*tomorrow/)
  })

  test('a kind of line, a view and a format of tomorrow are told as such', () => {
    const line = { ...study, lines: [{ kind: 'tomorrow', id: 'line1' }] }
    const view = { ...study, lanes: [{ kind: 'tomorrow', id: 'lane1' }] }
    for (const body of [line, view, { ...study, format: presentFormat + 1 }]) {
      expect(isNewer(problemsOf(body))).toBe(true)
    }
    expect(problemsOf({ ...study, format: 7 })[0]).toEqual({
      path: 'format',
      message: `this study was made with a newer version: it has format 7, and this one reads up to ${presentFormat}`,
    })
  })

  test('a member of tomorrow in a study of format 1 is refused as well', () => {
    const old = { ...sampleOf('demo1.json'), tomorrow: 1 }
    expect(problemsOf(old).map((p) => p.path)).toEqual(['tomorrow'])
  })

  test('damage is no newer version, and no text makes reading throw', () => {
    expect(isNewer(problemsOf({ ...study, decimals: -1 }))).toBe(false)
    for (const text of [
      '',
      '{',
      'null',
      '[]',
      '3',
      '{"format":1}',
      '{"format":0}',
      '{"format":"2"}',
    ]) {
      const found = readStudyFile(text)
      expect([text, found.ok]).toEqual([text, false])
      if (!found.ok) expect(isNewer(found.problems)).toBe(false)
    }
    expect(studySchema.safeParse({ format: 1, lines: 3, lanes: [null, 4] }).success).toBe(false)
    const wrong = studySchema.safeParse({ format: 1 })
    expect(wrong.success || studyProblems(wrong.error).length > 3).toBe(true)
  })
})

describe('what is laid over a study', () => {
  const made = createStudy('q(t) = a sin t for 0 <= t <= 10', ['a'])
  if (!made.ok) throw new Error('unreadable')
  const { study } = made

  test('live values and answers are shown and change nothing that is saved', () => {
    const answers = { ...study.answers, guesses: { lane1: [[0, 1] as [number, number]] } }
    const before = writeStudyFile(study)
    const shown = shownStudy(study, { step: null, live: { a: 3 }, answers })
    expect(shown.sliders[0]!.value).toBe(3)
    expect(shown.answers).toBe(answers)
    expect(shown.lines).toBe(study.lines)
    expect(writeStudyFile(study)).toBe(before)
  })

  test('nothing laid over is the same study, and an overlay goes through JSON', () => {
    expect(shownStudy(study, {})).toBe(study)
    expect(shownStudy(study, { live: { a: study.sliders[0]!.value } })).toBe(study)
    const overlay = { step: null, live: { a: 3 }, answers: study.answers }
    expect(JSON.parse(JSON.stringify(overlay))).toEqual(overlay)
  })
})

describe('answers', () => {
  const made = createStudy('q(t) = sin t for 0 <= t <= 10')
  if (!made.ok) throw new Error('unreadable')
  const two = toggleLane('q', 1)(made.study)
  const lane = two.lanes[1]!.id
  const signs: SignGuess = { from: 0, to: 10, cuts: [3], signs: [1, -1] }

  test('are kept with the study, through a file', () => {
    const answered = setSignGuess(
      lane,
      signs,
    )(
      setGuess(lane, [
        [0, 1],
        [2, 5],
      ])(two),
    )
    expect(read(writeStudyFile(answered)).answers).toEqual({
      guesses: {
        [lane]: [
          [0, 1],
          [2, 5],
        ],
      },
      signs: { [lane]: signs },
      ...{ earlier: [], steps: {} },
    })
    expect(setGuess(lane, null)(setSignGuess(lane, null)(answered)).answers).toEqual(two.answers)
  })

  test('go with their lane, and a long drawing keeps its shape in fewer points', () => {
    const long = Array.from({ length: 5000 }, (_, i) => [i / 500, Math.sin(i / 500)] as const)
    const answered = setGuess(lane, long)(two)
    const kept = answered.answers.guesses[lane]!
    expect(kept.length).toBeLessThanOrEqual(1000)
    for (const [x, y] of kept) expect(y).toBeCloseTo(Math.sin(x), 12)
    expect(studySchema.safeParse(answered).success).toBe(true)
    expect(toggleLane('q', 1)(answered).answers).toEqual(two.answers)
  })
})
