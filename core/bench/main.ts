/* Speed as ratios in one run: only the ratios travel from machine to machine. */
import { all, create } from 'mathjs'
import { hostileTexts } from '../reference/hostile'
import integrals from '../reference/integrals.json'
import minima from '../reference/minima.json'
import reference from '../reference/values.json'
import {
  accumulate,
  compile,
  createEvaluator,
  createSceneMaker,
  createStudy,
  examine,
  fitPolynomial,
  integrate,
  minimizeGlobally,
  offersFor,
  overShort,
  parseFormula,
  riemannSum,
  say,
  setCondition,
  setSlider,
  startStudy,
  type Study,
} from '../src'

const mathjs = create(all!)
const rounds = 15

/** The shortest of several runs, in milliseconds: the one least disturbed by other programs. */
function fastest(work: () => void, repeat = rounds): number {
  work()
  let best = Infinity
  for (let i = 0; i < repeat; i++) {
    const started = performance.now()
    work()
    best = Math.min(best, performance.now() - started)
  }
  return best
}
/**
 * The shortest run of each of several works, in turns, so that a busy moment of the machine falls
 * on all of them alike.
 */
function race<K extends string>(works: Record<K, () => void>, turns = 60): Record<K, number> {
  const names = Object.keys(works) as K[]
  const best = Object.fromEntries(names.map((name) => [name, Infinity])) as Record<K, number>
  for (let turn = 0; turn < turns; turn++) {
    for (const name of names) best[name] = Math.min(best[name], fastest(works[name], 1))
  }
  return best
}
const report = (what: string, milliseconds: number, against?: number) => {
  const ratio = against === undefined ? '' : `${(milliseconds / against).toFixed(2)} ×`
  console.log(`${what.padEnd(58)}${milliseconds.toFixed(3).padStart(10)} ms${ratio.padStart(12)}`)
}
function read(text: string, names: string[] = []) {
  const parsed = parseFormula(text, { names })
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  return parsed.tree
}

/** A formula of 14 operations, in our language, in mathjs and by hand. */
const formula = '6 + 4 sin(0.9x) - 0.3x + x^2/(1 + x^2) - cos(2x) e^(-x/5)'
const forMathjs = '6 + 4*sin(0.9*x) - 0.3*x + x^2/(1 + x^2) - cos(2*x)*exp(-x/5)'
const byHand = (x: number) =>
  6 + 4 * Math.sin(0.9 * x) - 0.3 * x + (x * x) / (1 + x * x) - Math.cos(2 * x) * Math.exp(-x / 5)

