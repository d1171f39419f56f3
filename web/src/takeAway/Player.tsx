import { readStudyFile, type Study } from '@yperkine/core'
import { Download } from 'lucide-react'
import { StrictMode, useState } from 'react'
import { createRoot } from 'react-dom/client'
import { keepNothing } from '../browserId'
import { saveStudyFile } from '../handOn/saveStudyFile'
import { Read } from '../reading/Read'
import { createWorkbench, useWorkbenchStore, WorkbenchContext } from '../workbench/store'
import { studyId, writtenId } from './page'

/** Draws the study that stands in the page. */
export function startPlayer() {
  keepNothing()
  const text = document.getElementById(studyId)?.textContent ?? ''
  const read = readStudyFile(text)
  document.getElementById(writtenId)?.remove()
  const root = document.createElement('div')
  root.id = 'root'
  document.body.append(root)
  createRoot(root).render(
    <StrictMode>
      {read.ok ? (
        <Player study={read.study} />
      ) : (
        <p role="alert" className="p-8">
          The study in this page cannot be read: {read.problems[0]?.message}.
        </p>
      )}
    </StrictMode>,
  )
}

function Player({ study }: { study: Study }) {
  const open = () => createWorkbench('', study, '', 'read')
  const [store, setStore] = useState(open)
  return (
    <WorkbenchContext value={store}>
      <Read onAgain={() => setStore(open)}>
        <SaveStudy />
      </Read>
    </WorkbenchContext>
  )
}

function SaveStudy() {
  const store = useWorkbenchStore()
  return (
    <button
      type="button"
      className="button whitespace-nowrap"
      title="Save the study file"
      onClick={() => saveStudyFile(store)}
    >
      <Download size={15} aria-hidden />
      <span className="max-sm:sr-only">Save the study file</span>
    </button>
  )
}
