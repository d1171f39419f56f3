import type { Study } from '@yperkine/core'
import { createContext, useContext } from 'react'
import { useStore } from 'zustand'
import type { createWorkbench } from './workbench'
import type { Workbench } from './state'

export type WorkbenchStore = ReturnType<typeof createWorkbench>
export const WorkbenchContext = createContext<WorkbenchStore | null>(null)

export function useWorkbenchStore(): WorkbenchStore {
  const store = useContext(WorkbenchContext)
  if (!store) throw new Error('this part stands outside a workbench')
  return store
}

export function useWorkbench<T>(select: (state: Workbench) => T): T {
  return useStore(useWorkbenchStore(), select)
}

export const useStudy = <T>(select: (study: Study) => T): T =>
  useWorkbench((s) => select(s.evaluation.study))
