import fc from 'fast-check'
import { all, create } from 'mathjs'
import {
  addPart,
  changePart,
  createEvaluator,
  type Edit,
  removeLine,
  renameSymbol,
  say,
  setCondition,
  setSlider,
  shownStudy,
  startStudy,
  type Study,
  workOut,
} from '../..'
import { withoutUnused } from '../../study/edits/unused'
import { keptPart, printCondition, readCondition } from '.'

const math = create(all!, {})

function said(study: Study, words: string): Study {
  const found = say(study, words)
  if ('problem' in found) throw new Error(found.problem)
  return found.study
}
/** A study with q and a slider a, and one line under a condition. */
function under(when: string, formula = 'q(t) = t^3 - 3t for -3 ≤ t ≤ 3', ...edits: Edit[]): Study {
  const said = say(startStudy(formula), 'tangent')
  if ('problem' in said) throw new Error(said.problem)
  const study = edits.reduce((now, edit) => edit(now), said.study)
  return setCondition('line2', when)(study)
}
const showing = (study: Study, a?: number) =>
  createEvaluator()(shownStudy(study, { live: a === undefined ? {} : { a } })).showing.get('line2')!
/** Where a condition holds | and where not. */
const places = (cases: string): [number, boolean][] =>
  cases.split('|').flatMap((list, i) =>
    list
      .trim()
      .split(' ')
      .filter(Boolean)
      .map((a): [number, boolean] => [Number(a), i === 0]),
  )
const shown = (study: Study, a: number) => showing(study, a).shown

describe('numbers are compared', () => {
  test.each([
    ['1 ≤ a ≤ 2', '1 1.5 2 | 0.9 2.1'],
    ['1 < a < 2', '1.1 | 1 2'],
    ['a >= 1 or a <= -1', '-1 1 | 0'],
    ['not a > 1', '1 | 1.1'],
    ['not (a > 1 and a < 2)', '2.5 | 1.5'],
    // Not binds closest, then and, then or.
    ['a > 2 or a < 0 and not a < -1', '-0.5 2.5 | -2 1'],
    ['(a > 2 or a < 0) and a < 1', '-0.5 | 2.5'],
    ['(a + 1)·2 > 4', '1.1 | 1'],
    ['|a| ≠ 1', '0.5 | -1 1'],
    // q(a) = a³ − 3a: positive between −√3 and 0 and beyond √3.
    ['q(a) > 0', '-1.7 1.8 | -1.8 1.7'],
    ["q'(a) = 0", '1 -1 | 0.9'],
  ])('%s: %s', (when, cases) => {
    const study = under(when)
    expect(showing(study).problems).toEqual([])
    for (const [a, expected] of places(cases))
      expect([when, a, shown(study, a)]).toEqual([when, a, expected])
  })

  test('what doubles do not hold is compared as it is meant', () => {
    const study = under('0.1 + 0.2 ≤ 0.3 and a ≥ 0.3 and not a > 0.3')
    expect(shown(study, 0.1 * 3)).toBe(true)
    expect(shown(study, 0.3)).toBe(true)
    expect(shown(study, 0.2999)).toBe(false)
  })

  test('equal is to within half a unit of the last decimal of the study', () => {
    const study = under('a = 1')
    expect([1, 1.0004, 0.9996, 1.0006].map((a) => shown(study, a))).toEqual([
      true,
      true,
      true,
      false,
    ])
    const coarse = { ...study, decimals: 1 }
    expect([1.04, 1.06].map((a) => shown(coarse, a))).toEqual([true, false])
  })

  test('random comparisons hold as mathjs has them', () => {
    const side = fc.constantFrom('a', '2a - 1', 'a^2', '3', 'a/4', '-a', 'sin(a)', 'sqrt(a + 3)')
    const sign = fc.constantFrom('<', '<=', '>', '>=')
    const clause = fc.tuple(side, sign, side).map((all) => all.join(' '))
    const joined = fc
      .array(fc.tuple(fc.constantFrom('and', 'or'), fc.boolean(), clause), { maxLength: 3 })
      .chain((more) =>
        clause.map((first) =>
          more.reduce(
            (text, [word, no, one]) => `${text} ${word} ${no ? 'not ' : ''}(${one})`,
            `(${first})`,
          ),
        ),
      )
    // Away from 0.5·k no two sides above meet.
    const values = fc.constantFrom(-2.3, -1.1, -0.7, 0.3, 0.9, 1.7, 2.6)
    fc.assert(
      fc.property(joined, values, (when, a) => {
        expect([when, a, shown(under(when), a)]).toEqual([when, a, math.evaluate(when, { a })])
      }),
      { numRuns: 150 },
    )
  })
})

