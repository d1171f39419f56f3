import { useMutation } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { api } from '../api'
import { drafts } from './drafts'
import { useWorkbench, useWorkbenchStore } from './store'

/** Two people, or two tabs, have changed one study: neither state is thrown away unasked. */
export function Conflict({ onTakeTheirs }: { onTakeTheirs: () => void }) {
  const store = useWorkbenchStore()
  const navigate = useNavigate()
  const theirs = useWorkbench((s) => s.theirs)
  const keepMine = useMutation({
    mutationFn: () => {
      const mine = store.getState().history.present
      return api.create({ ...mine, title: `${mine.title.slice(0, 190)} (mine)` })
    },
    onSuccess: async (copy) => {
      await drafts.drop(store.getState().id)
      await navigate(`/studies/${copy.id}`)
    },
  })
  if (!theirs) return null
  return (
    <div
      role="alert"
      className="flex flex-wrap items-center gap-3 border-b border-rule bg-chosen px-4 py-2"
    >
      <span>
        This study was changed elsewhere while you worked on it. Your work is not saved here.
      </span>
      <button
        type="button"
        className="button"
        disabled={keepMine.isPending}
        onClick={() => keepMine.mutate()}
      >
        Keep mine as a copy
      </button>
      <button type="button" className="button" onClick={onTakeTheirs}>
        Take theirs
      </button>
      {keepMine.isError && (
        <span className="text-brick">That did not work: {keepMine.error.message}.</span>
      )}
    </div>
  )
}
