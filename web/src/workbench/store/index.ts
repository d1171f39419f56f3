export {
  useStudy,
  useWorkbench,
  useWorkbenchStore,
  WorkbenchContext,
  type WorkbenchStore,
} from './context'
export type { Size, Workbench } from './state'
export { createWorkbench } from './workbench'
