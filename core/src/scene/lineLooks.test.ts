import {
  changeLine,
  createEvaluator,
  createSceneMaker,
  createStudy,
  type Item,
  moveLabel,
  offersFor,
  resetLabels,
  setSlider,
  showLabel,
  sliderRole,
  type Study,
  studySchema,
  tintsOf,
} from '..'
import { isFilled, markerPath } from './markers'
import { markerShapes } from '../vocabulary/members'

function made(text: string, ...words: string[]): Study {
  const created = createStudy(text)
  if (!created.ok) throw new Error(created.problems[0]!.message)
  return words.reduce((study, say) => offersFor(say, study, null)[0]!.edit(study), created.study)
}
function itemsOf(study: Study, lane = 0): readonly Item[] {
  const heights = Object.fromEntries(study.lanes.map((l) => [l.id, 300]))
  const evaluation = createEvaluator({ patience: Infinity })(study)
  return createSceneMaker()(evaluation, { width: 800, heights }).lanes[lane]!.items
}
const labels = (study: Study) =>
  itemsOf(study).filter((i): i is Item & { kind: 'label' } => i.kind === 'label')
const look = (study: Study, line: number, change: Record<string, unknown>): Study =>
  changeLine(study.lines[line]!.id, { look: change })(study)

const inflow = made('q(t) = 6 + 4 sin(0.9t) - 0.3t for [0, 10]')

describe('the marker of a line', () => {
  const tangent = made('q(t) = 6 + 4 sin(0.9t) - 0.3t', 'tangent')
  const dotOf = (study: Study) => itemsOf(study).find((i) => i.kind === 'dot')

  test('is a diamond until someone chooses another shape and width', () => {
    expect(dotOf(tangent)).toMatchObject({ shape: 'diamond', reach: 8 })
    const chosen = look(tangent, 1, { marker: 'square', markerWidth: 24 })
    expect(dotOf(chosen)).toMatchObject({ shape: 'square', reach: 12 })
    expect(studySchema.safeParse(chosen).success).toBe(true)
  })

  test('of two lines at one place the one with a chosen marker is seen', () => {
    const both = offersFor('value of q', tangent, null)[0]!.edit(tangent)
    const chosen = look(both, 2, { marker: 'triangle' })
    const dots = itemsOf(chosen).filter((i) => i.kind === 'dot')
    expect(dots).toHaveLength(1)
    expect(dots[0]).toMatchObject({ shape: 'triangle' })
  })

  test('a curve has points along it where someone wants them, and its rate of change its own', () => {
    const study = made('q(t) = t^2 for [0, 4]', 'rate')
    const along = (now: Study, lane: number) =>
      itemsOf(now, lane).find((i) => i.kind === 'path' && i.key.endsWith('curve.points'))
    expect(along(study, 0)).toBeUndefined()
    const marked = look(study, 0, { marker: 'disc', colour: 'plum' })
    const rate = marked.lanes.findIndex((lane) => lane.order === 1)
    const lanes = rate < 0 ? [0] : [0, rate]
    const points = along(marked, 0)!
    expect(points).toMatchObject({ ink: 'curve3', fill: 'own' })
    // At each number of the axis where the curve is drawn.
    if (points.kind !== 'path') throw new Error('no path')
    expect(points.d.match(/M/g)!.length).toBeGreaterThan(3)
    for (const lane of lanes.slice(1)) expect(along(marked, lane)).toBeUndefined()
    const own = look(marked, 1, { marker: 'square' })
    const all = own.lanes.flatMap((_, lane) => itemsOf(own, lane))
    expect(all.filter((i) => i.key.endsWith('.points'))).toHaveLength(2)
    expect(studySchema.safeParse(own).success).toBe(true)
  })
  test('a note sets its words as large as someone wants', () => {
    const study = made('q(t) = t^2 for [0, 4]', 'note Going up')
    const note = (now: Study) => itemsOf(now).find((i) => i.kind === 'note')
    const [usual, large] = [note(study), note(look(study, 1, { type: 34, colour: 'rust' }))]
    expect(large).toMatchObject({ type: 34, ink: 'place' })
    if (usual?.kind !== 'note' || large?.kind !== 'note') throw new Error('no note')
    expect(large.height).toBeCloseTo((usual.height - 16) * 2 + 16, -1)
  })

  test('points of a table take it too', () => {
    const table = made('f(x) = x^3 - 2x for [-10, 10]', 'table of f over [-2, 2] by 1')
    const points = (study: Study) => {
      const item = itemsOf(study).find((i) => i.kind === 'path' && i.key.endsWith('.f(x)'))
      return item?.kind === 'path' ? item : undefined
    }
    expect(points(table)!.d.match(/M/g)).toHaveLength(5)
    expect(points(table)!.fill).toBeUndefined()
    const crosses = look(table, 1, { marker: 'cross', markerWidth: 10 })
    expect(points(crosses)!.d.match(/M/g)).toHaveLength(10)
    expect(points(look(table, 1, { marker: 'disc' }))!.fill).toBe('own')
    expect(points(look(table, 1, { marker: 'none' }))!.d).toBe('')
  })

  test.each(markerShapes)('%s lies around its point and inside its width', (shape) => {
    const d = markerPath(shape, 50, 40, 10)
    if (shape === 'none') return expect(d).toBe('')
    const start = /^M(-?[\d.]+) (-?[\d.]+)/.exec(d)!.slice(1).map(Number) as [number, number]
    expect(Math.abs(start[0] - 50)).toBeLessThanOrEqual(10)
    expect(Math.abs(start[1] - 40)).toBeLessThanOrEqual(10)
    expect(isFilled(shape) ? d.endsWith('Z') || d.includes('a') : true).toBe(true)
  })

  test('a width that is no width is refused', () => {
    expect(studySchema.safeParse(look(tangent, 1, { markerWidth: 0 })).success).toBe(false)
    expect(studySchema.safeParse(look(tangent, 1, { marker: 'heart' })).success).toBe(false)
  })
})

