import fc from 'fast-check'
import {
  addPart,
  changeLane,
  changePart,
  changeStep,
  duplicateStep,
  type Edit,
  forgetGone,
  goneFrom,
  keepAsStep,
  moveStep,
  openStep,
  record,
  redo,
  removeLine,
  removePart,
  removeStep,
  renameSymbol,
  say,
  setFrame,
  setGuess,
  setSlider,
  shownStudy,
  startHistory,
  startStudy,
  type Study,
  studySchema,
  takenFromStep,
  toggleLane,
  tryAgain,
  undo,
  workOut,
} from '..'

function said(study: Study, ...words: string[]): Study {
  return words.reduce((now, one) => {
    const found = say(now, one)
    if ('problem' in found) throw new Error(`${one}: ${found.problem}`)
    return found.study
  }, study)
}
/** What an edit makes of a study while a step of it is open. */
const inside = (id: string | null, edit: Edit) => (study: Study) => {
  const shown = shownStudy(study, { step: id })
  return takenFromStep(study, id, shown, edit(shown))
}
const valueIn = (study: Study, step: string | null, name = 'a') =>
  shownStudy(study, { step }).sliders.find((s) => s.name === name)?.value
const through = (study: Study, ...edits: Edit[]) => edits.reduce((now, edit) => edit(now), study)

/** A study with a tangent, and two steps at a = 2 and a = 8. */
const lesson = through(
  said(startStudy('q(t) = t^2/4 for 0 ≤ t ≤ 10'), 'part Slopes', 'tangent'),
  setSlider('a', 2),
  keepAsStep('Early'),
  setSlider('a', 8),
  keepAsStep('Late'),
  setSlider('a', 5),
)

describe('a step', () => {
  test('is kept in full, and a study with steps is a study', () => {
    expect(lesson.steps.map((s) => [s.id, s.title])).toEqual([
      ['step1', 'Early'],
      ['step2', 'Late'],
    ])
    expect([null, 'step1', 'step2'].map((id) => valueIn(lesson, id))).toEqual([5, 2, 8])
    expect(studySchema.safeParse(lesson).success).toBe(true)
  })
  test('takes a change of a value, of switches, frames and lanes to itself', () => {
    const part = lesson.parts[0]!.id
    const changed = through(
      lesson,
      inside('step1', setSlider('a', 3)),
      inside('step1', changePart(part, { on: false })),
      inside('step1', setFrame([1, 4])),
      inside('step1', toggleLane('q', 1)),
    )
    const states = [null, 'step1', 'step2'].map((step) => {
      const shown = shownStudy(changed, { step })
      return [shown.sliders[0]!.value, shown.parts[0]!.on, shown.frame, shown.lanes.length]
    })
    expect(states).toEqual([
      [5, true, null, 1],
      [3, false, [1, 4], 2],
      [8, true, null, 1],
    ])
  })
  test('passes a change of the study on to all', () => {
    const changed = inside('step1', (study) =>
      said(study, 'let r(t) = 9 - t', 'value of r at 4', 'part Sums', 'area under q over 0 to 2'),
    )(lesson)
    for (const step of [null, 'step1', 'step2']) {
      const shown = shownStudy(changed, { step })
      expect(shown.lines).toHaveLength(5)
      expect(shown.parts.map((p) => p.on)).toEqual([true, true])
      // The new curve is drawn everywhere, and the new slider n stands where it was put.
      expect(
        shown.lanes.some((l) => l.curve === 'r' || l.overlays.some((o) => o.curve === 'r')),
      ).toBe(true)
      expect(valueIn(changed, step, 'n')).toBe(8)
    }
    // Its slider moved in the study leaves the steps as they are.
    const moved = setSlider('n', 20)(changed)
    expect([null, 'step1', 'step2'].map((s) => valueIn(moved, s, 'n'))).toEqual([20, 8, 8])
  })
  test('says what is gone and shows the rest', () => {
    const wide = through(
      said(lesson, 'let r(t) = 9 - t', 'tangent to r at b'),
      toggleLane('r', 1),
      keepAsStep('Both'),
    )
    const step = wide.steps.at(-1)!
    expect(goneFrom(step, wide)).toEqual([])
    const line = (kind: string, curve: string) =>
      wide.lines.find((l) => l.kind === kind && 'curve' in l && l.curve === curve)!.id
    const curve = wide.lines.find((l) => l.kind === 'curve' && l.name === 'r')!.id
    const poor = through(
      wide,
      removeLine(line('tangent', 'r')),
      removeLine(curve),
      (s) => ({ ...s, sliders: s.sliders.filter((one) => one.name !== 'b') }),
      removePart(wide.parts[0]!.id, 'stay'),
    )
    const gone = goneFrom(poor.steps.at(-1)!, poor)
    expect(gone).toEqual(expect.arrayContaining(['slider b', 'lane r′', 'part A']))
    const shown = shownStudy(poor, { step: step.id })
    expect(shown.lanes.map((l) => l.curve)).toEqual(['q'])
    expect(valueIn(poor, step.id)).toBe(5)
    // Nothing of it is lost until someone says so.
    const still = inside(step.id, setSlider('a', 1))(poor)
    expect(goneFrom(still.steps.at(-1)!, still)).toEqual(gone)
    const tidy = inside(step.id, forgetGone(step.id))(still)
    expect(goneFrom(tidy.steps.at(-1)!, tidy)).toEqual([])
    expect(valueIn(tidy, step.id)).toBe(1)
  })
  test('keeps its lanes when a curve is called otherwise', () => {
    const named = renameSymbol('q', 'g')(lesson)
    expect(goneFrom(named.steps[0]!, named)).toEqual([])
    expect(shownStudy(named, { step: 'step1' }).lanes[0]!.curve).toBe('g')
  })
  test('a value outside the bounds of its slider stands at the bound', () => {
    const narrow: Study = {
      ...lesson,
      sliders: lesson.sliders.map((s) => ({ ...s, to: 6 })),
    }
    expect(valueIn(narrow, 'step2')).toBe(6)
  })
  test('keeps answers of its own, and earlier tries', () => {
    const lane = lesson.lanes[0]!.id
    const asked = inside('step1', changeLane(lane, { covered: true }))(lesson)
    const guess: [number, number][] = [
      [0, 1],
      [4, 5],
    ]
    const answered = through(
      asked,
      inside('step1', setGuess(lane, guess)),
      inside('step1', tryAgain(lane)),
      inside('step1', setGuess(lane, [...guess, [9, 9]])),
    )
    const { answers } = shownStudy(answered, { step: 'step1' })
    expect(answers.guesses[lane]).toHaveLength(3)
    expect(answers.earlier).toEqual([{ lane, guess }])
    expect(shownStudy(answered, { step: 'step2' }).answers.guesses).toEqual({})
    expect(shownStudy(answered, {}).answers.guesses).toEqual({})
    expect(removeStep('step1')(answered).answers.steps).toEqual({})
    expect(inside('step1', removeStep('step1'))(answered).answers.steps).toEqual({})
    expect(studySchema.safeParse(answered).success).toBe(true)
  })
})

