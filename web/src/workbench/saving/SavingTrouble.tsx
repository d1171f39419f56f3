import { useMutation } from '@tanstack/react-query'
import type { Study } from '@yperkine/core'
import { type ReactNode, useEffect, useState } from 'react'
import { useNavigate } from 'react-router'
import { api } from '../../api'
import { saveAsFile } from '../../parts/saveAsFile'
import { useWorkbench, useWorkbenchStore } from '../store'
import type { Unreadable } from './drafts'
import { onStorageRefused, saving } from './saving'

interface Props {
  unreadable: readonly Unreadable[]
  onTakeTheirs: () => void
}

/** What stands in the way of keeping a study, each with a way out: nothing is thrown away unasked. */
export function SavingTrouble({ unreadable, onTakeTheirs }: Props) {
  const theirs = useWorkbench((s) => s.theirs)
  const gone = useWorkbench((s) => s.gone)
  return (
    <>
      {theirs && (
        <Trouble words="This study was changed elsewhere while you worked on it. Your work is not saved here.">
          <KeepMine label="Keep mine as a copy" titled={(title) => `${title} (mine)`} />
          <button type="button" className="button" onClick={onTakeTheirs}>
            Take theirs
          </button>
        </Trouble>
      )}
      {gone && (
        <Trouble words="This study was deleted elsewhere. What you see is in this browser alone.">
          <KeepMine label="Keep it as a new study" titled={(title) => title} />
        </Trouble>
      )}
      {unreadable.map((draft) => (
        <UnreadableDraft key={draft.key} draft={draft} />
      ))}
      <NothingKept />
    </>
  )
}

function Trouble({ words, children }: { words: string; children?: ReactNode }) {
  return (
    <div
      role="alert"
      className="flex flex-wrap items-center gap-3 border-b border-rule bg-chosen px-4 py-2"
    >
      <span>{words}</span>
      {children}
    </div>
  )
}

/** Makes a new study of what is shown, and goes there. */
function KeepMine({ label, titled }: { label: string; titled: (title: string) => string }) {
  const store = useWorkbenchStore()
  const navigate = useNavigate()
  const keep = useMutation({
    mutationFn: () => {
      const mine: Study = store.getState().history.present
      return api.create({ ...mine, title: titled(mine.title.slice(0, 190)) })
    },
    onSuccess: async (copy) => {
      await (await saving()).drafts.drop(store.getState().id)
      await navigate(`/studies/${copy.id}`)
    },
  })
  return (
    <>
      <button
        type="button"
        className="button"
        disabled={keep.isPending}
        onClick={() => keep.mutate()}
      >
        {label}
      </button>
      {keep.isError && (
        <span className="text-brick">That did not work: {keep.error.message}. Try again.</span>
      )}
    </>
  )
}

/** Unsaved work of an earlier visit that this version of the page cannot read. */
function UnreadableDraft({ draft }: { draft: Unreadable }) {
  const [dropped, setDropped] = useState(false)
  if (dropped) return null
  return (
    <Trouble words="This browser keeps unsaved work on this study that cannot be read any more.">
      <button
        type="button"
        className="button"
        onClick={() => saveAsFile('unsaved-work.json', draft.text, 'application/json')}
      >
        Save it as a file
      </button>
      <button
        type="button"
        className="button"
        onClick={() =>
          void saving()
            .then(({ drafts }) => drafts.dropUnreadable(draft))
            .then(() => setDropped(true))
        }
      >
        Drop it
      </button>
    </Trouble>
  )
}

/** Said once where the browser refuses to keep anything, or has no room. */
function NothingKept() {
  const [refused, setRefused] = useState(false)
  const [read, setRead] = useState(false)
  useEffect(() => onStorageRefused(() => setRefused(true)), [])
  if (!refused || read) return null
  return (
    <Trouble words="This browser keeps nothing here: what is not saved yet is lost when the page goes.">
      <button type="button" className="button" onClick={() => setRead(true)}>
        I know
      </button>
    </Trouble>
  )
}
