import { all, create } from 'mathjs'
import fc from 'fast-check'
import {
  changeLine,
  createEvaluator,
  createStudy,
  editSlot,
  kindOf,
  movePoint,
  offersFor,
  renameSymbol,
  say,
  sentenceText,
  setSlider,
  type Study,
  studySchema,
  workOut,
} from '../..'
import { studyOf, toldLast } from '../fixtures/testing'

const math = create(all!)

const read = (told: ReturnType<typeof toldLast>, label: string) =>
  told.readouts.find((one) => one.label === label)?.text

const startOf = (text: string): Study => {
  const made = createStudy(text)
  if (!made.ok) throw new Error(made.problems[0]!.message)
  return made.study
}

test.each([
  ['z = x^2 + y^2', 'Surface z = x² + y² over [−5, 5] × [−5, 5]'],
  ['surface z = x y over [0, 2] × [-1, 1]', 'Surface z = x y over [0, 2] × [−1, 1]'],
  [
    'f(x, y) = x - y^2 for -1 <= x <= 3, 0 <= y <= 4',
    'Surface f(x, y) = x − y² over [−1, 3] × [0, 4]',
  ],
  ['f(u, v) = u v over [0, 1]²', 'Surface f(u, v) = u v over [0, 1] × [0, 1]'],
  ['z = √(4 - x^2 - y^2)', 'Surface z = √(4 − x² − y²) over [−2, 2] × [−2, 2]'],
])('“%s” begins a study with “%s”', (typed, sentence) => {
  const study = startOf(typed)
  expect(workOut(study).lines[0]!.sentence).toBe(sentence)
  expect(studySchema.safeParse(study).success).toBe(true)
})

test.each([
  ['z = 3 sin x', 'curve'],
  ['z(x) = x^2', 'curve'],
  ['y = x^2', 'curve'],
])('“%s” stays a curve', (typed, kind) => {
  expect(startOf(typed).lines[0]!.kind).toBe(kind)
})

test('y where a curve is asked for is told, with a surface in one press', () => {
  const made = createStudy('x^2 + y^2')
  expect(made).toMatchObject({ ok: false, problems: [{ replacement: 'z = x^2 + y^2' }] })
  const named = createStudy('f(x) = x y')
  expect(named).toMatchObject({ ok: false, problems: [{ replacement: 'f(x, y) = x y' }] })
  if (!made.ok) expect(createStudy(made.problems[0]!.replacement!).ok).toBe(true)
})

// J. Stewart, Calculus, 14.4, example 1 (from memory): z = 4x + 2y − 3.
test('the tangent plane of an elliptic paraboloid in two forms', () => {
  const told = toldLast('z = 2x^2 + y^2', 'tangent plane at (1, 1)')
  expect(told.sentence).toBe('Tangent plane at (1, 1)')
  expect(read(told, 'height')).toBe('3')
  expect(read(told, '∂z/∂x')).toBe('4x')
  expect(read(told, 'slope along x')).toBe('4')
  expect(read(told, 'plane')).toBe('z = 3 + 4(x − 1) + 2(y − 1)')
  expect(read(told, 'multiplied out')).toBe('z = 4x + 2y − 3')
  expect(read(told, 'gradient')).toBe('(4, 2)')
})

test('partial derivatives keep the names of sliders and the order of the letters', () => {
  const told = toldLast('z = k x^2 y + y^2 x', 'tangent plane at (1, 2)')
  expect(read(told, '∂z/∂x')).toBe('2k x y + y²')
  expect(read(told, '∂z/∂y')).toBe('k x² + 2x y')
})

