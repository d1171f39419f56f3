import { useMutation } from '@tanstack/react-query'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react'
import { allTopics, presentFormat, type StudySummary } from '@yperkine/core'
import { formatDistanceToNowStrict } from 'date-fns'
import { MoreHorizontal, Search } from 'lucide-react'
import { useDeferredValue, useEffect, useState } from 'react'
import { Link } from 'react-router'
import { api, TryLater } from '../api'
import { EditableText } from '../parts/EditableText'
import { byLastOpened } from '../openings'
import { Mark } from '../parts/Mark'
import { BringIn } from './BringIn'
import { FunctionField } from './FunctionField'
import { Thumbnail } from './Thumbnail'
import { useStudies, useStudyActions } from './useStudies'

export function StudiesPage() {
  const [search, setSearch] = useState('')
  const [topic, setTopic] = useState('')
  const wanted = useDeferredValue(search.trim())
  const list = useStudies(wanted, topic, 'false')
  const examples = useStudies(wanted, topic, 'true')
  const { create, remove, restore, refresh, deleted, forgetDeleted, fault } = useStudyActions()
  useEffect(() => {
    document.title = 'Studies · Yperkine'
  }, [])
  const [own, given] = [list, examples].map(({ data }) =>
    byLastOpened(data?.pages.flatMap((page) => page.studies) ?? []),
  ) as [StudySummary[], StudySummary[]]
  const studies = [...own, ...given]
  const groups = [
    { title: '', label: 'Studies', all: own, more: list },
    { title: 'Examples', label: 'Example studies', all: given, more: examples },
  ]

  return (
    <div className="min-h-full">
      <header className="flex h-[46px] items-center gap-3 border-b border-rule px-4">
        <Mark />
        <span className="font-serif text-[calc(17px*var(--type))] font-semibold">Yperkine</span>
      </header>
      <main className="mx-auto max-w-[1120px] px-5 pt-8 pb-24">
        <div className="flex items-baseline gap-4">
          <h1 className="font-serif text-[calc(28px*var(--type))] font-semibold">Studies</h1>
          {list.data && (
            <span className="text-quiet">
              {list.hasNextPage ? `the newest ${studies.length}` : studies.length}{' '}
              {studies.length === 1 ? 'study' : 'studies'}
            </span>
          )}
          <div className="ml-auto flex flex-wrap items-center justify-end gap-2 self-center">
            <BringIn onChanged={() => void refresh()} />
            <button
              type="button"
              className="button button-primary"
              onClick={() => create({ study: null })}
            >
              New study
            </button>
          </div>
        </div>
        <FunctionField onCreate={(study, left) => create({ study, left })} />
        {fault && (
          <p role="alert" className="mt-3 text-brick">
            That did not work: {fault.message}. Nothing you typed is lost; try again.
          </p>
        )}
        <ListTrouble list={list} />
        <Finder search={search} onSearch={setSearch} topic={topic} onTopic={setTopic} />
        {list.data && examples.data && studies.length === 0 && (
          <p className="mt-8 text-quiet">
            {wanted !== '' || topic !== ''
              ? 'No study is called or about that. Try fewer words or another topic, or type a function above.'
              : 'There are no studies yet. Type a function above, and start from its graph.'}
          </p>
        )}
        {groups
          .filter(({ all }) => all.length > 0)
          .map(({ title, label, all, more }) => (
            <section key={label} className="mt-6">
              {title && (
                <h2 className="mb-2 font-serif text-[calc(19px*var(--type))] font-semibold">
                  {title}
                </h2>
              )}
              <ul aria-label={label} className="border-t border-rule">
                {all.map((study) => (
                  <StudyRow
                    key={study.id}
                    study={study}
                    onRemove={() => remove(study)}
                    onChanged={() => void refresh()}
                  />
                ))}
              </ul>
              {more.hasNextPage && (
                <button
                  type="button"
                  className="button mt-4"
                  disabled={more.isFetchingNextPage}
                  onClick={() => void more.fetchNextPage()}
                >
                  {title === '' ? 'Show older studies' : 'Show more examples'}
                </button>
              )}
            </section>
          ))}
      </main>
      <div aria-live="polite" className="fixed inset-x-0 bottom-6 flex justify-center">
        {deleted && (
          <div className="popover flex items-center gap-4 px-4 py-2">
            <span>Deleted “{deleted.title}”</span>
            {/* The row that had the focus is gone: its way back has it now. */}
            <button
              key={deleted.id}
              ref={takeFocus}
              type="button"
              className="button"
              onClick={() => restore(deleted)}
            >
              Undo
            </button>
            <button type="button" className="button button-quiet" onClick={forgetDeleted}>
              Close
            </button>
          </div>
        )}
      </div>
    </div>
  )
}

const takeFocus = (button: HTMLButtonElement | null) => button?.focus()

