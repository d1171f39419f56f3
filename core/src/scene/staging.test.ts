import {
  createEvaluator,
  createSceneMaker,
  grownTrails,
  type Item,
  movePoint,
  noTrails,
  nudgePoint,
  say,
  sentenceText,
  setCondition,
  setSlider,
  startStudy,
  type Study,
} from '..'
import { pictograms } from '../vocabulary/pictograms'
import { pictogramPath } from './pictograms'

const size = { width: 800, height: 400 }
function said(study: Study, ...words: string[]): Study {
  return words.reduce((now, one) => {
    const found = say(now, one)
    if ('problem' in found) throw new Error(`${one}: ${found.problem}`)
    return found.study
  }, study)
}
const view = (study: Study) => ({
  width: size.width,
  heights: Object.fromEntries(study.lanes.map((l) => [l.id, size.height])),
})
function items<K extends Item['kind']>(study: Study, kind: K, draw = createSceneMaker()) {
  const all = draw(createEvaluator()(study), view(study)).lanes.flatMap((l) => l.items)
  return all.filter((i): i is Item & { kind: K } => i.kind === kind)
}

test('every pictogram is there, in its square', () => {
  for (const name of pictograms)
    expect([name, pictogramPath(name)]).toEqual([name, expect.stringMatching(/^M/)])
  expect(pictogramPath('constructor')).toBeNull()
})

describe('a body on its curve', () => {
  const swell = startStudy('w(x) = x^2/4 for -4 ≤ x ≤ 4')
  const study = said(swell, 'marker raft on w')
  const angle = (now: Study) => Number(/rotate\((\S+)\)/.exec(items(now, 'body')[0]!.transform)![1])

  test('is turned as the curve is seen in the frame', () => {
    const [at0] = [setSlider('a', 0)(study)]
    expect(angle(at0)).toBeCloseTo(0, 6)
    // The slope at 2 is 1; on screen a unit is so many pixels across and upwards.
    const at2 = setSlider('a', 2)(study)
    const scene = createSceneMaker()(createEvaluator()(at2), view(at2))
    const [x0, x1] = scene.x
    const [y0, y1] = scene.lanes[0]!.y
    const seen = Math.atan2(size.height / (y1 - y0), size.width / (x1 - x0))
    expect(angle(at2)).toBeCloseTo((-seen * 180) / Math.PI, 1)
  })

  test('looks where it goes, and keeps looking while it stands', () => {
    const draw = createSceneMaker()
    const flips = [0, 1, 1, 0.5, 0.5, 0.6].map((a) =>
      items(setSlider('a', a)(study), 'body', draw)[0]!.transform.includes('scale(-'),
    )
    expect(flips).toEqual([false, false, false, true, true, false])
  })

  test('is moved along the curve by its place, and in the plane by its sliders', () => {
    const moved = movePoint('line2', 1.5, 99)(study)
    expect(moved.sliders[0]!.value).toBe(1.5)
    const loose = said(swell, 'point (1, 2)')
    const at = (now: Study) => ['u', 'v'].map((n) => now.sliders.find((s) => s.name === n)!.value)
    expect(at(movePoint('line2', 2.3, -0.4)(loose))).toEqual([2.3, -0.4])
    expect(at(nudgePoint('line2', 'y', 2)(loose))).toEqual([1, 2.2])
    const grid: Study = {
      ...loose,
      lines: loose.lines.map((l) => (l.kind === 'marker' ? { ...l, grid: 0.5 } : l)),
    }
    expect(at(movePoint('line2', 2.3, -0.4)(grid))).toEqual([2.5, -0.5])
    expect(at(nudgePoint('line2', 'x', 1)(grid))).toEqual([1.5, 2])
  })
})

