import { useState } from 'react'
import { Panel } from '../parts/Panel'
import { saveBlob } from '../parts/saveAsFile'
import { useStudy, useWorkbenchStore } from '../workbench/store'
import { Check } from '../parts/Check'

interface Props {
  onClose: () => void
  onTrouble: (words: string) => void
}

/** One file that moves without a server: what it holds, and what stays behind. */
export function TakeAwayPanel({ onClose, onTrouble }: Props) {
  const store = useWorkbenchStore()
  const hasWords = useStudy((s) => s.steps.some(({ words }) => words.trim() !== ''))
  const [speakers, setSpeakers] = useState(false)
  const [making, setMaking] = useState(false)
  const make = async () => {
    setMaking(true)
    try {
      const { takeAwayPage } = await import('./takeAway')
      const { name, blob } = await takeAwayPage(store.getState().history.present, speakers)
      saveBlob(name, blob)
      const size = (blob.size / 1e6).toFixed(1)
      store.getState().announce(`Take-away page made: ${size} MB`)
    } catch (error) {
      const why = error instanceof Error ? error.message : 'the browser gave no reason'
      onTrouble(`The take-away page could not be made: ${why}. The study is as it was.`)
    } finally {
      setMaking(false)
    }
  }
  return (
    <Panel title="Take-away page" open onClose={onClose} width="w-[460px]">
      <div className="grid gap-3 py-2">
        <p>
          One file to mail or to keep. Whoever opens it can move, play and read everything in this
          study, without a server and without a network. It can be brought in again as a study.
        </p>
        {hasWords && (
          <Check label="With the words for the speaker" on={speakers} onSet={setSpeakers} />
        )}
        <div>
          <button type="button" className="button" disabled={making} onClick={() => void make()}>
            Save the page
          </button>
        </div>
      </div>
    </Panel>
  )
}