test('planes of a hundred surfaces touch as mathjs says, and their bound of the error holds', () => {
  const c = fc.integer({ min: -9, max: 9 })
  const at = fc.integer({ min: -20, max: 20 }).map((n) => n / 10)
  fc.assert(
    fc.property(c, c, c, at, at, (p, q, r, a, b) => {
      const ours = `${p} sin(x y) + ${q} x^2 y + ${r} e^(y/3)`
      const theirs = math.parse(`${p} * sin(x*y) + ${q} * x^2 * y + ${r} * exp(y/3)`)
      const study = studyOf(`z = ${ours} over [-3, 3] × [-3, 3]`, `tangent plane at (${a}, ${b})`)
      const near = changeLine('line2', { near: '0.2' })(study)
      const told = workOut(near).lines.at(-1)!
      const [along, across] = ['x', 'y'].map(
        (letter) => math.derivative(theirs, letter).evaluate({ x: a, y: b }) as number,
      ) as [number, number]
      const slope = (letter: string) =>
        told.readouts.find((one) => one.label === `slope along ${letter}`)!.value!
      expect(slope('x')).toBeCloseTo(along, 9)
      expect(slope('y')).toBeCloseTo(across, 9)
      const bound = Number(/at most ([\d.]+)/.exec(told.notes.join(' '))?.[1] ?? NaN)
      const height = theirs.evaluate({ x: a, y: b }) as number
      for (const [u, v] of [
        [0.2, 0.2],
        [-0.2, 0.2],
        [0.1, -0.2],
        [0, 0.2],
      ] as const) {
        const plane = height + along * u + across * v
        const off = Math.abs((theirs.evaluate({ x: a + u, y: b + v }) as number) - plane)
        expect(off).toBeLessThanOrEqual(bound + 1e-12)
      }
    }),
    { numRuns: 100 },
  )
})

// J. Stewart, Calculus, 14.6, example 2 (from memory): (13 − 3√3)/2 at (1, 2) in the direction of π/6.
test('a directional derivative', () => {
  const told = toldLast(
    'f(x, y) = x^3 - 3x y + 4y^2',
    'directional derivative of f at (1, 2) along (√3, 1)',
  )
  const slope = told.readouts.find((one) => one.label === 'slope')!
  expect(slope.value).toBeCloseTo((13 - 3 * Math.sqrt(3)) / 2, 12)
  expect(
    toldLast('z = x y', 'directional derivative at (1, 1) along (0, 0)').problems,
  ).toMatchObject([{ message: expect.stringContaining('points nowhere') as string }])
})

// e^x ln(1 + y) = y + xy − y²/2 + …: a common exercise, by hand.
test('a Taylor polynomial of order 2, with a proven bound', () => {
  const told = toldLast('z = e^x ln(1 + y) over [-1, 1] × [-0.5, 1]', 'taylor at (0, 0), order 2')
  expect(read(told, 'formula')).toBe('z ≈ y + xy − 0.5y²')
  expect(told.notes.join(' ')).toMatch(/no bound of the error is proven|off by at most/)
  const beside = toldLast('z = x y', 'section with y = 1', 'taylor polynomial at (1, 2)')
  expect(beside.sentence).toMatch(/^Taylor polynomial of the surface at \(1, 2\)/)
  const first = toldLast('z = x y', 'taylor polynomial of the surface at (1, 2), order 1')
  expect(read(first, 'formula')).toBe('z ≈ 2 + 2(x − 1) + (y − 2)')
})

test('a section is a curve: its slope is the partial derivative, and all else can be asked of it', () => {
  const study = studyOf(
    'z = x^2 y over [0, 3] × [0, 3]',
    'section with y = 2',
    'section with x = 3',
  )
  const [, along, across] = workOut(study).lines
  expect(along!.sentence).toBe('Section s(x) with y = 2, slope at x = a')
  expect(across!.sentence).toBe('Section r(y) with x = 3, slope at y = b')
  const a = study.sliders.find((s) => s.name === 'a')!.value
  expect(along!.readouts.find((r) => r.label === 'slope')!.value).toBeCloseTo(4 * a, 12)
  expect(across!.readouts.find((r) => r.label === 'slope')!.value).toBe(9)
  const asked = say(study, 'area under s from 0 to 3')
  // ∫₀³ 2x² dx = 18, by hand.
  const area = workOut('study' in asked ? asked.study : study).lines.at(-1)!
  expect(area.readouts.find((r) => r.label === 'exact')?.text).toBe('18')
})