describe('notes', () => {
  const between = ([a, b]: readonly [number, number], v: number) => v > a && v < b
  /** Points of the curve that lie under a note. */
  const covered = (study: Study) => {
    const notes = items(study, 'note').filter((n) => !n.unplaced)
    const curve = items(study, 'path').find((p) => p.key === 'curve')!
    const points = [...curve.d.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)].map(
      ([, x, y]) => [Number(x), Number(y)] as const,
    )
    return notes.flatMap((n) =>
      points.filter(
        ([x, y]) => between([n.x, n.x + n.width], x) && between([n.y, n.y + n.height], y),
      ),
    )
  }
  test.each(['x^2', 'sin x', 'e^x', '1/x', 'sin(3x)', '4', 'x^3 - 3x', 'ln x'])(
    'where nobody has said they keep off f(x) = %s and off each other',
    (formula) => {
      const study = said(
        startStudy(`f(x) = ${formula}`),
        'note Going up',
        'note The slope is {f(1)} here, and that is much',
        'note third',
      )
      expect(covered(study)).toEqual([])
      const placed = items(study, 'note').filter((n) => !n.unplaced)
      placed.forEach((a, i) =>
        placed.slice(i + 1).forEach((b) => {
          const apart =
            a.x + a.width <= b.x ||
            b.x + b.width <= a.x ||
            a.y + a.height <= b.y ||
            b.y + b.height <= a.y
          expect([a.spoken, b.spoken, apart]).toEqual([a.spoken, b.spoken, true])
        }),
      )
    },
  )
  test('one without room is told, not drawn over the curve', () => {
    const study = said(startStudy('f(x) = sin(40x) for 0 ≤ x ≤ 10'), 'note Nowhere to stand')
    expect(items(study, 'note')).toMatchObject([{ unplaced: true, spoken: 'Nowhere to stand' }])
  })
  test('in a corner or at a spot it stands where it was put', () => {
    const study = said(startStudy('f(x) = x'), 'note here')
    const pinned = (change: object): Study => ({
      ...study,
      lines: study.lines.map((l) => (l.kind === 'note' ? { ...l, ...change } : l)),
    })
    const [corner] = items(pinned({ pin: 'bottom right' }), 'note')
    expect(corner!.x + corner!.width).toBeCloseTo(size.width - 6, 0)
    const [spot] = items(pinned({ pin: 'spot', x: 0.5, y: 0.25 }), 'note')
    expect([spot!.x, spot!.y]).toEqual([400, 100])
  })
  test('the title of the study stands on its picture where that is wanted', () => {
    const study = startStudy('f(x) = x^2')
    expect(items(study, 'note')).toEqual([])
    const titled = { ...study, title: 'A bowl', display: { ...study.display, title: true } }
    expect(items(titled, 'note')).toMatchObject([{ key: 'title', spoken: 'A bowl' }])
    expect(covered(titled)).toEqual([])
  })
})