describe('what a curve does at a place', () => {
  test.each([
    // q = t³ − 3t falls on [−1, 1] and rises beside; it bends at 0.
    ['q falls at a', '-0.99 0 | -1 1 2'],
    ['q is rising at a', '-2 1.01 | -1 0 1'],
    ['q is concave down at a', '-1 | 0 0.5'],
    ['q is concave up at t = a', '0.5 | 0 -0.5'],
    ["q' falls at a", '-1 | 0 1'],
    // At the ends of the span nothing goes on.
    ['q rises at a', '-2.9 | -3 3'],
    ['q has a high point within 0.05 of a', '-1 -0.95 | -0.9 1'],
    ['q has a low point within 0.05 of a', '1.05 | 1.1 -1'],
    ['q has a turning point at a', '1 | 1.01'],
    ['q has an inflection within 0.1 of a', '0.1 | 0.2'],
    ['q has a zero within 0.01 of a', '1.73 0 | 1.7'],
  ])('%s: %s', (when, cases) => {
    const study = under(when)
    expect(showing(study).problems).toEqual([])
    for (const [a, expected] of places(cases))
      expect([when, a, shown(study, a)]).toEqual([when, a, expected])
  })

  test.each([
    // −t³ falls through 0, where its derivative is 0.
    ['q(t) = -t^3', 'q falls at a', '0 | '],
    ['q(t) = |t|', 'q falls at a', '-0.5 | 0 0.5'],
    ['q(t) = |t|', 'q has a low point within 0 of a', '0 | '],
    // Both pieces fall; across the jump upwards at 1 nothing falls.
    ['q(t) = -t if t < 1; 5 - t otherwise', 'q falls at a', '0.9 1.1 | 1'],
    ['q(t) = floor(t)', 'q rises at a', ' | 0.5 1'],
    ['q(t) = 1/t', 'q falls at a', '-1 1 | 0'],
    ['q(t) = 4', 'q falls at a or q rises at a', ' | 0'],
    ['q(t) = ln t', 'q rises at a', '0.1 | -1 0'],
  ])('of %s: %s: %s', (formula, when, cases) => {
    const study = under(when, formula)
    for (const [a, expected] of places(cases)) {
      const wide = { ...study, sliders: study.sliders.map((s) => ({ ...s, from: -5, to: 5 })) }
      expect([formula, a, shown(wide, a)]).toEqual([formula, a, expected])
    }
  })
})

describe('parts', () => {
  const two: Edit[] = [addPart('Rates'), addPart('Sums')]
  test('a condition that names one holds while it is on, however it is called', () => {
    const study = under('part B and a > 0', undefined, ...two)
    expect(study.lines[1]!.when).toBe('part B[part2] and a > 0')
    expect(showing(study, 1)).toMatchObject({ shown: true, when: 'part B and a > 0' })
    expect(shown(changePart('part2', { on: false })(study), 1)).toBe(false)
    const renamed = {
      ...study,
      parts: study.parts.map((p) => ({ ...p, letter: p.letter === 'B' ? 'K' : 'A' })),
    }
    expect(showing(renamed, 1).when).toBe('part K and a > 0')
  })
  test('one that is gone is told, and the line is shown', () => {
    const study = under('part B and a > 2', undefined, ...two)
    const gone = { ...study, parts: study.parts.slice(0, 1) }
    expect(showing(gone, 0)).toMatchObject({
      shown: true,
      problems: [{ message: 'there is no part B any more', fix: 'drop it', piece: 'part B' }],
    })
    // A new part does not take the place of the one that is gone.
    expect(addPart('New')(gone).parts.at(-1)!.letter).toBe('C')
  })
})