describe('the words of a line', () => {
  test('stand beside its point, and before what the point says already', () => {
    const tangent = look(made('f(x) = x^3 - 2x', 'tangent'), 1, { label: 'boat' })
    expect(labels(tangent).map((l) => l.text)).toContain('boat')
    const value = look(made('f(x) = x^3 - 2x + 1 for [-4, 4]', 'value of f'), 1, { label: 'depth' })
    expect(labels(value).some((l) => l.text === 'depth 1')).toBe(true)
  })

  test.each([
    ['area 1 to 3', 'strips'],
    ['average of f', 'mean level'],
    ['table of f over [-2, 2] by 1', 'readings'],
    ['turning points', 'crests'],
  ])('%s carries words of its own', (words, text) => {
    const study = look(made('f(x) = x^3 - 6x', words), 1, { label: text })
    expect(labels(study).filter((l) => l.text.startsWith(text))).toHaveLength(1)
  })

  test('a hidden line has none', () => {
    const study = look(made('f(x) = x^3', 'tangent'), 1, { label: 'boat', hidden: true })
    expect(labels(study).map((l) => l.text)).not.toContain('boat')
  })
})

describe('labels of features', () => {
  const features = offersFor('turning points of q', inflow, null)[0]!.edit(inflow)
  const line = features.lines.at(-1)!.id
  const own = (study: Study) => labels(study).filter((l) => l.owner?.line === line)

  test('can be hidden one by one, moved, and all put back', () => {
    const all = own(features)
    expect(all.length).toBeGreaterThanOrEqual(3)
    const { label } = all[0]!.owner!
    const hidden = showLabel(line, label, false)(features)
    expect(own(hidden).map((l) => l.text)).toEqual(all.slice(1).map((l) => l.text))
    const moved = moveLabel(line, label, [40, -60])(features)
    const there = own(moved).find((l) => l.owner?.label === label)!
    expect([there.x - there.beside!.x, there.y - there.beside!.y]).toEqual([40, -60])
    const back = resetLabels(line)(showLabel(line, label, false)(moved))
    expect(own(back)).toEqual(all)
    expect(studySchema.safeParse(moved).success).toBe(true)
  })

  test('a label that was moved goes along when its point moves', () => {
    const slid = createStudy('f(x) = (x - k)^2 for [-5, 5]', ['k'])
    if (!slid.ok) throw new Error(slid.problems[0]!.message)
    const study = offersFor('turning points of f', slid.study, null)[0]!.edit(slid.study)
    const id = study.lines.at(-1)!.id
    const first = labels(study).find((l) => l.owner?.line === id)!
    const moved = moveLabel(id, first.owner!.label, [30, -50])(study)
    const at = (s: Study) => labels(s).find((l) => l.owner?.line === id)!
    const far = at(setSlider('k', 2)(moved))
    expect(far.x - at(moved).x).toBeGreaterThan(50)
    expect([far.x - far.beside!.x, far.y - far.beside!.y]).toEqual([30, -50])
  })
})

