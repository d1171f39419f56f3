import { chanceFrom } from '../../fuzz/formulas'
import { anyStudy } from '../../fuzz/studies'
import { createEvaluator, createSceneMaker, createStudy, type Study, thumbnail } from '..'

const sizes = (study: Study) => ({
  width: 800,
  heights: Object.fromEntries(study.lanes.map((lane) => [lane.id, 200])),
})
const draw = (study: Study) => createSceneMaker()(createEvaluator()(study), sizes(study))

/** Every number of a picture, paths included, and how long its longest path is. */
function numbersOf(picture: unknown): { broken: string[]; longest: number } {
  const broken: string[] = []
  let longest = 0
  const text = JSON.stringify(picture, (key, value: unknown) => {
    if (typeof value === 'number' && !Number.isFinite(value)) broken.push(key)
    if (typeof value === 'string') longest = Math.max(longest, value.length)
    return value
  })
  const inPath = /[ML] ?-?(NaN|Infinity)|(NaN|Infinity) /.exec(text)
  if (inPath) broken.push(inPath[0])
  return { broken, longest }
}

/** A study whose curve x goes from 0 to a width no screen can lay out. */
function over(from: string, to: string): Study {
  const made = createStudy('x')
  if (!made.ok) throw new Error('x is a formula')
  const lines = made.study.lines.map((l) =>
    l.kind === 'curve' ? { ...l, span: { from, to }, window: null } : l,
  )
  return { ...made.study, lines }
}

test.each([
  ['0', '1E-310', 'narrow'],
  ['0', '5E-324', 'narrow'],
  ['1', '1.0000000000000002', 'narrow'],
  ['-1E308', '1E308', 'wide'],
  ['-1.7E308', '1.7E308', 'wide'],
])('a curve from %s to %s is told to be too %s to be drawn', (from, to, fault) => {
  const study = over(from, to)
  const { lanes } = draw(study)
  expect(lanes[0]!.undrawn).toMatch(new RegExp(`too ${fault} to be drawn`))
  expect(lanes[0]!.items).toEqual([])
  expect(thumbnail(study, 148, 66).path).toBe('')
})

test.each([
  ['0', '1E-290'],
  ['1', '1.00000001'],
  ['-1E299', '1E299'],
])('a curve from %s to %s is drawn across the lane', (from, to) => {
  const { lanes } = draw(over(from, to))
  expect(lanes[0]!.undrawn).toBeNull()
  const curve = lanes[0]!.items.find((i) => i.key === 'curve')
  const pixels = (curve?.kind === 'path' ? curve.d : '').match(/-?[\d.]+/g)!.map(Number)
  const [[x0, y0], [x1, y1]] = [pixels.slice(0, 2), pixels.slice(-2)] as [number[], number[]]
  // x rises from the lower left to the upper right.
  expect(x0).toBeLessThan(60)
  expect(x1).toBeGreaterThan(740)
  expect(y0! - y1!).toBeGreaterThan(100)
})

test('heights that no number holds are held within those that can be drawn', () => {
  const made = createStudy('1E300 x^3 - 1E308')
  if (!made.ok) throw new Error('that is a formula')
  const { lanes } = draw(made.study)
  expect(numbersOf(lanes).broken).toEqual([])
  expect(lanes[0]!.items.some((i) => i.key === 'curve')).toBe(true)
})

test('400 studies with numbers of any size are drawn without one that is none', () => {
  const faults: string[] = []
  let drawn = 0
  let told = 0
  for (let seed = 1; seed <= 400; seed++) {
    const study = anyStudy(chanceFrom(seed))
    const evaluation = createEvaluator()(study)
    for (const { problems, tables } of evaluation.lines.values()) {
      for (const { message } of problems) {
        if (message.includes('could not be worked out')) faults.push(`${seed}: ${message}`)
      }
      for (const table of tables ?? []) if (table.count <= 1000) void table.rows.length
    }
    const scene = createSceneMaker()(evaluation, sizes(study))
    const { broken, longest } = numbersOf([scene, thumbnail(study, 148, 66)])
    if (broken.length > 0) faults.push(`${seed}: ${broken.join()}`)
    if (longest > 400_000) faults.push(`${seed}: a path of ${longest} characters`)
    for (const lane of scene.lanes) {
      if (lane.undrawn === null) drawn += 1
      else told += 1
    }
  }
  expect(faults).toEqual([])
  // Both happen, or the studies are none that test this.
  expect(Math.min(drawn, told)).toBeGreaterThan(90)
}, 400_000)
