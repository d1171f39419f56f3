import type { ReactNode } from 'react'

/** A field with its words above it; what it is called for those who hear it stands on the field. */
export const Labelled = ({ text, children }: { text: string; children: ReactNode }) => (
  <span className="grid gap-1">
    <span aria-hidden className="text-[calc(13px*var(--type))] text-quiet">
      {text}
    </span>
    {children}
  </span>
)
