import { blankStudy, type StoredStudy, type Study } from '@yperkine/core'
import { delayBefore, Refused, TryLater, Unreachable } from '../../api'
import { type AutosaveOptions, createAutosave } from './autosave'

const base = blankStudy()
const titled = (title: string): Study => ({ ...base, title })
const storedAs = (version: number, study: Study): StoredStudy => ({
  id: '00000000-0000-4000-8000-000000000001',
  version,
  study,
  updatedAt: '2026-01-01T00:00:00.000Z',
})

/** A server that keeps one study and can be told to misbehave. */
function pretendServer() {
  const state = {
    version: 1,
    study: base,
    saveId: '',
    calls: [] as { title: string; saveId: string; version: number }[],
  }
  let misbehave: ((act: () => StoredStudy) => StoredStudy) | null = null
  const send: AutosaveOptions['send'] = async (version, study, saveId) => {
    state.calls.push({ title: study.title, saveId, version })
    const act = () => {
      if (saveId !== state.saveId) {
        if (version !== state.version) {
          throw new Refused(409, 'study-changed', 'changed', {
            current: storedAs(state.version, state.study),
          })
        }
        Object.assign(state, { version: version + 1, study, saveId })
      }
      return storedAs(state.version, state.study)
    }
    await Promise.resolve()
    return misbehave ? misbehave(act) : act()
  }
  return { state, send, misbehaveBy: (how: typeof misbehave) => (misbehave = how) }
}

function setUp() {
  const server = pretendServer()
  const statuses: string[] = []
  const faults: string[] = []
  const conflicts: StoredStudy[] = []
  let gone = 0
  let ids = 0
  const autosave = createAutosave({
    version: 1,
    saved: base,
    send: server.send,
    onStatus: (status, fault) => {
      statuses.push(status)
      if (fault) faults.push(fault)
    },
    onConflict: (theirs) => conflicts.push(theirs),
    onGone: () => (gone += 1),
    newSaveId: () => `save${(ids += 1)}`,
    delay: 100,
    random: () => 0.5,
  })
  return { ...server, autosave, statuses, faults, conflicts, goneTimes: () => gone }
}
const pass = (milliseconds: number) => jest.advanceTimersByTimeAsync(milliseconds)

beforeEach(() => jest.useFakeTimers())
afterEach(() => jest.useRealTimers())

test('edits close together leave as one save', async () => {
  const { autosave, state, statuses } = setUp()
  for (const title of ['A', 'B', 'C']) autosave.change(titled(title))
  await pass(1000)
  expect(state.calls.map((c) => c.title)).toEqual(['C'])
  expect(statuses.at(-1)).toBe('Saved')
  expect(autosave.isClean()).toBe(true)
})

test('one save is in flight; what comes meanwhile follows on its version', async () => {
  const { autosave, state } = setUp()
  autosave.change(titled('A'))
  const flight = autosave.flush()
  autosave.change(titled('B'))
  autosave.change(titled('C'))
  await flight
  await pass(1000)
  expect(state.calls).toMatchObject([
    { title: 'A', version: 1 },
    { title: 'C', version: 2 },
  ])
})

test('a lost answer is no conflict with oneself', async () => {
  const { autosave, state, misbehaveBy, conflicts, statuses } = setUp()
  misbehaveBy((act) => {
    act()
    throw new Unreachable('the answer got lost')
  })
  autosave.change(titled('A'))
  await pass(200)
  expect(statuses.at(-1)).toBe('Not saved')
  misbehaveBy(null)
  await pass(5000)
  expect(conflicts).toEqual([])
  expect(statuses.at(-1)).toBe('Saved')
  expect(state.version).toBe(2)
  expect(new Set(state.calls.map((c) => c.saveId)).size).toBe(1)
})

test('a server that is away is tried again until it is back, then the newest state is sent too', async () => {
  const { autosave, state, misbehaveBy } = setUp()
  misbehaveBy(() => {
    throw new Unreachable('nobody there')
  })
  autosave.change(titled('A'))
  await pass(20_000)
  autosave.change(titled('B'))
  await pass(20_000)
  misbehaveBy(null)
  await pass(20_000)
  expect(state.study.title).toBe('B')
  expect(autosave.isClean()).toBe(true)
})

