import { blankStudy, type Study } from '@yperkine/core'
import { Refused, type StoredStudy, Unreachable } from '../api'
import { type AutosaveOptions, createAutosave } from './autosave'

const base = blankStudy()
const titled = (title: string): Study => ({ ...base, title })
const storedAs = (version: number, study: Study): StoredStudy => ({
  id: 'x',
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
  const conflicts: StoredStudy[] = []
  let ids = 0
  const autosave = createAutosave({
    version: 1,
    saved: base,
    send: server.send,
    onStatus: (status) => statuses.push(status),
    onConflict: (theirs) => conflicts.push(theirs),
    newSaveId: () => `save${(ids += 1)}`,
    delay: 100,
  })
  return { ...server, autosave, statuses, conflicts }
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
