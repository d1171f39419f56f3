let begun = 0

/** A name for a gesture that begins now: its edits are one to undo, and no other's. */
export function newGesture(kind: string): string {
  begun += 1
  return `${kind}.${begun}`
}
