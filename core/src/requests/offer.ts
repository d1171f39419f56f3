import type { Edit } from '../study/edits/edit'

/** A sentence that "Say what to add" proposes, and the edit that adds it. */
export interface Offer {
  sentence: string
  edit: Edit
}
