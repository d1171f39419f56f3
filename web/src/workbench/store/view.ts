import { useWorkbench } from './context'

/** Whether the study is open to be read: nothing in it is added, taken away or written anew. */
export const useReading = () => useWorkbench((s) => s.view !== 'bench')

/** Whether lanes stand without their heads and the ruler without its fields, for the picture's sake. */
export const useHeadless = () => useWorkbench((s) => s.presenting !== null || s.view === 'picture')
