import { type Drawing, type Paper, papers, svgOf, type Typesetter } from '@yperkine/core'
import { useEffect, useEffectEvent, useMemo, useState } from 'react'
import { Check } from '../parts/Check'
import { Panel } from '../parts/Panel'
import { saveBlob } from '../parts/saveAsFile'
import { useStudy, useWorkbenchStore } from '../workbench/store'
import { Choice } from './fields'
import { pagesOf, printedFile, type PrintSettings } from './make'
import { printPages } from './print'

interface Props {
  onClose: () => void
  onTrouble: (words: string) => void
}

const reasonOf = (error: unknown) =>
  error instanceof Error ? error.message : 'the browser gave no reason'

/** A sheet to be printed, or a handout of the steps, as it will be. */
export function PrintPanel({ onClose, onTrouble }: Props) {
  const store = useWorkbenchStore()
  const steps = useStudy((s) => s.steps.length)
  const [setter, setSetter] = useState<Typesetter | null>(null)
  const [shown, setShown] = useState(0)
  const [settings, setSettings] = useState<PrintSettings>({
    ...{ what: 'sheet', paper: 'A4', landscape: false, answers: true, tables: true, room: 0 },
  })
  const set = (change: Partial<PrintSettings>) => setSettings({ ...settings, ...change })
  const failed = useEffectEvent((error: unknown) =>
    onTrouble(`The sheet could not be made: ${reasonOf(error)}.`),
  )
  useEffect(() => {
    let gone = false
    void import('./typesetter')
      .then((m) => m.loadTypesetter())
      .then(
        (made) => gone || setSetter(made),
        (error: unknown) => gone || failed(error),
      )
    return () => {
      gone = true
    }
  }, [])
  const pages = useMemo(
    () => (setter ? pagesOf(store, settings, setter) : []),
    [store, settings, setter],
  )
  const save = async () => {
    try {
      const { name, blob } = await printedFile(pages)
      saveBlob(name, blob)
    } catch (error) {
      onTrouble(`The sheet could not be made: ${reasonOf(error)}. The study is as it was.`)
    }
  }
  const page = pages[Math.min(shown, pages.length - 1)]
  return (
    <Panel title="Print sheet" open onClose={onClose} width="w-[1000px]">
      <div className="grid gap-6 py-2 md:grid-cols-[300px_minmax(0,1fr)]">
        <div className="grid content-start gap-3">
          <Choice
            label="What is printed"
            value={String(settings.what)}
            options={[
              ['sheet', 'the study'],
              ...(steps === 0
                ? []
                : ([
                    ['1', 'its steps, one on a page'],
                    ['2', 'its steps, two on a page'],
                    ['4', 'its steps, four on a page'],
                  ] as const)),
            ]}
            onChoose={(what) =>
              set({ what: what === 'sheet' ? 'sheet' : (Number(what) as 1 | 2 | 4) })
            }
          />
          <Choice
            label="Paper"
            value={settings.paper}
            options={Object.keys(papers).map((p) => [p, p])}
            onChoose={(paper) => set({ paper: paper as Paper })}
          />
          <Choice
            label="Page"
            value={settings.landscape ? 'landscape' : 'portrait'}
            options={[
              ['portrait', 'portrait'],
              ['landscape', 'landscape'],
            ]}
            onChoose={(way) => set({ landscape: way === 'landscape' })}
          />
          {settings.what === 'sheet' && (
            <>
              <Check label="Answers" on={settings.answers} onSet={(answers) => set({ answers })} />
              <Check label="Tables" on={settings.tables} onSet={(tables) => set({ tables })} />
              <Choice
                label="Room to write"
                value={String(settings.room)}
                options={[0, 4, 8, 16].map((n) => [String(n), n === 0 ? 'none' : `${n} lines`])}
                onChoose={(n) => set({ room: Number(n) })}
              />
            </>
          )}
        </div>
        <div className="grid content-start gap-3">
          {setter && page ? (
            <PageView page={page} setter={setter} />
          ) : (
            <p className="text-quiet">Setting the words …</p>
          )}
          <div className="flex flex-wrap items-center gap-2">
            <button
              type="button"
              className="button"
              disabled={!setter}
              onClick={() => setter && printPages(pages, settings, setter)}
            >
              Print
            </button>
            <button type="button" className="button" disabled={!setter} onClick={() => void save()}>
              Save as PDF
            </button>
            <Pager count={pages.length} shown={shown} onShow={setShown} />
          </div>
        </div>
      </div>
    </Panel>
  )
}

interface PagerProps {
  count: number
  shown: number
  onShow: (page: number) => void
}

/** Which page is looked at. */
function Pager({ count, shown, onShow }: PagerProps) {
  if (count < 2) return null
  const now = Math.min(shown, count - 1)
  return (
    <span className="ml-auto flex items-center gap-2 text-quiet">
      <button type="button" className="pill" onClick={() => onShow((now + count - 1) % count)}>
        Page before
      </button>
      {now + 1} of {count}
      <button type="button" className="pill" onClick={() => onShow((now + 1) % count)}>
        Next page
      </button>
    </span>
  )
}

function PageView({ page, setter }: { page: Drawing; setter: Typesetter }) {
  const source = useMemo(
    () => `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svgOf(page, setter))}`,
    [page, setter],
  )
  return (
    <img
      alt={`Preview: ${page.description}`}
      src={source}
      className="max-h-[56vh] max-w-full justify-self-center rounded-md border border-rule object-contain"
    />
  )
}
