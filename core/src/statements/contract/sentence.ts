import type { Tree } from '../../formula/tree'
import type { Variable } from '../../vocabulary/members'

/** A stretch of a sentence: fixed words, or a slot that is edited in place. */
export type Phrase =
  /** Mathematics among the words has its own LaTeX. */
  | { text: string; latex?: string }
  | {
      slot: SlotKind
      /** The member of the line that the slot edits. */
      field: string
      /** What the slot holds, in plain characters. */
      text: string
      /** What an editor opens with. */
      source: string
      latex: string
      /** What a choice can be, each as text; the text is what the member takes. */
      choices?: readonly { value: string; text: string }[]
    }

export type SlotKind =
  'formula' | 'domain' | 'curve' | 'place' | 'span' | 'target' | 'number' | 'choice' | 'words'

/** What a sentence may look at; sentences read the study, not its values. */
export interface SentenceContext {
  variable: Variable
  notation: 'primes' | 'ratios'
  /** The formula of a typed text, or null where it cannot be read. */
  read(text: string): Tree | null
  /** The same for a formula of two letters. */
  readOver(text: string, letters: readonly [string, string]): Tree | null
  /** The letters of a surface; null where there is none of that name. */
  surfaceLetters(name: string): readonly [string, string] | null
  /** The derivative formula of a curve, or null where it cannot be read. */
  derivative(curve: string, order: number): Tree | null
  /** Whether a text such as r or r' names a curve of the study. */
  isCurve(text: string): boolean
  /** The name of a curve that is known by this graph as its derivative of an order, or null. */
  curveGivenBy(graph: string, order: number): string | null
  /** The value of a typed number, or null where it has none. */
  number(text: string): number | null
  /** Whether a curve is given by readings. */
  isMeasured(name: string): boolean
  /** Whether a curve has a value at the ends of its span. */
  ends(curve: string): { from: boolean; to: boolean }
}