describe('labels hang on a thing', () => {
  const zeros = (formula: string) => {
    const study = made(`${formula} for [-10, 10]`, 'zeros of f')
    return { study, id: study.lines.at(-1)!.id }
  }
  const slid = (study: Study, formula: string): Study => ({
    ...study,
    lines: study.lines.map((l) => (l.kind === 'curve' ? { ...l, formula } : l)),
  })
  const shown = (study: Study, id: string) =>
    labels(study).flatMap((l) => (l.owner?.line === id ? [l.text] : []))

  test('one that is hidden stays hidden when another thing appears before it', () => {
    const { study, id } = zeros('(x + 3)(x - 1)')
    const hidden = showLabel(
      id,
      labels(study).find((l) => l.text === 'x = −3')!.owner!.label,
      false,
    )(study)
    expect(shown(hidden, id)).toEqual(['x = 1'])
    expect(shown(slid(hidden, '(x + 3)(x - 1)(x + 5)'), id).sort()).toEqual(['x = 1', 'x = −5'])
    // Away with it and back again.
    expect(shown(slid(slid(hidden, 'x - 1'), '(x + 3)(x - 1)'), id)).toEqual(['x = 1'])
    expect(shown(slid(hidden, 'x - 1'), id)).toEqual(['x = 1'])
  })

  test('one that is hidden goes along with what it belongs to, and with nothing far away', () => {
    const { study, id } = zeros('(x + 3)(x - 1)')
    const hidden = showLabel(
      id,
      labels(study).find((l) => l.text === 'x = −3')!.owner!.label,
      false,
    )(study)
    expect(shown(slid(hidden, '(x + 2)(x - 2)'), id)).toEqual(['x = 2'])
    expect(shown(slid(hidden, '(x - 8)(x - 9)'), id)).toHaveLength(2)
  })

  test('a trail takes no label from its point', () => {
    const plain = made('f(x) = x^2', 'tangent')
    const study = { ...plain, lanes: [{ ...plain.lanes[0]!, id: 'slopes', order: 1 }] }
    const { id } = study.lines.find((l) => l.kind === 'tangent')!
    const own = (s: Study) => labels(s).filter((l) => l.owner?.line === id)
    const [first] = own(study)
    const hidden = showLabel(id, first!.owner!.label, false)(study)
    expect(own(hidden)).toHaveLength(own(study).length - 1)
    const trailing = changeLine(id, { trail: true })(hidden)
    expect(own(trailing).map((l) => l.text)).toEqual(own(hidden).map((l) => l.text))
  })

  test('a colour moves nothing to another layer', () => {
    const study = made('f(x) = x^2', 'tangent')
    const layers = (s: Study) => itemsOf(s, 0).map((i) => [i.key, i.layer])
    const { id } = study.lines.at(-1)!
    const coloured = changeLine(id, { look: { colour: 'kelp' } })(study)
    expect(layers(coloured)).toEqual(layers(study))
    expect(new Set(layers(study).map(([, layer]) => layer))).toEqual(
      new Set(['ground', 'marks', 'points']),
    )
  })
})

