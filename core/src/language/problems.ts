/** Something that keeps a text from being read. Offsets are 0-based into the text, `to` exclusive. */
export interface Problem {
  message: string
  from: number
  to: number
  /** What to do about it, in plain words. */
  fix?: string
  /** A name that would make the text readable if it had a value. */
  missing?: string
  /** A text that would mend it, put in place of from..to. */
  replacement?: string
  /** Texts of which each would mend it, where it could mean several things. */
  choices?: readonly string[]
}

/** A reading that is right by the rules and may still not be what was meant. */
export interface Hint {
  message: string
  from: number
  to: number
  replacement: string
}
