import { useQuery } from '@tanstack/react-query'
import { useEffect, useId, useState } from 'react'
import { api } from '../api'
import { Panel } from '../parts/Panel'
import { useWorkbenchStore, type View } from '../workbench/store'
import { saveStudyFile } from './saveStudyFile'

/** Addresses that mean this machine alone. */
const isHere = (hostname: string) =>
  /^(?:localhost|.*\.localhost|127(?:\.\d+){3}|\[::1\])$/.test(hostname)

const views: readonly { view: View; label: string; about: string }[] = [
  { view: 'bench', label: 'To work on', about: 'whoever opens it can change the study' },
  { view: 'read', label: 'To read', about: 'everything moves, and nothing of it is kept' },
  { view: 'picture', label: 'Picture only', about: 'with its deck, as large as its place' },
]

const addressOf = (id: string, view: View) =>
  `${location.origin}/studies/${id}${view === 'bench' ? '' : `?view=${view}`}`

/** Text that stands between the quotes of an attribute. */
const quoted = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('"', '&quot;').replaceAll('<', '&lt;')

/** The lines that show a study in a page of someone else. */
const frameOf = (address: string, title: string) =>
  `<iframe src="${quoted(address)}" title="${quoted(title)}" width="720" height="480" style="border: 0" allow="clipboard-write"></iframe>`

/** The address of the study, copied; at one's own desk what to do instead. */
export function LinkPanel({ onClose }: { onClose: () => void }) {
  const store = useWorkbenchStore()
  const { id, history, view: opened } = store.getState()
  // Whoever reads hands on what is read.
  const offered = opened === 'bench' ? views : views.filter(({ view }) => view !== 'bench')
  const [view, setView] = useState<View>(opened)
  const [told, setTold] = useState<string | null>(null)
  const name = useId()
  const address = addressOf(id, view)
  const copy = (text: string, done: string) =>
    navigator.clipboard.writeText(text).then(
      () => setTold(done),
      () => setTold('The browser did not let it be copied: select it here.'),
    )
  useEffect(() => void copy(address, 'The address is copied.'), [address])
  return (
    <Panel title="Link" open onClose={onClose}>
      <div className="grid max-w-lg gap-3 py-2">
        <fieldset className="grid gap-1">
          <legend className="sr-only">What is opened</legend>
          {offered.map(({ view: one, label, about }) => (
            <label key={one} className="flex items-baseline gap-2 pointer-coarse:min-h-11">
              <input
                type="radio"
                name={name}
                aria-label={label}
                checked={one === view}
                onChange={() => setView(one)}
              />
              <span className="font-semibold whitespace-nowrap">{label}</span>
              <span className="text-quiet">{about}</span>
            </label>
          ))}
        </fieldset>
        <input
          className="field w-full"
          aria-label="Address of this study"
          readOnly
          value={address}
          onFocus={(e) => e.target.select()}
        />
        {view !== 'bench' && (
          <InAPage
            text={frameOf(address, history.present.title)}
            onCopy={(text) => void copy(text, 'The lines for a page are copied.')}
          />
        )}
        {told !== null && <p role="status">{told}</p>}
        {isHere(location.hostname) && (
          <>
            <p>
              This address works on this machine only. For someone else, send the study file: it is
              opened with “Bring in a study”.
            </p>
            <button
              type="button"
              className="button justify-self-start"
              onClick={() => saveStudyFile(store)}
            >
              Save the study file
            </button>
          </>
        )}
      </div>
    </Panel>
  )
}

/** What shows the study in someone's page, and which pages may. */
function InAPage({ text, onCopy }: { text: string; onCopy: (text: string) => void }) {
  const origins = useQuery({ queryKey: ['framing'], queryFn: api.frameOrigins, retry: false })
  return (
    <div className="grid gap-1">
      <span className="text-quiet">In a page of a course:</span>
      <div className="flex items-start gap-2">
        <textarea
          className="field min-w-0 flex-1 font-equation text-[calc(14px*var(--type))]"
          aria-label="Lines for a page"
          readOnly
          rows={3}
          value={text}
          onFocus={(e) => e.target.select()}
        />
        <button type="button" className="button" onClick={() => onCopy(text)}>
          Copy the lines
        </button>
      </div>
      {origins.data && (
        <p className="text-quiet">
          {origins.data.length > 0
            ? `Pages of ${origins.data.join(', ')} may show it.`
            : 'No page may show it yet: whoever runs the server names those that may, in the setting FRAME_ORIGINS.'}
        </p>
      )}
    </div>
  )
}
