import { useWorkbench } from '../store'

/** How many rows of spans the ruler has. */
export const useBarRows = () =>
  useWorkbench((s) => s.scene.bars.reduce((rows, bar) => Math.max(rows, bar.row + 1), 0))