/** True errors beside the bounds told, and evaluations beside those of SciPy's quad. */
function areas() {
  const named: Record<string, number> = { pi: Math.PI, e: Math.E, inf: Infinity, '-inf': -Infinity }
  const end = (text: string) => named[text] ?? Number(text)
  const worst: Record<string, number> = { smooth: 0, singular: 0 }
  let [ours, theirs, held, both] = [0, 0, 0, 0]
  for (const { formula, from, to, kind, value, quad } of integrals.table) {
    const found = integrate(compile(read(formula)), end(from), end(to))
    const error = Math.abs(found.value - Number(value))
    if (error <= found.errorBound) held += 1
    if (kind in worst) {
      worst[kind] = Math.max(worst[kind]!, error / Math.max(1, Math.abs(Number(value))))
    }
    if (quad !== null) {
      ours += found.evaluations
      theirs += quad
      both += 1
    }
  }
  console.log(`\n${integrals.table.length} integrals, mpmath ${integrals.mpmath}`)
  console.log(`true error within the bound: ${held}`)
  for (const [kind, error] of Object.entries(worst)) {
    console.log(`worst error, ${kind}: ${error.toExponential(1)}`)
  }
  console.log(`evaluations on ${both} of them: ${ours}, SciPy ${integrals.scipy} quad: ${theirs}`)
  const f = compile(read('6 + 4 sin(0.9x) - 0.3x'))
  const strips = (count: number, rule: 'midpoint' | 'upper' | 'lower') => () =>
    void riemannSum(f, { from: 0, to: 10, count, rule })
  const byLoop = () => {
    let total = 0
    for (let i = 0; i < 100_000; i++) {
      const x = (i + 0.5) / 10_000
      total += 6 + 4 * Math.sin(0.9 * x) - 0.3 * x
    }
    return total / 10_000
  }
  const area = accumulate(f, 0, 0, 10)
  const made = riemannSum(f, { from: 0, to: 10, count: 1000, rule: 'left' })
  const turns = examine(f, 0, 10).criticalPoints.map((p) => p.x)
  const times = race(
    {
      loop: () => void byLoop(),
      midpoint: strips(100_000, 'midpoint'),
      upper: strips(100_000, 'upper'),
      lower: strips(100_000, 'lower'),
      slivers: () => void overShort(f, made.strips, 'left', area, turns),
      accumulate: () => void accumulate(f, 0, 0, 10),
    },
    20,
  )
  report('100,000 midpoints in a hand-written loop', times.loop, times.loop)
  report('100,000 strips, midpoint', times.midpoint, times.loop)
  report('100,000 strips, upper sum', times.upper, times.loop)
  report('100,000 strips, lower sum', times.lower, times.loop)
  report('over and short of 1,000 strips', times.slivers, times.loop)
  report('area as a function, made once', times.accumulate, times.loop)
}

function searches() {
  let [worst, looks] = [0, 0]
  for (const { formula, from, to, value } of minima.table) {
    const found = minimizeGlobally(compile(read(formula)), { from, to })
    worst = Math.max(worst, found.value - value)
    looks += found.evaluations
  }
  const places = Array.from({ length: 21 }, (_, i) => i)
  const readings = places.map((x) => x ** 5 + x ** 4 + x ** 3 + x ** 2 + x + 1)
  const { coefficients } = fitPolynomial(places, readings, 5)
  const off = Math.max(...coefficients.map((c) => Math.abs(c - 1)))
  console.log(
    `\nLowest values of ${minima.table.length} problems: worst ${worst.toExponential(1)} above`,
  )
  console.log(`looks for each, on average: ${Math.round(looks / minima.table.length)}`)
  console.log(`Wampler1, degree 5, worst coefficient: ${off.toExponential(1)}`)
}

function evaluation() {
  const f = compile(read(formula))
  const theirs = mathjs.compile(forMathjs)
  const xs = Float64Array.from({ length: 10_000 }, (_, i) => i / 1000)
  const out = new Float64Array(xs.length)
  let sink = 0
  const eachOf = (apply: (x: number) => number) => () => {
    for (let i = 0; i < xs.length; i++) out[i] = apply(xs[i]!)
    sink += out[7]!
  }
  const times = race({
    hand: eachOf(byHand),
    many: () => {
      f.values(xs, out)
      sink += out[7]!
    },
    one: eachOf((x) => f.value(x)),
  })
  const slow = race(
    {
      mathjs: eachOf((x) => theirs.evaluate({ x }) as number),
      derivatives: eachOf((x) => f.derivatives(x, 2)[2]!),
    },
    6,
  )
  console.log(`\nA formula of 14 operations at ${xs.length} places`)
  report('hand-written JavaScript', times.hand, times.hand)
  report('values, many at once', times.many, times.hand)
  report('value, one at a time', times.one, times.hand)
  report('derivatives to order 2', slow.derivatives, times.hand)
  report('mathjs, compiled expression', slow.mathjs, times.hand)
  report('mathjs against values, many at once', slow.mathjs, times.many)
  if (Number.isNaN(sink)) throw new Error('the compared functions went out of their domain')
}

