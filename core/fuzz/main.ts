import { parentPort, workerData } from 'node:worker_threads'
import {
  compile,
  createEvaluator,
  createSceneMaker,
  createStudy,
  examine,
  offersFor,
  parseFormula,
  riemannSum,
  type Study,
  thumbnail,
  toText,
} from '../src'
import { chanceFrom, decimalBreak, productOfPowers, randomFormula } from './formulas'
import { anyStudy } from './studies'

/** One case of a fuzzer: it throws, or says in words what is wrong, where something is. */
type Fuzzer = (seed: number) => string | null

const spans = [
  [-10, 10],
  [0, 1],
  [-3, 3],
  [0.1, 7.3],
  [-1, 2],
] as const

const read = (text: string) => {
  const parsed = parseFormula(text)
  return parsed.ok ? parsed.tree : null
}

/** Lines of a study that could not be worked out, which no formula may bring about. */
function crashed(study: Study): string | null {
  for (const { problems } of createEvaluator({ patience: Infinity })(study).lines.values()) {
    const found = problems.find((p) => p.message.includes('could not be worked out'))
    if (found) return found.message
  }
  return null
}

const characters = [...'0123456789.,+-*/^()[]{}|<>=; xyeπ√³½∞\\_\'"abcifothersin\u0000\ud800∫']

const fuzzers: Record<string, Fuzzer> = {
  'formulas examined on five spans': (seed) => {
    const tree = read(randomFormula(chanceFrom(seed)))
    if (!tree) return 'a formula was not read'
    const f = compile(tree)
    for (const [from, to] of spans) {
      const { complete, unresolved } = examine(f, from, to)
      if (complete !== (unresolved.length === 0)) return 'complete and unresolved contradict'
    }
    return null
  },
  'decimal breaks, features and strips': (seed) => {
    const { formula, from, to } = decimalBreak(chanceFrom(seed))
    const f = compile(read(formula)!)
    examine(f, from, to)
    for (const rule of ['left', 'lower', 'upper', 'simpson'] as const) {
      riemannSum(f, { from, to, count: 8, rule })
    }
    return null
  },
  'areas and rates of products': (seed) => {
    const made = createStudy(productOfPowers(chanceFrom(seed)))
    if (!made.ok) return made.problems[0]!.message
    const study = ['area 1 to 2', 'rate', 'average 1 to 2', 'features'].reduce(
      (so, words) => offersFor(words, so, null)[0]?.edit(so) ?? so,
      made.study,
    )
    return crashed(study)
  },
  'printed and read again': (seed) => {
    const tree = read(randomFormula(chanceFrom(seed), 4))!
    const again = read(toText(tree))
    if (!again) return `unread: ${toText(tree)}`
    const [f, g] = [compile(tree), compile(again)]
    for (const x of [-2.3, -0.4, 0.3, 1.9, 5.1]) {
      const [a, b] = [f.value(x), g.value(x)]
      const same = Object.is(a, b) || Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a)) || a === b
      if (!same) return `${toText(tree)} at ${x}: ${a} and ${b}`
    }
    return null
  },
  'studies with any numbers, drawn': (seed) => {
    const study = anyStudy(chanceFrom(seed))
    const heights = Object.fromEntries(study.lanes.map((l) => [l.id, 200]))
    const scene = createSceneMaker()(createEvaluator()(study), { width: 800, heights })
    const text = JSON.stringify([scene, thumbnail(study, 148, 66)], (key, value: unknown) =>
      typeof value === 'number' && !Number.isFinite(value) ? `broken ${key}` : value,
    )
    return /"broken \w*"|[ML]-?(NaN|Infinity)/.exec(text)?.[0] ?? null
  },
  'texts of any characters, read': (seed) => {
    const chance = chanceFrom(seed)
    const length = 1 + chance.below(chance.once(50) ? 20_000 : 60)
    parseFormula(Array.from({ length }, () => chance.pick(characters)).join(''))
    return null
  },
}

interface Job {
  name: string
  seed: number
  /** When to stop, in milliseconds from the start. */
  milliseconds: number
}

if (parentPort) {
  const { name, seed, milliseconds } = workerData as Job
  const fuzzer = fuzzers[name]!
  const began = performance.now()
  let slowest = { milliseconds: 0, seed }
  let tried = 0
  const faults: { seed: number; words: string }[] = []
  for (let at = seed; performance.now() - began < milliseconds; at++) {
    parentPort.postMessage({ at })
    const start = performance.now()
    try {
      const words = fuzzer(at)
      if (words !== null) faults.push({ seed: at, words })
    } catch (error) {
      faults.push({ seed: at, words: String(error) })
    }
    tried += 1
    const took = performance.now() - start
    if (took > slowest.milliseconds) slowest = { milliseconds: took, seed: at }
  }
  parentPort.postMessage({ done: { tried, faults, slowest } })
}

export const fuzzerNames = Object.keys(fuzzers)
