import {
  changeFormula,
  createStudy,
  examine,
  goTo,
  offersFor,
  setGuess,
  setSignGuess,
  setSlider,
  type Study,
  toggleLane,
} from '@yperkine/core'
import { createWorkbench, type WorkbenchStore } from './index'

function study(...words: string[]): Study {
  const created = createStudy('q(t) = 6 + 4 sin(0.9t) - 0.3t for 0 ≤ t ≤ 10')
  if (!created.ok) throw new Error(created.problems[0]!.message)
  return words.reduce((now, say) => offersFor(say, now, null)[0]!.edit(now), created.study)
}
/** A workbench as large as a screen, so that it has a picture. */
function opened(...words: string[]): WorkbenchStore {
  const store = createWorkbench('one', study(...words))
  const { lanes } = store.getState().history.present
  store
    .getState()
    .resize({ width: 800, heights: Object.fromEntries(lanes.map((l) => [l.id, 300])) })
  return store
}
const valueOf = (store: WorkbenchStore, name = 'a') =>
  store.getState().evaluation.study.sliders.find((s) => s.name === name)!.value
const slopeOf = (store: WorkbenchStore) =>
  [...store.getState().evaluation.lines.values()]
    .flatMap((r) => r.readouts)
    .find((o) => o.label === 'slope')!.value!

describe('what is kept still while something moves', () => {
  test('a lane that opens together with a sweep shows its whole curve, and stays as it is', () => {
    const store = opened('tangent')
    const { apply, play, resize } = store.getState()
    apply(toggleLane('q', 1))
    play()
    const { lanes } = store.getState().history.present
    resize({ width: 800, heights: Object.fromEntries(lanes.map((l) => [l.id, 150])) })
    const heights = () => store.getState().scene.lanes.find((l) => l.order === 1)!.y
    const [low, high] = heights()
    expect(low).toBeLessThan(-3.9)
    expect(high).toBeGreaterThan(3.3)
    // Another formula would reach further; while something plays the frame is what it was.
    apply(changeFormula('line1', '20 sin(t)'))
    expect(heights()).toEqual([low, high])
  })
})

describe('an edit', () => {
  test('reaches study, results and picture in one notification', () => {
    const store = opened('tangent')
    let told = 0
    store.subscribe(() => (told += 1))
    store.getState().apply(setSlider('a', 2))
    expect(told).toBe(1)
    expect(valueOf(store)).toBe(2)
    expect(slopeOf(store)).toBeCloseTo(3.6 * Math.cos(1.8) - 0.3, 12)
    const flag = store.getState().scene.flags.find((f) => f.text === 'a')!
    expect(flag.value).toBe(2)
  })

  test('that changes nothing is not remembered', () => {
    const store = opened('tangent')
    const before = store.getState()
    store.getState().apply((s) => s)
    expect(store.getState()).toBe(before)
  })

  test('edits of one gesture are undone as one, and done again', () => {
    const store = opened('tangent')
    const { apply, undo, redo, release } = store.getState()
    for (const a of [5.1, 5.2, 5.3]) apply(setSlider('a', a), 'drag.1')
    release()
    for (const a of [6, 7]) apply(setSlider('a', a), 'drag.2')
    undo()
    expect(valueOf(store)).toBe(5.3)
    undo()
    expect(valueOf(store)).toBe(5)
    redo()
    redo()
    expect(valueOf(store)).toBe(7)
    redo()
    expect(store.getState().announcement.trim()).toBe('Nothing to do again')
  })
})

describe('the frame', () => {
  test('stays still while something is held, and follows when it is let go', () => {
    const store = opened('tangent')
    const { x, lanes } = store.getState().scene
    store.getState().hold()
    store.getState().apply(changeFormula('line1', '100 t'), 'drag.1')
    expect(store.getState().scene.x).toEqual(x)
    expect(store.getState().scene.lanes[0]!.y).toEqual(lanes[0]!.y)
    store.getState().release()
    expect(store.getState().scene.lanes[0]!.y[1]).toBeGreaterThan(900)
  })

  test('what is left can be come back to, with the lines as they are by then', () => {
    const store = opened('tangent')
    const { x } = store.getState().scene
    store.getState().leave()
    store.getState().apply(goTo([1, 2]))
    expect(store.getState().scene.x).toEqual([1, 2])
    store.getState().apply(setSlider('a', 1.5))
    store.getState().comeBack()
    expect(store.getState().scene.x).toEqual(x)
    expect(valueOf(store)).toBe(1.5)
    expect(store.getState().left).toBeNull()
  })
})