function reading() {
  const long = Array.from({ length: 700 }, (_, i) => `${i}.5 sin(${i}x)`)
    .join(' + ')
    .slice(0, 10_000)
  const text = long.slice(0, long.lastIndexOf(' + '))
  const asReference = text.replace(/(\d) sin\((\d+)x\)/g, '$1*sin($2*x)')
  console.log(`\nReading ${text.length} characters`)
  const theirs = fastest(() => void mathjs.parse(asReference), 5)
  report('mathjs', theirs, theirs)
  report(
    'parseFormula',
    fastest(() => void parseFormula(text), 5),
    theirs,
  )
  const slowest = hostileTexts
    .map(([what, hostile]) => ({ what, time: fastest(() => void parseFormula(hostile), 3) }))
    .reduce((a, b) => (b.time > a.time ? b : a))
  report(`slowest of ${hostileTexts.length} hostile texts: ${slowest.what}`, slowest.time, theirs)
}

function dragging() {
  const created = createStudy(`q(x) = ${formula}`)
  if (!created.ok) throw new Error('unreadable')
  let study = created.study
  for (const words of ['tangent', 'value', "value of q'", "tangent to q'", "value of q''"]) {
    study = offersFor(words, study, null)[0]!.edit(study)
  }
  study = {
    ...study,
    lanes: [0, 1, 2].map((order) => ({
      kind: 'lane' as const,
      id: `lane${order}`,
      curve: 'q',
      order,
      frame: null,
      overlays: [],
      covered: false,
      equalScale: false,
      share: null,
    })),
  }
  const viewport = { width: 792, heights: { lane0: 250, lane1: 200, lane2: 200 } }
  const fresh = fastest(() => void createSceneMaker()(createEvaluator()(study), viewport), 5)
  const move = (of: typeof study) => {
    const evaluate = createEvaluator()
    const makeScene = createSceneMaker()
    const show = (s: typeof study) => makeScene(evaluate(s), { ...viewport, hurried: true })
    show(of)
    let step = 0
    return fastest(() => {
      step += 1
      show(setSlider('a', (step % 90) / 10)(of))
    }, 200)
  }
  console.log('\nThree lanes, six lines: results and display list')
  report('from nothing', fresh, fresh)
  const moved = move(study)
  report('after moving a place by one step', moved, fresh)
  report('the same with a condition, a caption and five notes', move(staged(study)), moved)
}

/** With a condition on a line, a body with a caption, and notes with live values. */
function staged(study: Study): Study {
  const words = ['marker raft on q', ...[1, 2, 3, 4, 5].map((i) => `note ${i}: {q(a)}, {q'(a)}`)]
  const dressed = words.reduce((now, one) => offersFor(one, now, null)[0]!.edit(now), study)
  return setCondition(
    study.lines[1]!.id,
    'q falls at a or 0 ≤ a ≤ 9',
  )({
    ...dressed,
    lines: dressed.lines.map((line) =>
      line.kind === 'marker' ? { ...line, caption: '{a} h, {q(a)}' } : line,
    ),
  })
}

/** The worst errors against the table of mpmath, in the measures that docs/accuracy.md promises. */
function accuracy() {
  let value = { error: 0, where: '' }
  const derivatives = Array.from({ length: 7 }, () => ({ error: 0, where: '' }))
  for (const { formula, x, derivatives: texts } of reference.table) {
    const exact = texts.map(Number)
    const ours = compile(read(formula)).derivatives(Number(x), 6)
    const size = Math.abs(exact[0]!) + Math.abs(Number(x) * exact[1]!)
    const error = Math.abs(ours[0]! - exact[0]!) / size
    const where = `${formula} at ${x}`
    if (error > value.error) value = { error, where }
    for (let k = 1; k <= 6; k++) {
      if (exact[k] === 0) continue
      const off = Math.abs(ours[k]! - exact[k]!) / Math.abs(exact[k]!)
      if (off > derivatives[k]!.error) derivatives[k] = { error: off, where }
    }
  }
  console.log(`\nWorst errors at ${reference.table.length} places, ${reference['made with']}`)
  const line = (what: string, { error, where }: typeof value) =>
    console.log(`${what.padEnd(34)}${error.toExponential(1).padStart(8)}   ${where}`)
  line('value, over |f| + |x f′|', value)
  for (let k = 1; k <= 6; k++) line(`derivative ${k}, relative`, derivatives[k]!)
}

