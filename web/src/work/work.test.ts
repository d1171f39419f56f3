import { createStudy, offersFor, setSlider } from '@yperkine/core'
import { drive } from './drive'
import { latestWins, type Running } from './latest'
import { sharingParts } from './sharing'

function* counting(steps: number): Generator<number, string> {
  for (let i = 0; i < steps; i++) yield i / steps
  return 'done'
}

describe('driving a long piece of work', () => {
  test('it breathes after every slice, and tells how far it is', async () => {
    let clock = 0
    const told: number[] = []
    let breaths = 0
    const result = await drive(counting(30), {
      slice: 5,
      now: () => (clock += 1),
      breathe: () => {
        breaths += 1
        return Promise.resolve()
      },
      isCancelled: () => false,
      onProgress: (share) => told.push(share),
    })
    expect(result).toBe('done')
    expect(breaths).toBeGreaterThan(3)
    expect(told).toEqual([...told].sort((a, b) => a - b))
  })

  test('cancelled, it stops at the next breath without a result', async () => {
    let clock = 0
    let cancelled = false
    let steps = 0
    function* endless(): Generator<number, string> {
      for (;;) {
        steps += 1
        yield 0
      }
    }
    const result = await drive(endless(), {
      now: () => (clock += 1),
      breathe: () => {
        cancelled = steps > 20
        return Promise.resolve()
      },
      isCancelled: () => cancelled,
      onProgress: () => undefined,
    })
    expect(result).toBeNull()
    expect(steps).toBeLessThan(60)
  })
})

describe('a queue of one, where the latest wins', () => {
  function setUp() {
    const started: string[] = []
    const stopped: string[] = []
    const ends = new Map<string, (result: string | null) => void>()
    const results: string[] = []
    const queue = latestWins<string, string>((job): Running<string> => {
      started.push(job)
      return {
        result: new Promise((resolve) => ends.set(job, resolve)),
        stop: () => stopped.push(job),
      }
    })
    queue.onResult = (result) => results.push(result)
    const end = async (job: string, result: string | null) => {
      ends.get(job)!(result)
      await new Promise((resolve) => setImmediate(resolve))
    }
    return { queue, started, stopped, results, end }
  }

  test('of many questions only the first and the last are worked on', async () => {
    const { queue, started, stopped, results, end } = setUp()
    for (const job of ['a', 'b', 'c', 'd']) queue.ask(job)
    expect(started).toEqual(['a'])
    expect(new Set(stopped)).toEqual(new Set(['a']))
    await end('a', null)
    expect(started).toEqual(['a', 'd'])
    await end('d', 'answer to d')
    expect(results).toEqual(['answer to d'])
  })

  test('an answer that comes too late is not handed on', async () => {
    const { queue, results, end } = setUp()
    queue.ask('a')
    queue.ask('b')
    await end('a', 'answer to a')
    await end('b', 'answer to b')
    expect(results).toEqual(['answer to b'])
  })

  test('stopped, it hands nothing on and takes the next question', async () => {
    const { queue, results, end } = setUp()
    queue.ask('a')
    queue.stop()
    await end('a', 'answer to a')
    queue.ask('b')
    await end('b', 'answer to b')
    expect(results).toEqual(['answer to b'])
  })
})

describe('a study that comes over again', () => {
  const created = createStudy('f(x) = x^3 - 3x')
  if (!created.ok) throw new Error(created.problems[0]!.message)
  const before = offersFor('tangent', created.study, null)[0]!.edit(created.study)
  const again = (study: typeof before) => sharingParts(structuredClone(study), before)

  test('keeps as the same objects what is the same, and takes what is not', () => {
    const moved = again(setSlider('a', 1)(before))
    expect(moved.lines[0]).toBe(before.lines[0])
    expect(moved.variable).toBe(before.variable)
    expect(moved.sliders[0]!.value).toBe(1)
    const line = { ...before.lines[1]!, look: { hidden: true } }
    const changed = again({ ...before, lines: [before.lines[0]!, line] })
    expect(changed.lines[0]).toBe(before.lines[0])
    expect(changed.lines[1]).toEqual(line)
    expect(changed.lines[1]).not.toBe(before.lines[1])
  })

  test('a line that has gone is gone', () => {
    expect(again({ ...before, lines: before.lines.slice(0, 1) }).lines).toHaveLength(1)
    expect(sharingParts(before, null)).toBe(before)
  })
})