test('someone else’s change stops the saving and is handed over', async () => {
  const { autosave, state, conflicts, statuses } = setUp()
  Object.assign(state, { version: 5, study: titled('Theirs'), saveId: 'other' })
  autosave.change(titled('Mine'))
  await pass(1000)
  expect(conflicts.map((c) => c.study.title)).toEqual(['Theirs'])
  autosave.change(titled('Mine again'))
  await pass(60_000)
  expect(state.calls).toHaveLength(1)
  expect(statuses.at(-1)).toBe('Not saved')
})

test('a state the server will not have is not sent again, a mended one is', async () => {
  const { autosave, state, misbehaveBy, statuses } = setUp()
  misbehaveBy(() => {
    throw new Refused(400, 'bad-study', 'no')
  })
  autosave.change(titled('bad'))
  await pass(60_000)
  expect(state.calls).toHaveLength(1)
  expect(statuses.at(-1)).toBe('Not saved')
  misbehaveBy(null)
  autosave.change(titled('good'))
  await pass(1000)
  expect(state.study.title).toBe('good')
})

test('going back to the saved state needs no save', async () => {
  const { autosave, state, statuses } = setUp()
  autosave.change(titled('A'))
  autosave.change(base)
  await pass(1000)
  expect(state.calls).toEqual([])
  expect(statuses.at(-1)).toBe('Saved')
})

test.each([429, 500, 502, 503, 507])(
  'an answer of %d is no refusal: the save is sent again, told in words, until it is in',
  async (status) => {
    const { autosave, state, misbehaveBy, statuses, faults } = setUp()
    misbehaveBy(() => {
      throw new TryLater(`the server answered ${status}`)
    })
    autosave.change(titled('A'))
    await pass(60_000)
    expect(state.calls.length).toBeGreaterThan(3)
    expect(new Set(state.calls.map((c) => c.saveId)).size).toBe(1)
    expect(statuses.at(-1)).toBe('Not saved')
    expect(faults.at(-1)).toMatch(/^the server answered \d+; trying again in \d+ s$/)
    misbehaveBy(null)
    await pass(60_000)
    expect(statuses.at(-1)).toBe('Saved')
    expect(state.study.title).toBe('A')
  },
)

test('the pauses grow, keep to what the server asks for, and are spread', async () => {
  const { autosave, state, misbehaveBy } = setUp()
  misbehaveBy(() => {
    throw new TryLater('busy', 20)
  })
  autosave.change(titled('A'))
  await pass(19_000)
  expect(state.calls).toHaveLength(1)
  await pass(5000)
  expect(state.calls).toHaveLength(2)
  expect([0, 1, 2, 9].map((n) => delayBefore(n, null, () => 0))).toEqual([1000, 2000, 4000, 10_000])
  expect(delayBefore(0, null, () => 1)).toBe(1250)
})

test('a study deleted elsewhere is told, and nothing more is sent', async () => {
  const { autosave, state, misbehaveBy, goneTimes, statuses } = setUp()
  misbehaveBy(() => {
    throw new Refused(404, 'not-found', 'there is no study with this id')
  })
  autosave.change(titled('A'))
  await pass(1000)
  autosave.change(titled('B'))
  await pass(60_000)
  expect(goneTimes()).toBe(1)
  expect(state.calls).toHaveLength(1)
  expect(statuses.at(-1)).toBe('Not saved')
})

test('what is unsaved can be kept elsewhere, with the save that has left', async () => {
  const { autosave, misbehaveBy } = setUp()
  expect(autosave.unsaved()).toBeNull()
  misbehaveBy(() => {
    throw new Unreachable('nobody there')
  })
  autosave.change(titled('A'))
  await pass(200)
  autosave.change(titled('B'))
  expect(autosave.unsaved()).toMatchObject({
    version: 1,
    study: { title: 'B' },
    flight: { study: { title: 'A' }, saveId: 'save1' },
  })
})

test('the last flush sends what came while a save was under way, too', async () => {
  const { autosave, state } = setUp()
  autosave.change(titled('A'))
  const flight = autosave.flush()
  autosave.change(titled('B'))
  await flight
  expect(state.study.title).toBe('B')
  expect(autosave.unsaved()).toBeNull()
})
