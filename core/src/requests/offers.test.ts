import { begin, offersFor, studySchema, understand, whyNothing } from '..'
import { allKinds } from '../statements'
import { spoken, flood, added, readyFor } from './fixtures/testing'

/** As people say it who do not know the lines' own words. */
const everyday: readonly (readonly [words: string, sentence: string])[] = [
  ['limit of q(t) as t approaches infinity', 'Limit of q as t → ∞'],
  ['lim t → 2+ of q', 'Limit of q as t → 2 from the right'],
  ['limit of q at 2 from below', 'Limit of q as t → 2 from the left'],
  ['is q differentiable at t = 3?', 'Is q continuous and differentiable at t = 3?'],
  ['what is the slope of q at t = 2?', 'Tangent to q at t = 2'],
  ['slope of q between 2 and 5', 'Secant to q from t = 2 to t = 5'],
  ['rate of change of q from 2 to 5', 'Average rate of q over [2, 5]'],
  ['derivative of q at 3', 'Value of q′ at t = 3'],
  ['second derivative of q', 'Rate of change of the rate q′′(t) = −3.24 sin(0.9t)'],
  ['chord of q from 1 to 3', 'Secant to q from t = 1 to t = 3'],
  ['Δy', 'Secant to q from t = a to t = a + h'],
  ['mean value theorem', 'Mean value theorem for q on [0, 10]'],
  ['mean of q over 1 to 4', 'Average of q over [1, 4]'],
  ['average slope of q between t = 1 and t = 4', 'Average rate of q over [1, 4]'],
  ['q(3)', 'Value of q at t = 3'],
  ["q'(t) = 2", 'Where is q′ = 2 on [0, 10]'],
  ['for which t is q = 5?', 'Where is q = 5 on [0, 10]'],
  ['solve q(t) = r(t)', 'Where does q meet r on [0, 10]'],
  ['intersections', 'Where does q meet r on [0, 10]'],
  ['where is the tangent horizontal', 'Where is q′ = 0 on [0, 10]'],
  ['where does the slope equal 2', 'Where is q′ = 2 on [0, 10]'],
  ['when does q reach 5?', 'Where is q = 5 on [0, 10]'],
  ['where is q increasing', 'Taking q as f: conclusions about f on [0, 10]'],
  ['find the maximum of q', 'Turning points of q on [0, 10]'],
  ['points of inflection', 'Inflections of q on [0, 10]'],
  ['roots of q', 'Zeros of q on [0, 10]'],
  ['integral of q from 1 to 4', 'Area under q over [1, 4] with n = 8 strips, height at the left'],
  ['Riemann sum', 'Area under q over [0, 10] with n = 8 strips, height at the left'],
  ['upper sum', 'Area under q over [0, 10] with n = 8 strips, height at the greatest value'],
  [
    'trapezoidal rule for q on [0, 5] with n = 20',
    'Area under q over [0, 5] with n = 20 strips, height along a slanted top',
  ],
  [
    'Riemann sum of q from 1 to 7 with 1 strip',
    'Area under q over [1, 7] with n = 1 strip, height at the left',
  ],
  ['displacement of q', 'Speeding up and slowing down of q on [0, 10], read as a velocity'],
  ['antiderivative of q', 'Let A(t) be the area under q from 0 to t'],
  ['area under q from 0 to t', 'Let A(t) be the area under q from 0 to t'],
  ['area between q and r from 1 to 4', 'Area between q and r over [1, 4]'],
]

describe('what is said and what is offered', () => {
  test.each(spoken)('“%s” offers “%s”', (words, sentence) => {
    const study = readyFor(words)
    const sentences = offersFor(words, study, null).map((o) => o.sentence)
    expect(sentences[0]).toBe(sentence)
  })

  test.each(everyday)('“%s” is understood as “%s”', (words, sentence) => {
    const study = added(flood(), 'let r(t) = 5 - t/4')
    const offered = offersFor(words, study, null).map((o) => o.sentence)
    expect(offered[0]).toBe(sentence)
  })

  test.each([...spoken, ...everyday])('no word of “%s” is left over', (words) => {
    const study = readyFor(words)
    expect(understand(words, study).unread).toEqual([])
  })

  test('a count and a rule that are said are there at once', () => {
    const study = added(flood(), 'midpoint rule of q from 0 to 5 with 20 strips')
    expect(study.sliders.map(({ name, value }) => [name, value])).toEqual([
      ['n', 20],
      ['s', 0.5],
    ])
  })

  test.each([
    ['intersection', 'That takes a second curve: let r(t) = …'],
    ['let q(t) = 2t', 'There is a curve q already'],
    ['data', 'Readings from a file or a list'],
    ['new curve', 'let r(t) = …'],
    ['area with n = 0', 'from 1 to 10,000'],
    ['left sum with 20000 strips', 'from 1 to 10,000'],
    ['zzz', 'Nothing fits “zzz” yet'],
  ])('“%s” offers nothing and says why', (words, why) => {
    expect(offersFor(words, flood(), null)).toEqual([])
    expect(whyNothing(words, flood())).toContain(why)
  })

  test('words that are not understood are not taken for a curve', () => {
    expect(offersFor('where is the lagoon = 2', flood(), null)).toEqual([])
    expect(understand('area under y', flood()).unread).toEqual(['y'])
  })

  test.each(['where does q meet r', 'area between q and r'])(
    '“%s” draws both on one lane, once',
    (words) => {
      const asked = added(added(flood(), 'let r(t) = 5 - t/4'), words)
      expect(asked.lanes[0]!.overlays).toEqual([{ curve: 'r', order: 0 }])
      expect(added(asked, 'where does q meet r').lanes).toEqual(asked.lanes)
    },
  )

  test('every kind of line can be asked for', () => {
    const study = spoken.reduce((now, [words]) => added(now, words), flood())
    const kinds = new Set(study.lines.map((l) => l.kind))
    // Readings come from a file, and a fit from the table it belongs to.
    const others = allKinds.map((k) => k.kind).filter((k) => k !== 'readings' && k !== 'fit')
    expect(others.filter((k) => !kinds.has(k))).toEqual([])
  })

  test('every offer makes a study that can be stored, and adds one line', () => {
    let count = 0
    for (const [words] of spoken.slice(1)) {
      const study = readyFor(words)
      for (const offer of offersFor(words, study, null)) {
        const next = offer.edit(study)
        expect(studySchema.safeParse(next).success).toBe(true)
        expect(next.lines).toHaveLength(study.lines.length + 1)
        count += 1
      }
    }
    expect(count).toBeGreaterThan(spoken.length)
  })
})

test.each([
  ['figures', '9'.repeat(20_000)],
  ['spaces', `area${' '.repeat(20_000)}x`],
  ['parentheses', '('.repeat(3000)],
  ['the same words', 'tangent and '.repeat(300)],
  ['spans', 'from 1 to 2 '.repeat(50)],
  ['places', `tangent at ${'1 '.repeat(250)}`],
  ['one long number', `tangent at ${'9'.repeat(80)} x`],
  ['integrals', `${'∫_0^1 '.repeat(60)}x${' dx'.repeat(60)}`],
])('a text of nothing but %s comes to an end, and adds nothing it does not say', (_, text) => {
  const { offers, unread } = understand(text, flood())
  expect(offers.length === 0 || unread.length > 0 || text.includes('area')).toBe(true)
  expect(begin(text).added).toEqual([])
})
