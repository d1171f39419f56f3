import { blankStudy, type StoredStudy, type Study } from '@yperkine/core'
import { createDrafts, type Draft, reconcile } from './drafts'
import type { Storage } from './storage'

const titled = (title: string): Study => ({ ...blankStudy(), title })
const draftOf = (title: string, version = 1): Draft => ({
  version,
  study: titled(title),
  flight: null,
})

/** A browser's storage: one store for all tabs, and one for each. */
function pretendBrowser() {
  const shared = new Map<string, unknown>()
  const open = new Set<string>()
  const tab = (name: string, own = new Map<string, unknown>()) => {
    open.add(name)
    const storage: Storage = {
      refused: null,
      keep: async (key, value) => void shared.set(key, structuredClone(value)),
      drop: async (key) => void shared.delete(key),
      find: async (key) => shared.get(key),
      findAll: async (prefix) => [...shared].filter(([key]) => key.startsWith(prefix)),
      keepInTab: (key, value) => void own.set(key, structuredClone(value)),
      dropInTab: (key) => void own.delete(key),
      findInTab: (key) => own.get(key) ?? null,
    }
    const drafts = createDrafts(storage, name, async (other) => open.has(other))
    return { drafts, own, close: () => open.delete(name) }
  }
  return { shared, tab }
}
const titleOf = (draft: Draft | null) => draft?.study.title

test('what one tab has saved says nothing of what another has not', async () => {
  const browser = pretendBrowser()
  const [a, b] = [browser.tab('a'), browser.tab('b')]
  await a.drafts.keep('s', draftOf('A works'))
  await b.drafts.keep('s', draftOf('B works'))
  await a.drafts.drop('s')
  expect(titleOf((await b.drafts.find('s')).draft)).toBe('B works')
  expect((await a.drafts.find('s')).draft).toBeNull()
})

test('a closed tab’s work is taken over by one tab, and by one alone', async () => {
  const browser = pretendBrowser()
  const a = browser.tab('a')
  await a.drafts.keep('s', draftOf('left behind'))
  a.close()
  const [b, c] = [browser.tab('b'), browser.tab('c')]
  expect(titleOf((await b.drafts.find('s')).draft)).toBe('left behind')
  expect((await c.drafts.find('s')).draft).toBeNull()
  expect(titleOf((await b.drafts.find('s')).draft)).toBe('left behind')
})

test('what was kept while the page went comes before what was kept earlier, and not after', async () => {
  const browser = pretendBrowser()
  const { drafts, own } = browser.tab('a')
  await drafts.keep('s', draftOf('earlier'))
  drafts.keepNow('s', draftOf('last'))
  // The page has gone and is loaded again in the same tab.
  const again = browser.tab('a', own)
  expect(titleOf((await again.drafts.find('s')).draft)).toBe('last')
  await again.drafts.keep('s', draftOf('later'))
  expect(titleOf((await again.drafts.find('s')).draft)).toBe('later')
})

test('a draft that cannot be read is kept, handed out as it is, and dropped only when asked', async () => {
  const browser = pretendBrowser()
  const { drafts } = browser.tab('a')
  const tomorrow = { version: 3, study: { ...titled('x'), format: 99 }, flight: null }
  browser.shared.set('draft s a', tomorrow)
  for (let visit = 0; visit < 2; visit++) {
    const { draft, unreadable } = await drafts.find('s')
    expect(draft).toBeNull()
    expect(unreadable.map(({ text }) => JSON.parse(text) as unknown)).toEqual([tomorrow])
  }
  await drafts.dropUnreadable((await drafts.find('s')).unreadable[0]!)
  expect((await drafts.find('s')).unreadable).toEqual([])
})

test('a draft of the time before tabs had their own is found', async () => {
  const browser = pretendBrowser()
  browser.shared.set('draft s', { version: 2, study: titled('older'), sent: null })
  const { draft } = await browser.tab('a').drafts.find('s')
  expect(draft).toMatchObject({ version: 2, study: { title: 'older' }, flight: null })
})

test('drafts of one study are not those of another whose id begins alike', async () => {
  const { drafts } = pretendBrowser().tab('a')
  await drafts.keep('s1', draftOf('other'))
  expect((await drafts.find('s')).draft).toBeNull()
})

describe('what is opened', () => {
  const stored = (title: string, version: number): StoredStudy => ({
    id: '00000000-0000-4000-8000-000000000001',
    version,
    study: titled(title),
    updatedAt: '2026-01-01T00:00:00.000Z',
  })
  test.each([
    ['nothing unsaved', stored('kept', 4), null, 'kept', false],
    ['work that goes on from it', stored('kept', 4), draftOf('mine', 4), 'mine', false],
    ['work on an older state', stored('theirs', 5), draftOf('mine', 4), 'mine', true],
    ['work that is there already', stored('mine', 5), draftOf('mine', 4), 'mine', false],
    [
      'a save whose answer was lost',
      stored('sent', 5),
      { ...draftOf('mine', 4), flight: { study: titled('sent'), saveId: 'x' } },
      'mine',
      false,
    ],
  ])('%s', (_name, server, draft, shown, conflict) => {
    const opened = reconcile(server, draft)
    expect(opened.study.title).toBe(shown)
    expect(opened.theirs !== null).toBe(conflict)
  })
})
