export {
  useStudy,
  useWorkbench,
  useWorkbenchStore,
  WorkbenchContext,
  type WorkbenchStore,
} from './context'
export { useHeadless, useReading } from './view'
export type { Examined, Size, View, Workbench } from './state'
export { createWorkbench } from './workbench'