/** What is said while the list is not there. */
function ListTrouble({ list }: { list: ReturnType<typeof useStudies> }) {
  if (list.isPending) {
    return (
      <p role="status" className="mt-8 text-quiet">
        Fetching the studies …
        {list.failureReason instanceof TryLater && ` ${list.failureReason.message}.`}
      </p>
    )
  }
  if (!list.isError) return null
  return (
    <p role="alert" className="mt-8">
      The studies cannot be read at the moment: {list.error.message}.{' '}
      <button type="button" className="button" onClick={() => void list.refetch()}>
        Try again
      </button>
    </p>
  )
}

interface FinderProps {
  search: string
  onSearch: (text: string) => void
  topic: string
  onTopic: (topic: string) => void
}

/** Narrows the list by words of the title and by topic. */
function Finder({ search, onSearch, topic, onTopic }: FinderProps) {
  return (
    <div className="mt-6 flex flex-wrap items-center gap-x-4 gap-y-2">
      <label className="flex w-64 max-w-full items-center gap-2 rounded-md border border-rule bg-page px-3 py-1.5 focus-within:border-edge">
        <Search size={16} aria-hidden className="text-quiet" />
        <input
          type="search"
          aria-label="Search studies"
          placeholder="Search by title or topic"
          className="min-w-0 flex-1 bg-transparent outline-none"
          value={search}
          onChange={(event) => onSearch(event.target.value)}
        />
      </label>
      <div role="group" aria-label="Topics shown" className="flex flex-wrap gap-1.5">
        {allTopics.map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={topic === one}
            className="pill aria-pressed:border-edge aria-pressed:bg-chosen"
            onClick={() => onTopic(topic === one ? '' : one)}
          >
            {one}
          </button>
        ))}
      </div>
    </div>
  )
}

interface RowProps {
  study: StudySummary
  onRemove: () => void
  onChanged: () => void
}

function StudyRow({ study, onRemove, onChanged }: RowProps) {
  const [renaming, setRenaming] = useState(false)
  const rename = useMutation({
    mutationFn: async (title: string) => {
      const stored = await api.get(study.id)
      return api.save(study.id, stored.version, { ...stored.study, title }, crypto.randomUUID())
    },
    onSuccess: onChanged,
  })
  const duplicate = useMutation({
    mutationFn: async () => {
      const stored = await api.get(study.id)
      return api.create({ ...stored.study, title: `${stored.study.title.slice(0, 190)} (copy)` })
    },
    onSuccess: onChanged,
  })
  const fault = rename.error ?? duplicate.error
  const age = formatDistanceToNowStrict(new Date(study.updatedAt), { addSuffix: true })

  return (
    <li className="relative flex items-center gap-4 border-b border-rule px-1.5 py-2 hover:bg-page/60">
      <Thumbnail study={study} />
      <div className="min-w-0 flex-1">
        {renaming ? (
          <EditableText
            label="Title"
            value={study.title}
            className="relative z-10 w-[28rem] max-w-full font-serif text-[calc(17px*var(--type))] font-semibold"
            check={(text) => (text.trim() === '' ? 'a study needs a title' : null)}
            onCommit={(title) => rename.mutate(title.trim())}
            onClose={() => setRenaming(false)}
          />
        ) : (
          <Link
            to={`/studies/${study.id}`}
            className="block truncate font-serif text-[calc(17px*var(--type))] font-semibold after:absolute after:inset-0 after:content-['']"
          >
            {rename.isPending ? rename.variables : study.title}
          </Link>
        )}
        <p className="truncate text-quiet">{study.about}</p>
        {study.format > presentFormat && (
          <p className="text-brick">Made with a newer version: this one cannot open it.</p>
        )}
        {fault && (
          <p role="alert" className="text-brick">
            That did not work: {fault.message}.
          </p>
        )}
      </div>
      <ul aria-label="Topics" className="hidden w-56 flex-wrap gap-1.5 sm:flex">
        {study.topics.map((topic) => (
          <li key={topic} className="pill">
            {topic}
          </li>
        ))}
      </ul>
      <time dateTime={study.updatedAt} className="hidden w-32 text-quiet sm:block">
        {age}
      </time>
      <Menu>
        <MenuButton
          aria-label={`More for ${study.title}`}
          className="button button-quiet relative z-10 size-11 justify-center"
        >
          <MoreHorizontal size={20} aria-hidden />
        </MenuButton>
        <MenuItems anchor="bottom end" className="popover z-20 w-40 p-1 focus:outline-none">
          <Choice onChoose={() => setRenaming(true)}>Rename</Choice>
          <Choice onChoose={() => duplicate.mutate()}>Duplicate</Choice>
          <Choice onChoose={onRemove}>Delete</Choice>
        </MenuItems>
      </Menu>
    </li>
  )
}

function Choice({ onChoose, children }: { onChoose: () => void; children: string }) {
  return (
    <MenuItem>
      <button
        type="button"
        className="block w-full rounded-md px-3 py-2 text-left data-focus:bg-paper"
        onClick={onChoose}
      >
        {children}
      </button>
    </MenuItem>
  )
}