describe('a trail', () => {
  const study = setCondition(
    'line2',
    'q falls at a',
  )(said(startStudy('q(t) = t^3 - 3t for -3 ≤ t ≤ 3'), 'trail of q'))
  /** The trail after a place has gone through some values, in one movement. */
  function after(values: readonly number[], isMoving = true) {
    const evaluate = createEvaluator()
    return values.reduce(
      (trails, a) => grownTrails(trails, evaluate(setSlider('a', a)(study)), isMoving),
      noTrails,
    )
  }
  const range = (from: number, to: number) =>
    Array.from({ length: Math.round(Math.abs(to - from) * 10) + 1 }, (_, i) =>
      Number((from + Math.sign(to - from) * (i / 10)).toFixed(1)),
    )
  const drawn = (values: readonly number[]) => {
    const trails = after(values)
    const last = setSlider('a', values.at(-1)!)(study)
    const scene = createSceneMaker()(createEvaluator()(last), { ...view(last), trails })
    const path = scene.lanes[0]!.items.find((i) => i.key === 'line2.trail')
    if (path?.kind !== 'path') return []
    const toX = (px: number) => scene.x[0] + (px / size.width) * (scene.x[1] - scene.x[0])
    return path.d
      .split('M')
      .filter(Boolean)
      .map((part) => {
        const xs = [...part.matchAll(/(-?[\d.]+) -?[\d.]+/g)].map((m) => toX(Number(m[1])))
        return [Math.min(...xs), Math.max(...xs)].map((x) => Number(x.toFixed(1)))
      })
  }

  test('marks where its condition held while the place moved', () => {
    // q falls between its turning points at −1 and 1, and not at them.
    const [run] = after(range(-2, 0.5)).get('line2')!.runs
    expect([run!.at(0), run!.at(-1)]).toEqual([-0.9, 0.5])
    expect(drawn(range(-2, 0.5))).toEqual([[-0.9, 0.5]])
  })
  test('going over it again marks it once, and what was jumped over is not marked', () => {
    expect(drawn([...range(-0.5, 0.3), ...range(0.3, -0.2)])).toEqual([[-0.5, 0.3]])
    const jumped = after([-0.5, 0.5], false).get('line2')!
    expect(jumped.runs).toEqual([[0.5]])
  })
  test('is drawn only while its line is shown', () => {
    expect(drawn(range(-2, 2))).toEqual([])
    expect(drawn([...range(-2, 2), ...range(2, 0.5)])).toEqual([[-0.9, 0.9]])
  })
  test('of tangents leaves each line that it passed, right through the frame', () => {
    const family = said(startStudy('q(t) = t^2 for -3 ≤ t ≤ 3'), 'trail of tangents to q')
    const evaluate = createEvaluator()
    const at = (a: number) => setSlider('a', a)(family)
    const trails = [-2, 0, 1].reduce((all, a) => grownTrails(all, evaluate(at(a)), true), noTrails)
    const scene = createSceneMaker()(evaluate(at(1)), { ...view(at(1)), trails })
    const lane = scene.lanes[0]!
    const path = lane.items.find((i) => i.key === 'line2.trail')
    if (path?.kind !== 'path') throw new Error('no trail is drawn')
    const lines = path.d
      .split('M')
      .filter(Boolean)
      .map((piece) => [...piece.matchAll(/-?[\d.]+/g)].map(Number))
    // By hand: the tangent to t² at a is 2at − a².
    const toX = (px: number) => scene.x[0] + (px / scene.width) * (scene.x[1] - scene.x[0])
    const toY = (py: number) => lane.y[1] - (py / lane.height) * (lane.y[1] - lane.y[0])
    expect(lines).toHaveLength(3)
    lines.forEach(([x0, y0, x1, y1], i) => {
      const a = [-2, 0, 1][i]!
      expect(toY(y0!)).toBeCloseTo(2 * a * toX(x0!) - a * a, 1)
      expect(toY(y1!)).toBeCloseTo(2 * a * toX(x1!) - a * a, 1)
      // Each ends on the edge of the frame.
      const ends = [x0, x1].some((x) => x === 0 || x === scene.width)
      expect(ends || [y0, y1].some((y) => y === 0 || Math.abs(y! - lane.height) < 0.2)).toBe(true)
    })
  })
  test.each([
    ['trail of slopes of q', 'Trail of q′ at t = a, dots', 1],
    ['trail of the area under q', 'Trail of the area under q at t = a, dots', -1],
    ['trail of tangents to q at 2', 'Trail of q at t = 2, its tangents', 0],
  ])('“%s” is seen where it has its heights', (words, sentence, order) => {
    const made = said(startStudy('q(t) = t^2 for -3 ≤ t ≤ 3'), words)
    const line = made.lines.at(-1)!
    expect(sentenceText(createEvaluator()(made).sentences.get(line.id)!)).toBe(sentence)
    expect(made.lanes.some((lane) => lane.order === order)).toBe(true)
    expect(createEvaluator()(made).lines.get(line.id)!.problems).toEqual([])
  })
  test('where nothing moves it stays the same', () => {
    const trails = after(range(-0.5, 0.3))
    expect(grownTrails(trails, createEvaluator()(setSlider('a', 0.3)(study)), true)).toBe(trails)
  })
})