test('critical points say their kind and why, and what is highest on the closed rectangle', () => {
  const told = toldLast('z = x^3 + y^3 - 3x - 12y + 20 over [-3, 3] × [-3, 3]', 'critical points')
  expect(told.verdict?.text).toMatch(/^Complete: 4 points/)
  expect(told.tables[0]!.rows).toEqual([
    ['−1.000', '−2.000', '38.000', 'high', 'D = 72 > 0, z_xx = −6 < 0'],
    ['−1.000', '2.000', '6.000', 'saddle', 'D = −72 < 0'],
    ['1.000', '−2.000', '34.000', 'saddle', 'D = −72 < 0'],
    ['1.000', '2.000', '2.000', 'low', 'D = 72 > 0, z_xx = 6 > 0'],
  ])
  expect(told.notes).toContain('D is z_xx·z_yy − z_xy², of the second derivative test.')
  const said = told.conclusions.map(({ text }) => text)
  // On the corner (3, −2)…: 27 − 9 + 16 + 20 = 54 on the edge x = 3; by hand.
  expect(said[0]).toBe('Highest on the closed rectangle: z = 54 at (3, −2) on an edge')
  expect(said[1]).toBe('Lowest on the closed rectangle: z = −14 at (−3, 2) on an edge')
})

test('where D is 0 the lowest terms say the kind, and a curve of critical points is named', () => {
  const monkey = toldLast('z = x^3 - 3x y^2', 'critical points')
  expect(monkey.verdict?.text).toMatch(/^Complete: one point .*exact arithmetic$/)
  expect(monkey.tables[0]!.rows[0]!.slice(3)).toEqual([
    'saddle',
    'D = 0, lowest terms x³ − 3x y² of both signs',
  ])
  expect(monkey.notes.join(' ')).toMatch(/Where D is 0 the test says nothing/)
  const far = toldLast('z = (x - 1)^4 + (y + 0.5)^2 + 3', 'critical points')
  expect(far.tables[0]!.rows[0]!.slice(3)).toEqual([
    'low',
    'D = 0, lowest terms (x − 1)⁴ + (y + 1/2)² > 0',
  ])
  // By hand: the lowest terms are those of z itself, with its fractions.
  const shares = toldLast('z = x^4/2 - y^4/3 + x^5 + 2 over [-1, 1]²', 'critical points')
  expect(shares.tables[0]!.rows.find((row) => row[0] === '0.000')!.slice(3)).toEqual([
    'saddle',
    'D = 0, lowest terms (1/2) x⁴ − (1/3) y⁴ of both signs',
  ])
  const damped = toldLast('z = (x^4 + y^4) e^(1 - x)', 'critical points')
  expect(damped.tables[0]!.rows[0]!.slice(3)).toEqual(['low', 'D = 0, lowest terms > 0'])
  const ring = toldLast('z = (x^2 + y^2 - 1)^2 over [-2, 2]²', 'critical points')
  expect(ring.verdict?.text).toBe(
    'Complete: both partial derivatives are 0 all along x² + y² = 1 and at one more point, by interval Newton and exact arithmetic',
  )
  expect(ring.conclusions[1]!.text).toBe(
    'Lowest on the closed rectangle: z = 0 on the curve x² + y² = 1, as at (1, 0)',
  )
  const level = toldLast('f(x, y) = 3', 'critical points of the surface')
  expect(level.verdict?.text).toMatch(/^Complete: f is constant/)
  expect(level.conclusions[0]!.text).toBe('Highest on the closed rectangle: f = 3 everywhere')
})

