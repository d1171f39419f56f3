import type { Edit } from '../study/edits/edit'

/** A sentence that "Say what to add" proposes, and the edit that adds it or sets what is there. */
export interface Offer {
  sentence: string
  edit: Edit
  /** Whether what it speaks of is there already: then nothing is added. */
  sets?: true
}
