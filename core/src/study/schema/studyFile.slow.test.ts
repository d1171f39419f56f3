import fc from 'fast-check'
import {
  addPart,
  changeDisplay,
  changeStudy,
  keepAsStep,
  offersFor,
  readStudyFile,
  setFrame,
  setGuess,
  setSlider,
  type Study,
  writeStudyFile,
} from '../..'
import { flood, spoken } from '../../requests/fixtures/testing'

const words = spoken.map(([said]) => said)

/** Texts as people write them, and as those do who mean harm. */
const text = fc.oneof(
  fc.string({ unit: 'grapheme', maxLength: 40 }),
  fc.constantFrom(
    '<script>alert(1)</script>',
    ']]>',
    '=1+1',
    '\\input{x}\\write18{ls}',
    '"\' `${a}` {a}',
    'شمس البحيرة',
    '😀 e\u0301 \u202Eabc',
    '0.1',
    '__proto__',
  ),
)
const title = text.map((t) => t.trim().slice(0, 60) || 'A study')

/** A number that a pointer can come to; JSON has no sign of nought. */
const finite = fc.double({ noNaN: true, noDefaultInfinity: true }).map((x) => x + 0)

/** A study of random lines, values, parts, steps and answers, each put in as a person would. */
const study = fc
  .record({
    said: fc.shuffledSubarray(words, { minLength: 1, maxLength: 14 }),
    title,
    about: text,
    noted: text,
    heading: title,
    look: fc.constantFrom('paper', 'night', 'chalk'),
    decimals: fc.integer({ min: 0, max: 12 }),
    value: finite,
    frame: fc.tuple(
      fc.double({ min: -1e6, max: 1e6, noNaN: true }),
      fc.double({ min: 1e-6, max: 1e6, noNaN: true }),
    ),
    guess: fc.array(fc.tuple(finite, finite), {
      maxLength: 5,
    }),
    steps: fc.integer({ min: 0, max: 4 }),
  })
  .map((made): Study => {
    const say = (now: Study, what: string) => offersFor(what, now, null)[0]?.edit(now) ?? now
    let now = flood()
    for (const what of made.said) now = say(now, what)
    now = say(now, `note ${made.noted.slice(0, 80)}`)
    now = addPart(made.heading)(now)
    now = changeStudy({ title: made.title, about: made.about.trim(), decimals: made.decimals })(now)
    now = changeDisplay({ look: made.look })(now)
    now = setFrame([made.frame[0] + 0, made.frame[0] + made.frame[1]])(now)
    const lane = now.lanes[0]
    if (lane) now = setGuess(lane.id, made.guess)(now)
    for (let i = 0; i < made.steps; i++) {
      for (const { name } of now.sliders) now = setSlider(name, made.value / (i + 1))(now)
      now = keepAsStep(made.heading)(now)
    }
    return now
  })

test('a study that went out as a file comes in the same, whatever is in it', () => {
  const kinds = new Set<string>()
  fc.assert(
    fc.property(study, (out) => {
      expect(readStudyFile(writeStudyFile(out))).toEqual({ ok: true, study: out })
      for (const { kind } of out.lines) kinds.add(kind)
    }),
    { numRuns: 250 },
  )
  // Each kind that can be said was among them.
  expect(kinds.size).toBeGreaterThanOrEqual(spoken.length - 6)
})