test('what is not settled is told as that, and what is only rounded as rounded', () => {
  expect(toldLast('z = |x| + y^2', 'critical points').notes.join(' ')).toMatch(/folds/)
  const waves = toldLast('z = sin x + sin y + sin(x + y)', 'critical points')
  expect(waves.verdict?.text).toMatch(/^Not complete: close to ≈ \(.*3\.142\) there may be more$/)
  // sin² x + y² is 0 at (−π, 0), (0, 0) and (π, 0): only one of these places is known exactly.
  const valleys = toldLast('z = sin(x)^2 + y^2', 'critical points').conclusions
  expect(valleys[1]!.text).toBe(
    'Lowest on the closed rectangle: z = 0 at ≈ (−3.142, 0), (0, 0) and ≈ (3.142, 0), alike in all digits worked out',
  )
  expect(valleys[0]!.text).toMatch(/: z ≈ 26 at ≈/)
})

test.each([
  ['z(x, y) = x^2', 'Surface z = x² over [−5, 5] × [−5, 5]'],
  ['z = f(x, y) = x + y', 'Surface f(x, y) = x + y over [−5, 5] × [−5, 5]'],
])('%s is a surface', (typed, sentence) => {
  expect(workOut(startOf(typed)).lines[0]!.sentence).toBe(sentence)
})

test.each([
  ['z = ln(-1 - x^2 - y^2)', 'no value at any place looked at'],
  ['z = x^2 + y^2 over [3, -3] × [0, 1]', 'does not end above its beginning'],
])('%s is told with a way out', (typed, words) => {
  const [line] = workOut(startOf(typed)).lines
  expect(line!.problems[0]).toMatchObject({
    message: expect.stringContaining(words) as string,
    fix: expect.any(String) as string,
  })
})

test.each([
  ['z = √(x y)', '(-1, 1)', 'no value'],
  ['z = |x| + y', '(0, 1)', 'no slope in every direction'],
])('the tangent plane of %s at %s', (start, point, words) => {
  const { problems } = toldLast(`${start} over [-3, 3] × [-3, 3]`, `tangent plane at ${point}`)
  expect(problems[0]!.message).toContain(words)
})

test('a point outside the rectangle has its plane, and is told not to be drawn', () => {
  const told = toldLast('z = x^2 + y over [0, 1] × [0, 1]', 'tangent plane at (3, 0)')
  expect(read(told, 'multiplied out')).toBe('z = 6x + y − 9')
  expect(told.notes).toContain('(3, 0) lies outside the rectangle that is drawn.')
})

test('partial derivatives that are there without a plane are told as not proven to touch', () => {
  // xy/(x² + y²), 0 at the origin: both partial derivatives are 0 there, and it is not continuous.
  const told = toldLast(
    'z = x y/(x^2 + y^2) if x^2 + y^2 > 0; 0 otherwise',
    'tangent plane at (0, 0)',
  )
  const words = [...told.notes, ...told.problems.map(({ message }) => message)].join(' ')
  expect(words).toMatch(/not proven|no slope in every direction/)
})

test('a formula that cannot be read keeps the last one; other letters and another rectangle are taken', () => {
  const study = startOf('z = x y')
  const line = study.lines[0]!
  const slot = { slot: 'formula', field: 'formula' } as const
  const put = (text: string, now = study) => {
    const edit = editSlot(now, now.lines[0]!, slot, text)
    if (!edit.ok) throw new Error(edit.message)
    return edit.edit(now)
  }
  const broken = put('z = x y +')
  expect(broken.lines[0]).toMatchObject({ formula: 'x y +', lastGood: 'x y' })
  expect(workOut(broken).lines[0]!.problems).not.toEqual([])
  const evaluation = createEvaluator()(broken)
  expect(evaluation.lines.get(line.id)!.space).toHaveLength(1)
  const other = put('h(u, v) = u - v over [0, 1] × [2, 3]')
  expect(workOut(other).lines[0]!.sentence).toBe('Surface h(u, v) = u − v over [0, 1] × [2, 3]')
  expect(other.title).toBe('h(u, v) = u − v')
  const plane = studyOf('z = x y', 'tangent plane at (1, 2)')
  const renamed = put('h(u, v) = u v', plane)
  expect(workOut(renamed).lines[1]!.sentence).toBe('Tangent plane to h at (1, 2)')
  const side = editSlot(study, line, { slot: 'span', field: 'secondSpan' }, '5 to 1')
  expect(side).toMatchObject({ ok: false, message: expect.stringContaining('swap') as string })
})

