import fc from 'fast-check'
import {
  createEvaluator,
  renameSymbol,
  say,
  setSlider,
  startStudy,
  type Study,
  workOut,
} from '../..'
import { readWords, renameInWords } from '.'

const begin = (formula = 'q(t) = 6 + t^2 for 0 ≤ t ≤ 10') => said(startStudy(formula), 'tangent')
function said(study: Study, words: string): Study {
  const found = say(study, words)
  if ('problem' in found) throw new Error(`${words}: ${found.problem}`)
  return found.study
}
const spokenIn = (study: Study) => {
  const { lines } = createEvaluator()(study)
  const result = lines.get(study.lines.at(-1)!.id)!
  const mark = result.marks.find((m) => m.kind === 'note' || m.kind === 'body')
  return {
    spoken: mark && 'spoken' in mark ? mark.spoken : null,
    lines: mark?.kind === 'note' ? mark.lines : [],
    problems: result.problems.map((p) => [p.message, p.piece]),
  }
}
/** What a note says while a is 3. */
const told = (text: string, study = begin()) =>
  spokenIn(setSlider('a', 3)(said(study, `note ${text}`)))

describe('the words of a note', () => {
  test.each([
    // q(3) = 15, q′(3) = 6.
    ['q is {q(a)} at {a} h', 'q is 15 at 3 h'],
    ["rises by {q'(a)}", 'rises by 6'],
    ['{{a}} costs \\$2', '{a} costs $2'],
    ['{q(a) - 20}', '−5'],
    ['$q(a) = \\live{q(a)}$', 'q(a) = 15'],
    ['$\\frac{1}{2} \\le x$', '(1)/(2) ≤ x'],
    ['{formula q}', 'q(t) = 6 + t^2'],
    ['plain words, (with) [signs] and 50 %', 'plain words, (with) [signs] and 50 %'],
  ])('%s', (text, spoken) => {
    expect(told(text)).toMatchObject({ spoken, problems: [] })
  })

  test('a value of a curve has its unit, in words and not in mathematics', () => {
    const study = begin()
    const units: Study = {
      ...study,
      variable: { ...study.variable, unit: 'h' },
      lines: study.lines.map((l) => (l.kind === 'curve' ? { ...l, unit: 'ML' } : l)),
    }
    expect(told("{q(a)}, {q'(a)}, {2 q(a)}, $\\live{q(a)}$", units).spoken).toBe(
      '15 ML, 6 ML per h, 30, 15',
    )
  })

  test.each([
    ['a {q(a', 'this brace is never closed; write {{ for a brace', '{q(a'],
    ['a } b', 'this brace closes nothing; write }} for a brace', '}'],
    ['$x', 'this $ is never closed; write \\$ for the sign', '$x'],
    ['{k + 1}', 'k has no value', 'k + 1'],
    ['$\\href{javascript:alert(1)}{x}$', '\\href is not known here', '\\href'],
    ['$\\def\\x{\\x}\\x$', '\\def is not known here', '\\def'],
    ['$\\includegraphics{a}$', '\\includegraphics is not known here', '\\includegraphics'],
    ['$\\begin{document}$', '\\begin{document} is not known here', '\\begin{document}'],
    ['{formula z}', 'nothing is called z', 'z'],
  ])('“%s” is told, and its words stand as they were typed', (text, message, piece) => {
    const { problems, spoken } = told(text)
    expect(problems[0]![0]).toContain(message)
    expect(problems[0]![1]).toBe(piece)
    expect(spoken).toContain(text.replace(/\$.*/, '').trim().slice(0, 3))
  })

  test('any text is read, never thrown at, and what is no value stands as it was', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 80 }), (text) => {
        const { lines, problems } = readWords(text)
        expect(lines.length).toBe(text.split('\n').length)
        for (const { from, to } of problems)
          expect([from <= to, to <= text.length]).toEqual([true, true])
        expect(renameInWords(text, (formula) => formula)).toBe(text)
      }),
    )
    expect(readWords('{'.repeat(4000)).lines.length).toBe(1)
  })

  test('values follow their slider and the names of curves', () => {
    const study = said(begin(), "note {q(a)} and $\\live{q'(a)}$ of {formula q}")
    expect(spokenIn(setSlider('a', 4)(study)).spoken).toBe('22 and 8 of q(t) = 6 + t^2')
    const line = renameSymbol('q', 'w')(study).lines.at(-1)!
    expect(line.kind === 'note' && line.text).toBe("{w(a)} and $\\live{w'(a)}$ of {formula w}")
  })
})

describe('a marker', () => {
  test('rides the curve: its height is the value there, its caption lives', () => {
    const study = said(begin(), 'marker raft on q')
    const captioned: Study = {
      ...study,
      lines: study.lines.map((l) =>
        l.kind === 'marker' ? { ...l, caption: '{a} h, {q(a)} m' } : l,
      ),
    }
    const at3 = setSlider('a', 3)(captioned)
    expect(workOut(at3).lines.at(-1)!.readouts).toMatchObject([{ label: 'height', value: 15 }])
    expect(spokenIn(at3).spoken).toBe('3 h, 15 m')
  })
  test('a pictogram that is missing falls back to a shape, and says so', () => {
    const study = said(begin(), 'marker on q')
    const odd: Study = {
      ...study,
      lines: study.lines.map((l) => (l.kind === 'marker' ? { ...l, shape: 'dragon' } : l)),
    }
    expect(workOut(odd).lines.at(-1)!.notes).toEqual([
      'There is no pictogram “dragon”: a diamond stands for it.',
    ])
  })
  test('outside the span it says so', () => {
    const study = said(begin(), 'marker on q at 20')
    expect(workOut(study).lines.at(-1)!.problems[0]!.message).toContain('outside the span')
  })
  test('a loose point brings two sliders, and stands where they say', () => {
    const study = said(begin(), 'point (2, -1.5)')
    expect(study.sliders.map(({ name, value }) => [name, value])).toEqual(
      expect.arrayContaining([
        ['u', 2],
        ['v', -1.5],
      ]),
    )
    expect(workOut(study).lines.at(-1)!.readouts[0]!.value).toBe(-1.5)
  })
})
