import { useEffect, useEffectEvent, useRef, useState } from 'react'
import { reach } from '../api'
import type { Incoming, Refusal, Way } from '../handOn/bringIn'
import { Panel } from '../parts/Panel'
import { saveBlob } from '../parts/saveAsFile'

const code = () => reach(import('../handOn/bringIn'))
const reasonOf = (error: unknown) => (error instanceof Error ? error.message : String(error))

/** Studies from files, picked or dropped anywhere on the page; and all of them out as one zip. */
export function BringIn({ onChanged }: { onChanged: () => void }) {
  const picker = useRef<HTMLInputElement>(null)
  const [told, setTold] = useState('')
  const [refused, setRefused] = useState<readonly Refusal[]>([])
  const [asked, setAsked] = useState<readonly Incoming[]>([])
  const [over, setOver] = useState(false)

  const take = async (all: readonly { incoming: Incoming; way: Way }[]) => {
    const { takeIn } = await code()
    const count = await takeIn(all)
    setTold(count === 1 ? 'One study came in.' : count === 0 ? '' : `${count} studies came in.`)
    if (count > 0) onChanged()
  }
  const bring = async (files: readonly File[]) => {
    if (files.length === 0) return
    try {
      const { readFiles } = await code()
      const found = await readFiles(files)
      setRefused(found.refused)
      // What is new comes at once; what would overwrite something asks first.
      const fresh = found.incoming.filter(({ like }) => like === null)
      await take(fresh.map((incoming) => ({ incoming, way: 'beside' })))
      setAsked(found.incoming.filter(({ like }) => like !== null))
    } catch (error) {
      setTold(`That did not work: ${reasonOf(error)}. Nothing was changed.`)
    }
  }
  const drop = useEffectEvent((files: readonly File[]) => void bring(files))
  useEffect(() => {
    const hasFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') === true
    const onOver = (event: DragEvent) => {
      if (!hasFiles(event)) return
      event.preventDefault()
      setOver(true)
    }
    const onLeave = (event: DragEvent) => {
      if (event.relatedTarget === null) setOver(false)
    }
    const onDrop = (event: DragEvent) => {
      if (!hasFiles(event)) return
      event.preventDefault()
      setOver(false)
      drop([...(event.dataTransfer?.files ?? [])])
    }
    window.addEventListener('dragover', onOver)
    window.addEventListener('dragleave', onLeave)
    window.addEventListener('drop', onDrop)
    return () => {
      window.removeEventListener('dragover', onOver)
      window.removeEventListener('dragleave', onLeave)
      window.removeEventListener('drop', onDrop)
    }
  }, [])
  const saveAll = async () => {
    try {
      const { zipOfAll } = await code()
      saveBlob('yperkine-studies.zip', await zipOfAll())
    } catch (error) {
      setTold(`That did not work: ${reasonOf(error)}.`)
    }
  }
  return (
    <>
      <button type="button" className="button" onClick={() => picker.current?.click()}>
        Bring in a study
      </button>
      <button type="button" className="button" onClick={() => void saveAll()}>
        Save all as a zip
      </button>
      <input
        ref={picker}
        type="file"
        multiple
        hidden
        accept=".json,.zip,.html,application/json,application/zip,text/html"
        aria-label="Study files"
        onChange={(event) => {
          void bring([...(event.target.files ?? [])])
          event.target.value = ''
        }}
      />
      <span role="status" className="text-quiet">
        {told}
      </span>
      {over && (
        <div className="pointer-events-none fixed inset-3 z-40 grid place-items-center rounded-md border-2 border-dashed border-edge bg-page/80 font-serif text-[22px]">
          Drop study files here
        </div>
      )}
      <Refused all={refused} onClose={() => setRefused([])} />
      {asked.length > 0 && (
        <AlreadyHere
          all={asked}
          onClose={(ways) => {
            setAsked([])
            void take(asked.map((incoming, i) => ({ incoming, way: ways[i]! }))).catch(
              (error: unknown) => setTold(`That did not work: ${reasonOf(error)}.`),
            )
          }}
        />
      )}
    </>
  )
}

/** Files that are no studies of this version, each with its faults and where they are. */
const Refused = ({ all, onClose }: { all: readonly Refusal[]; onClose: () => void }) => (
  <Panel title="Not brought in" open={all.length > 0} onClose={onClose}>
    <div role="alert" className="grid max-w-2xl gap-4 py-2">
      {all.map(({ name, problems }, i) => (
        <div key={i}>
          <p className="font-semibold break-all">{name}</p>
          <ul className="list-disc pl-5">
            {problems.map(({ path, message }, k) => (
              <li key={k}>
                <code>{path}</code>: {message}
              </li>
            ))}
          </ul>
        </div>
      ))}
    </div>
  </Panel>
)

interface HereProps {
  all: readonly Incoming[]
  onClose: (ways: readonly Way[]) => void
}

/** Asks what becomes of studies whose titles are here already. */
function AlreadyHere({ all, onClose }: HereProps) {
  const [ways, setWays] = useState<readonly Way[]>(() => all.map(() => 'beside'))
  return (
    <Panel title="These titles are here already" open onClose={() => onClose(ways)}>
      <div className="grid max-w-2xl gap-3 py-2">
        {all.map(({ study, name }, i) => (
          <label key={`${name} ${i}`} className="flex items-center justify-between gap-4">
            <span className="min-w-0 truncate">{study.title}</span>
            <select
              className="field"
              aria-label={`What becomes of ${study.title}`}
              value={ways[i]}
              onChange={(event) =>
                setWays(ways.map((way, k) => (k === i ? (event.target.value as Way) : way)))
              }
            >
              <option value="beside">keep both</option>
              <option value="replace">replace the one that is here</option>
              <option value="leave">leave it out</option>
            </select>
          </label>
        ))}
      </div>
    </Panel>
  )
}
