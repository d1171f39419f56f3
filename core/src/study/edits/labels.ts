import { changeLook } from './lines'

/** Puts a label of a line's points so far from its point, in pixels, or back where there is room. */
export const moveLabel = (id: string, label: string, offset: readonly [number, number] | null) =>
  changeLook(id, (look) => {
    const moved = { ...look.moved }
    if (offset) moved[label] = [offset[0], offset[1]]
    else delete moved[label]
    return { ...look, moved }
  })

/** Shows or hides a label of a line's points. */
export const showLabel = (id: string, label: string, shown: boolean) =>
  changeLook(id, (look) => {
    const without = (look.without ?? []).filter((l) => l !== label)
    return { ...look, without: shown ? without : [...without, label] }
  })

/** All labels of a line's points where there is room for them. */
export const resetLabels = (id: string) =>
  changeLook(id, ({ moved: _, without: __, ...look }) => look)
