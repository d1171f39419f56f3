import { fileNameOf, writeStudyFile } from '@yperkine/core'
import { saveAsFile } from '../parts/saveAsFile'
import type { WorkbenchStore } from '../workbench/store'

/** The study as a file. */
export function saveStudyFile(store: WorkbenchStore) {
  const study = store.getState().history.present
  saveAsFile(fileNameOf(study.title, 'yperkine.json'), writeStudyFile(study), 'application/json')
  store.getState().announce('Study file saved')
}