describe('the order of steps', () => {
  const titles = (study: Study) => study.steps.map((s) => s.title)
  test('moved, duplicated, renamed, taken out', () => {
    expect(titles(moveStep('step2', 'step1')(lesson))).toEqual(['Late', 'Early'])
    const twice = duplicateStep('step1')(lesson)
    expect(titles(twice)).toEqual(['Early', 'Early again', 'Late'])
    expect(new Set(twice.steps.map((s) => s.id)).size).toBe(3)
    expect(titles(changeStep('step2', { title: 'Last' })(lesson))).toEqual(['Early', 'Last'])
    expect(titles(removeStep('step1')(lesson))).toEqual(['Late'])
    expect(titles(keepAsStep('Between', 'step1')(lesson))).toEqual(['Early', 'Between', 'Late'])
  })
  test('no more than a study holds', () => {
    const many = Array.from({ length: 120 }).reduce<Study>((s) => keepAsStep()(s), lesson)
    expect(many.steps).toHaveLength(100)
    expect(duplicateStep('step1')(many)).toBe(many)
  })
})

test('undo goes back to the step in which something was changed, and forth again', () => {
  let history = openStep(startHistory(lesson), 'step1')
  history = record(history, inside('step1', setSlider('a', 3))(history.present))
  history = openStep(history, 'step2')
  history = record(history, inside('step2', setSlider('a', 9))(history.present))
  history = openStep(history, 'step1')
  history = undo(history)
  expect([history.step, valueIn(history.present, 'step2')]).toEqual(['step2', 8])
  history = undo(history)
  expect([history.step, valueIn(history.present, 'step1')]).toEqual(['step1', 2])
  history = redo(openStep(history, 'step2'))
  expect([history.step, valueIn(history.present, 'step1')]).toEqual(['step1', 3])
  // A step that goes is not open any more, and is again when it comes back.
  history = record(history, removeStep('step1')(history.present))
  expect(history.step).toBeNull()
  expect(undo(history).step).toBe('step1')
})

test('a study without open step changes as it always did', () => {
  fc.assert(
    fc.property(fc.double({ min: 0, max: 10, noNaN: true }), (a) => {
      const plain = { ...lesson, steps: [] }
      expect(inside(null, setSlider('a', a))(plain)).toEqual(setSlider('a', a)(plain))
      const kept = inside(null, setSlider('a', a))(lesson)
      expect([valueIn(kept, 'step1'), valueIn(kept, 'step2')]).toEqual([2, 8])
    }),
  )
})

test('a step is worked out by its id or its title', () => {
  const slope = (step?: string) =>
    workOut(lesson, step === undefined ? {} : { step }).lines[1]!.readouts[0]!.value
  // By hand: the slope of t²/4 is t/2.
  expect([slope(), slope('step1'), slope('Late')]).toEqual([2.5, 1, 4])
  expect(() => slope('Nowhere')).toThrow(RangeError)
})

test('a step that is removed while it is open leaves the study its own values', () => {
  const without = inside('step2', removeStep('step2'))(lesson)
  expect(without.steps.map((s) => s.id)).toEqual(['step1'])
  expect(valueIn(without, null)).toBe(5)
  expect(studySchema.safeParse(without).success).toBe(true)
})

test('a part made while a step is open is on everywhere', () => {
  const study = inside('step1', addPart('New'))(lesson)
  expect(shownStudy(study, { step: 'step2' }).parts.map((p) => p.on)).toEqual([true, true])
})
