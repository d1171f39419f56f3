import { useEffect, useState } from 'react'
import { Panel } from '../parts/Panel'
import { useWorkbenchStore } from '../workbench/store'
import { saveStudyFile } from './saveStudyFile'

/** Addresses that mean this machine alone. */
const isHere = (hostname: string) =>
  /^(?:localhost|.*\.localhost|127(?:\.\d+){3}|\[::1\])$/.test(hostname)

/** The address of the study, copied; at one's own desk what to do instead. */
export function LinkPanel({ onClose }: { onClose: () => void }) {
  const store = useWorkbenchStore()
  const [copied, setCopied] = useState<boolean | null>(null)
  const address = `${location.origin}/studies/${store.getState().id}`
  useEffect(() => {
    navigator.clipboard.writeText(address).then(
      () => setCopied(true),
      () => setCopied(false),
    )
  }, [address])
  return (
    <Panel title="Link" open onClose={onClose}>
      <div className="grid max-w-lg gap-3 py-2">
        <input
          className="field w-full"
          aria-label="Address of this study"
          readOnly
          value={address}
          onFocus={(e) => e.target.select()}
        />
        {copied !== null && (
          <p role="status">
            {copied ? 'It is copied.' : 'The browser did not let it be copied: select it here.'}
          </p>
        )}
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