describe('motion', () => {
  const playing = () => {
    const store = opened('tangent')
    store.getState().play()
    return store
  }
  test('moves what is seen and leaves the history alone until it is paused', () => {
    const store = playing()
    const { history } = store.getState()
    store.getState().tick(1)
    expect(valueOf(store)).not.toBe(5)
    expect(store.getState().history).toBe(history)
    const at = valueOf(store)
    store.getState().pause()
    expect(valueOf(store)).toBe(at)
    expect(store.getState().history.present.sliders[0]!.value).toBe(at)
    expect(store.getState().announcement).toMatch(/^a = /)
  })

  test('keeps its frame, goes there and back, and stays inside its bounds', () => {
    const store = playing()
    const { x } = store.getState().scene
    const seen: number[] = []
    for (let i = 0; i < 200; i++) {
      store.getState().tick(0.1)
      seen.push(valueOf(store))
      expect(store.getState().scene.x).toEqual(x)
    }
    expect(Math.min(...seen)).toBeGreaterThanOrEqual(0)
    expect(Math.max(...seen)).toBeLessThanOrEqual(10)
    const turns = seen.filter((v, i) => {
      const [before, after] = [seen[i - 1], seen[i + 1]]
      return before !== undefined && after !== undefined && (v - before) * (after - v) < 0
    })
    expect(turns.length).toBeGreaterThanOrEqual(1)
  })

  test('an edit by hand stops it where it is', () => {
    const store = playing()
    store.getState().tick(1)
    store.getState().hold()
    expect(store.getState().courses).toBeNull()
  })

  test('a step is one step of the slider, and is undone', () => {
    const store = opened('tangent')
    store.getState().step(1)
    expect(valueOf(store)).toBeCloseTo(5.1, 12)
    store.getState().step(-1)
    store.getState().step(-1)
    expect(valueOf(store)).toBeCloseTo(4.9, 12)
    store.getState().undo()
    expect(valueOf(store)).toBeCloseTo(5, 12)
  })
})

describe('what the worker finds', () => {
  test('is drawn for the curve it was asked about, and dimmed once that has changed', () => {
    const store = opened('rate')
    const curve = () => store.getState().evaluation.curves.get('q')!
    const asked = curve()
    if (!asked.ok) throw new Error(asked.problem.message)
    const { f, from, to } = asked.curve
    store
      .getState()
      .setFinding('q', { subject: asked, from, to, examination: examine(f, from, to) })
    const rings = () =>
      store.getState().scene.lanes[0]!.items.filter((i) => i.key.startsWith('turn'))
    expect(rings().length).toBeGreaterThan(2)
    expect(rings().every((i) => !i.dimmed)).toBe(true)
    store.getState().apply(changeFormula('line1', 't^2'))
    expect(rings().every((i) => i.dimmed === true)).toBe(true)
    store.getState().setFinding('q', null)
    expect(rings()).toEqual([])
  })

  test('takes the place of a pending result, and never of a newer one', () => {
    const store = opened('tangent')
    const [id, result] = [...store.getState().evaluation.lines].at(-1)!
    const settled = { readouts: [], marks: [], problems: [{ message: 'found' }], hints: [] }
    store.getState().apply(setSlider('a', 3))
    store.getState().settle(result, settled)
    expect(store.getState().evaluation.lines.get(id)!.problems).toEqual([])
    const now = store.getState().evaluation.lines.get(id)!
    store.getState().settle(now, settled)
    expect(store.getState().evaluation.lines.get(id)!.problems).toEqual([{ message: 'found' }])
  })
})

describe('what is selected and marked', () => {
  test('a place that is none is not selected, and the same one tells nobody', () => {
    const store = opened('tangent')
    store.getState().selectPlace('a')
    expect(store.getState().selectedPlace).toBe('a')
    let told = 0
    store.subscribe(() => (told += 1))
    store.getState().selectPlace('a')
    expect(told).toBe(0)
    store.getState().selectPlace('nowhere')
    expect(store.getState().selectedPlace).toBeNull()
  })

  test('marked signs and guesses belong to their lane and are cleared one by one', () => {
    const store = opened('tangent')
    const guess = { from: 0, to: 10, cuts: [], signs: [1 as const] }
    const { apply } = store.getState()
    const drawn = [
      [0, 1],
      [1, 2],
    ] as const
    apply(setSignGuess('lane1', guess))
    apply(setGuess('lane1', drawn))
    const answers = () => store.getState().evaluation.study.answers
    expect(answers()).toMatchObject({ guesses: { lane1: drawn }, signs: { lane1: guess } })
    apply(setSignGuess('lane1', null))
    expect([answers().guesses, answers().signs]).toEqual([{ lane1: drawn }, {}])
    store.getState().undo()
    expect(answers().signs).toEqual({ lane1: guess })
  })

  test('the same words twice are spoken twice', () => {
    const store = opened('tangent')
    store.getState().announce('Line removed')
    const first = store.getState().announcement
    store.getState().announce('Line removed')
    expect(store.getState().announcement).not.toBe(first)
    expect(store.getState().announcement.trim()).toBe('Line removed')
  })
})