test('the letters of a surface are its own', () => {
  const study = studyOf('f(x) = x^2', 'surface z = k x y', 'tangent plane at (1, 2)')
  const renamed = renameSymbol('x', 't')(study)
  expect(workOut(renamed).lines[1]!.sentence).toBe(workOut(study).lines[1]!.sentence)
  const moved = renameSymbol('k', 'm')(study)
  expect(workOut(moved).lines[1]!.sentence).toContain('m x y')
})

test('a point that is dragged moves its sliders, or its typed numbers', () => {
  const sliding = studyOf('z = x y', 'tangent plane')
  const moved = movePoint('line2', 2.3, -1.7)(sliding)
  expect(moved.sliders.map(({ name, value }) => [name, value])).toEqual([
    ['a', 2.3],
    ['b', -1.7],
  ])
  const typed = movePoint('line2', 2.5, 0.5)(studyOf('z = x y', 'tangent plane at (1, 1)'))
  expect(typed.lines[1]).toMatchObject({ x: '2.5', y: '0.5' })
})

test('sliders carry into a surface; huge and tiny numbers are told', () => {
  const study = studyOf('z = k x^2 + y', 'tangent plane at (1, 0)')
  const told = (k: number) => workOut(setSlider('k', k)(study)).lines[1]!
  const bounds = study.sliders.find((s) => s.name === 'k')!
  expect(read(told(bounds.to), 'slope along x')).toBe(String(2 * bounds.to))
  const huge = toldLast('z = 1E200 x^2 + 1E-200 y over [0, 1] × [0, 1]', 'tangent plane at (1, 1)')
  expect(huge.problems).toEqual([])
  expect(huge.readouts.find((r) => r.label === 'slope along x')!.value! / 2e200).toBeCloseTo(1, 12)
})

test.each([
  ['tangent plane', 'plane'],
  ['plane at (1, 1)', 'plane'],
  ['gradient at (1, 2)', 'plane'],
  ['partial derivatives of z', 'plane'],
  ['linear approximation at (0, 0)', 'plane'],
  ['saddle points', 'critical'],
  ['max and min of z', 'critical'],
  ['where are the extrema of the surface', 'critical'],
  ['cross-section y = 1', 'section'],
  ['section along x', 'section'],
  ['slope of z at (1, 1) towards (1, 2)', 'directional'],
  ['second order Taylor polynomial of z at (1, 1)', 'polynomial'],
  ['quadratic approximation at (0, 1)', 'polynomial'],
])('“%s” asks for a line of kind %s', (words, kind) => {
  const study = startOf('z = x^2 y')
  const offer = offersFor(words, study, null)[0]
  expect(offer?.edit(study).lines.at(-1)!.kind).toBe(kind)
})

test('without a surface there is no tangent plane, and a curve keeps what is its own', () => {
  const curve = studyOf('f(x) = x^2 - 3')
  expect(offersFor('tangent plane', curve, null)).toEqual([])
  const both = studyOf('f(x) = x^2 - 3', 'surface z = x y')
  const kinds = (words: string) =>
    offersFor(words, both, null).map(({ edit }) => edit(both).lines.at(-1)!.kind)
  expect(kinds('tangent to f')[0]).toBe('tangent')
  expect(kinds('turning points of f')[0]).toBe('features')
  expect(kinds('critical points of z')[0]).toBe('critical')
  expect(kinds('surface of f over 0 to 1')[0]).toBe('measure')
  const sentence = createEvaluator()(both).sentences.get(both.lines[1]!.id)!
  expect(sentenceText(sentence)).toMatch(/^Surface z = x y/)
  expect(kindOf(both.lines[1]!).topic).toBe('surfaces')
})
