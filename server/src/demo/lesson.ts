import type { StudyInput } from '@yperkine/core'
import { type DemoStudy, demo, flow, lane, time } from './sketch'

type Step = NonNullable<StudyInput['steps']>[number]
const parts = [
  { id: 'part1', letter: 'A', title: 'Two readings' },
  { id: 'part2', letter: 'B', title: 'The tangent' },
  { id: 'part3', letter: 'C', title: 'What its slope says' },
]
const moves = { moves: true, stops: 20, rest: 0.5 }

/** A step with some parts on, at an a and an h. */
const step = (
  id: number,
  [title, question]: readonly [string, string],
  words: string,
  on: string,
  [a, h]: readonly [number, number],
  more: Partial<Step> = {},
): Step => ({
  ...{ id: `step${id}`, title, question, words, values: { a, h }, frame: null, plays: [] },
  parts: parts.map((part) => ({ id: part.id, letter: part.letter, on: on.includes(part.letter) })),
  lanes: [lane('q', 0)],
  ...more,
})
const rate = lane('q', 1)

/** A lesson of eight steps, to be presented. */
export const lessons: DemoStudy[] = [
  demo(0.3, {
    title: 'How fast at this very moment?',
    about: 'A lesson in eight steps, from the secant to the tangent: press P to present it',
    variable: time,
    sliders: [
      { name: 'a', value: 2, from: 0, to: 9, step: 0.05, place: true },
      { name: 'h', value: 4, from: 0.01, to: 6, step: 0.01, place: false, scale: 'growing' },
    ],
    parts: parts.map((part) => ({ ...part, onDeck: true })),
    lines: [
      flow('q', 'ML/h', '6 + 4 sin(0.9t) - 0.3t', '10'),
      {
        kind: 'secant',
        ...{ id: 'line2', part: 'part1', curve: 'q', order: 0, from: 'a', to: 'a + h' },
      },
      {
        kind: 'tangent',
        ...{ id: 'line3', part: 'part2', curve: 'q', order: 0, place: 'a', extent: 'short' },
      },
      {
        kind: 'trail',
        ...{ id: 'line4', part: 'part3', curve: 'q', order: 1, place: 'a', style: 'dots' },
      },
      {
        kind: 'note',
        ...{ id: 'line5', part: 'part3', curve: 'q', order: 0, pin: 'auto', x: 0, y: 0 },
        ...{ size: 'usual', text: 'Less and less comes in.', when: 'q falls at a' },
      },
    ],
    lanes: [lane('q', 0)],
    steps: [
      step(
        1,
        ['The water comes in', 'When does most of it come in? When least?'],
        'Let the class look at the curve first. Nothing is worked out yet.',
        '',
        [2, 4],
      ),
      step(
        2,
        ['Two readings', 'What does the slope of this line tell?'],
        'Four hours apart. The slope is an average: so much more, or less, for each hour.',
        'A',
        [2, 4],
      ),
      step(
        3,
        ['Closer together', 'What changes when the second reading comes nearer?'],
        'Read the slope aloud before and after.',
        'A',
        [2, 1],
      ),
      step(
        4,
        ['As close as can be', 'Where does the line come to rest?'],
        'It plays by itself: h runs down to a hundredth of an hour. Never to 0: why?',
        'A',
        [2, 6],
        {
          plays: [
            {
              slider: 'h',
              motion: { ...moves, manner: 'there and back', pace: 8, stop: 'h ≤ 0.01' },
            },
          ],
        },
      ),
      step(
        5,
        ['The tangent', 'Secant and tangent: can you still tell them apart?'],
        'Switch “Two readings” off and on.',
        'AB',
        [2, 0.01],
      ),
      step(
        6,
        ['Where it stands still', 'What is the slope at the top?'],
        'a moves on until q′(a) = 0, and stops there to all digits.',
        'BC',
        [0.5, 1],
        {
          plays: [
            { slider: 'a', motion: { ...moves, manner: 'once', pace: 18, stop: "q'(a) = 0" } },
          ],
        },
      ),
      step(
        7,
        ['What will the slopes look like?', 'Mark where q′ is positive and where it is negative.'],
        'Give them time. Then uncover, and compare.',
        'B',
        [2, 1],
        { lanes: [lane('q', 0), { ...rate, covered: true, asks: 'signs' }] },
      ),
      step(
        8,
        ['The rate of change', 'Where q falls, q′ is …?'],
        'The dots are the slopes of the tangent on its way.',
        'BC',
        [0, 1],
        {
          lanes: [lane('q', 0), rate],
          plays: [{ slider: 'a', motion: { ...moves, manner: 'once', pace: 12 } }],
        },
      ),
    ],
  }),
]
