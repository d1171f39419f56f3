export {
  useStudy,
  useWorkbench,
  useWorkbenchStore,
  WorkbenchContext,
  type WorkbenchStore,
} from './context'
export type { Examined, Size, Workbench } from './state'
export { createWorkbench } from './workbench'
