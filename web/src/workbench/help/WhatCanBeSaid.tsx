import { examples } from '@yperkine/core'
import { headings } from '../working/SuggestedList'
import { useStudy, useWorkbenchStore } from '../store'

/** Requests as people say them; one that is pressed stands in the field, ready to be added. */
export function WhatCanBeSaid({ onSay }: { onSay: () => void }) {
  const store = useWorkbenchStore()
  const study = useStudy((s) => s)
  const say = (words: string) => {
    store.getState().setRequest(words)
    onSay()
    // The field can be reached once the panel has given the focus back.
    requestAnimationFrame(() => document.getElementById('say-what-to-add')?.focus())
  }
  return (
    <>
      <p className="text-quiet">
        In “Say what to add”, in plain words and in any order; sentences are offered while you type.
        Press one to try it.
      </p>
      <div className="mt-2 grid gap-x-6 gap-y-3 sm:grid-cols-2">
        {examples(study).map(({ group, said }) => (
          <div key={group}>
            <h4 className="text-[calc(13px*var(--type))] text-quiet">{headings[group]}</h4>
            <ul>
              {said.map((words) => (
                <li key={words}>
                  <button
                    type="button"
                    className="w-full rounded-md px-2 py-0.5 text-left font-serif text-[calc(16px*var(--type))] hover:bg-paper focus-visible:bg-paper"
                    onClick={() => say(words)}
                  >
                    {words}
                  </button>
                </li>
              ))}
            </ul>
          </div>
        ))}
      </div>
    </>
  )
}