/** Functions on which lists of features are easily wrong. */
const hardList: [formula: string, from: number, to: number][] = [
  ['sin(20x)', 0, 3],
  ['100 e^(-x) + sin(300x) e^(-50x)', 0, 10],
  ['e^(-x/2) + 0.002 e^(-((x - 0.2)/0.001)^2)', 0, 10],
  ['(x - 1)^2 (x - 2)^3 (x + 1)', -2, 3],
  ['|x^2 - 1| sin x', -2, 2],
  ['floor(3x) + x', 0, 4],
  ['tan x', -10, 10],
  ['sin(1/x)', 0.01, 1],
  ['x^12 - 3x^7 + x - 1', -2, 2],
  ['sin(x)/x', -20, 20],
  ['(1 - cos x)/x^2', -4, 4],
  ['2sin x + sin(2x)', 0, 7],
  ['x^x', 0, 2],
]
const textbookList: [formula: string, from: number, to: number][] = [
  ['6 + 4 sin(0.9x) - 0.3x', 0, 10],
  ['x^3 - 3x', -2, 2],
  ['x e^(-x)', 0, 6],
  ['x^2/(x^2 + 1)', -4, 4],
  ['x ln x', 0, 3],
  ['x^(2/3)', -1, 2],
]

function examinations() {
  for (const [what, list] of [
    ['textbook functions', textbookList],
    ['hard list', hardList],
  ] as const) {
    console.log(`\nZeros, turning points, inflections, breaks and extremes with proof: ${what}`)
    for (const [formula, from, to] of list) {
      const f = compile(read(formula))
      const { boxes, complete } = examine(f, from, to)
      const ms = fastest(() => void examine(f, from, to), 3)
      const said = complete ? 'complete' : 'not settled'
      console.log(
        `${formula.padEnd(46)}${ms.toFixed(1).padStart(8)} ms${String(boxes).padStart(7)} boxes  ${said}`,
      )
    }
  }
}

/** A thousand tangents while a slider of their curve moves, over the same lines written by hand. */
function families() {
  console.log('\nA thousand tangents that move with a slider of their curve')
  let study = startStudy('f(x) = c x^2/4 + sin x for -4 <= x <= 4')
  for (const words of ['let c = 1', 'tangents to f for x from -4 to 4, 1000 of them']) {
    const said = say(study, words)
    if ('problem' in said) throw new Error(said.problem)
    study = said.study
  }
  const evaluate = createEvaluator()
  const makeScene = createSceneMaker()
  const viewport = { width: 800, heights: { [study.lanes[0]!.id]: 500 }, hurried: true }
  let c = 1
  let length = 0
  const { ours, byHand } = race(
    {
      ours() {
        c = c > 9 ? 1 : c + 0.1
        const scene = makeScene(evaluate(setSlider('c', c)(study)), viewport)
        length += scene.lanes[0]!.items.length
      },
      byHand() {
        c = c > 9 ? 1 : c + 0.1
        let d = ''
        for (let i = 0; i < 1000; i++) {
          const x = -4 + (8 * i) / 999
          const [y, slope] = [(c * x * x) / 4 + Math.sin(x), (c * x) / 2 + Math.cos(x)]
          const [left, right] = [y - slope * (x + 4), y + slope * (4 - x)]
          d += `M0 ${(250 - 50 * left).toFixed(1)}L800 ${(250 - 50 * right).toFixed(1)}`
        }
        length += d.length
      },
    },
    20,
  )
  report('by hand', byHand)
  report(`study, results and scene${length > 0 ? '' : '?'}`, ours, byHand)
}

accuracy()
examinations()
areas()
searches()
evaluation()
reading()
dragging()
families()