describe('what cannot be read', () => {
  test.each([
    ['a', '“a” claims nothing', 'a'],
    ['a >', 'one side of this comparison is missing', 'a >'],
    ['a > 1 and', 'a condition is missing here', ''],
    ['q jumps at a', '“q jumps at a” claims nothing', 'q jumps at a'],
    ['a > 1 and q falls on a < 2', 'falls', 'q falls on a'],
    ['t > 2', 'a condition cannot depend on t', 't'],
    ['z > 2', 'z', 'z'],
    ['r falls at a', 'nothing is called r', 'r'],
    ['part Q', 'there is no part Q', 'part Q'],
  ])('“%s” is told with its place, and the line is shown', (when, message, piece) => {
    const told = showing(under(when))
    expect(told.shown).toBe(true)
    expect(told.problems[0]!.message).toContain(message)
    expect(told.problems[0]!.piece).toBe(piece)
    expect(workOut(under(when)).lines[1]!.readouts.length).toBeGreaterThan(0)
  })
  test('any text is read or told, and never thrown at', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 60 }), (text) => {
        const read = readCondition(text)
        if (!read.ok) expect(read.problems[0]!.from).toBeLessThanOrEqual(text.length)
      }),
    )
    expect(readCondition('('.repeat(5000)).ok).toBe(false)
    expect(readCondition('not '.repeat(5000) + 'a > 1').ok).toBe(false)
  })
  test('what is printed reads the same', () => {
    for (const when of [
      'not (a > 1 or b < 2) and part C[part3]',
      'a > 1 and (b = 2 or not q falls at a + h)',
      "q'' has an inflection within 0.1 of a or 1 ≤ a ≤ 4",
    ]) {
      const print = (text: string) => {
        const read = readCondition(text)
        if (!read.ok) throw new Error(text)
        return printCondition(read.condition, { part: keptPart })
      }
      expect(print(print(when))).toBe(print(when))
      expect(print(when)).toBe(when.replace(/'/g, '′'))
    }
  })
})

describe('what is never shown', () => {
  test.each([
    ['a > 20', 'never shown for a from −3 to 3'],
    ['q(a) > 100', 'never shown for a from −3 to 3'],
    ['a^2 < 0', 'never shown for a from −3 to 3'],
    ['1 < a and a < 1', 'never shown for a from −3 to 3'],
    ["q'(a) < -4", 'never shown for a from −3 to 3'],
    ['q falls at a + 10', 'never shown for a from −3 to 3'],
    ['part A and a > 20', 'never shown for a from −3 to 3'],
    // These hold somewhere, if only just.
    ['a ≥ 3', null],
    ['q(a) ≥ 18', null],
    ["q'(a) ≤ -3", null],
    ['q falls at a', null],
    ['a = 1.2345', null],
  ])('%s: %s', (when, note) => {
    expect(showing(under(when, undefined, addPart('')), -2.95).note).toBe(note)
  })
  test('with another range it is found anew', () => {
    const study = under('a > 20')
    const wider = { ...study, sliders: study.sliders.map((s) => ({ ...s, to: 30 })) }
    const evaluate = createEvaluator()
    expect(evaluate(study).showing.get('line2')!.note).not.toBeNull()
    expect(evaluate(wider).showing.get('line2')!.note).toBeNull()
  })
})

test('a condition follows the names of sliders and curves, and what is used there is not unused', () => {
  const study = under('q(a) > 0 and q falls at a')
  expect(renameSymbol('q', 'p')(study).lines[1]!.when).toBe('p(a) > 0 and p falls at a')
  // The tangent goes, and the value still hangs on a through its condition alone.
  const more = setCondition('line3', 'a > 1')(said(study, 'value of q at 2'))
  const left = withoutUnused(more, removeLine('line2')(more))
  expect(left.sliders.map((one) => one.name)).toEqual(['a'])
})

test('what is off is not worked out, but its curve still serves others', () => {
  const other = say(under('a > 2'), 'let r(t) = q(t) + 1')
  if ('problem' in other) throw new Error(other.problem)
  const off = setCondition('line1', 'a > 5')(other.study)
  const evaluation = createEvaluator()(setSlider('a', 0)(off))
  expect([...evaluation.off]).toEqual(['line1', 'line2'])
  expect(evaluation.lines.get('line2')!.readouts).toEqual([])
  const r = evaluation.curves.get('r')!
  expect(r.ok && r.curve.f.value(2)).toBe(3)
})