describe('trails', () => {
  const points = (study: Study, lane: number) =>
    itemsOf(study, lane).flatMap((i) =>
      i.kind === 'path' && i.key.endsWith('.trail') ? [i.d.match(/M/g)?.length ?? 0] : [],
    )

  test('of an accumulated area grow with the place, and are gone when switched off', () => {
    const study = made('f(x) = 2x for [-10, 10]', 'accumulate', 'value of A')
    const value = study.lines.at(-1)!.id
    const lane = study.lanes.findIndex((l) => l.curve === 'A')
    const trailing = changeLine(value, { trail: true })(setSlider('a', -5)(study))
    const some = Math.max(...points(trailing, lane))
    const more = Math.max(...points(setSlider('a', 5)(trailing), lane))
    expect(some).toBeGreaterThan(10)
    expect(more).toBeGreaterThan(2 * some)
    expect(points(changeLine(value, { trail: false })(trailing), lane)).toEqual([])
  })

  test('each of its points lies on the curve', () => {
    const study = made('f(x) = 2x for [-10, 10]', 'value of f')
    const id = study.lines.at(-1)!.id
    const result = createEvaluator()(changeLine(id, { trail: true })(setSlider('a', 7)(study)))
    const trail = result.lines.get(id)!.marks.find((m) => m.kind === 'points')!
    const all = trail.kind === 'points' ? trail.points : []
    expect(all.length).toBeGreaterThan(100)
    for (const [x, y] of all) expect(y).toBeCloseTo(2 * x, 12)
    expect(all.at(-1)![0]).toBe(7)
  })
})

describe('what a slider is for', () => {
  const area = made('f(x) = x^2', 'area 0 to 3')
  test('the count and the height of strips say so, and the height has three named stops', () => {
    expect(sliderRole(area, 'n')).toMatchObject({ words: 'strips' })
    const height = sliderRole(area, 's')!
    expect(height.words).toBe('height at')
    expect(height.marks).toEqual([
      { value: 0, text: 'left' },
      { value: 0.5, text: 'middle' },
      { value: 1, text: 'right' },
    ])
  })
  test('with slanted tops the height is not in use, which it says', () => {
    const slanted = changeLine(area.lines[1]!.id, { rule: 'trapezoid' })(area)
    expect(sliderRole(slanted, 's')!.words).toBe('height at (not in use)')
  })
  test('a place has no such words', () => {
    expect(sliderRole(made('f(x) = x', 'tangent'), 'a')).toBeNull()
  })
})

describe('several lines alike', () => {
  const tintsOn = (study: Study, kind: Item['kind']) => [
    ...new Set(itemsOf(study).flatMap((i) => (i.kind === kind ? [i.tint ?? 0] : []))),
  ]
  test('three tangents have three tints, drawn and written, and the fourth begins anew', () => {
    const words = [-1.5, -0.5, 0.5, 1.5].map((x) => `tangent to f at ${x}`)
    const three = made('f(x) = x^3 - 3x', ...words.slice(0, 3))
    expect(tintsOn(three, 'dot').sort()).toEqual([0, 1, 2])
    expect(tintsOf(three.lines).size).toBe(2)
    const four = made('f(x) = x^3 - 3x', ...words)
    expect(tintsOf(four.lines).get(four.lines.at(-1)!.id)).toBeUndefined()
  })
  test('two areas are told apart, and a hidden line changes no other', () => {
    const two = made('f(x) = x^2', 'area 0 to 1', 'tangent to f at 1', 'area 1 to 2')
    const tints = [...tintsOf(two.lines).values()]
    expect(tints).toEqual([1])
    const hidden = look(two, 1, { hidden: true })
    expect([...tintsOf(hidden.lines)]).toEqual([...tintsOf(two.lines)])
  })
})
