import type { DragEvent } from 'react'

const type = 'application/x-yperkine-rung'

/** A curve or a derivative that is dragged by its rung. */
export interface Rung {
  curve: string
  order: number
}

export function carryRung(event: DragEvent, rung: Rung) {
  event.dataTransfer.setData(type, JSON.stringify(rung))
  event.dataTransfer.effectAllowed = 'copy'
}

/** Where a rung may be dropped, and what is done with it. */
export const takesRung = (onRung: (rung: Rung) => void) => ({
  onDragOver: (event: DragEvent) => {
    if (event.dataTransfer.types.includes(type)) event.preventDefault()
  },
  onDrop: (event: DragEvent) => {
    if (!event.dataTransfer.types.includes(type)) return
    event.preventDefault()
    onRung(JSON.parse(event.dataTransfer.getData(type)) as Rung)
  },
})
