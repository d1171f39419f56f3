import { Panel } from '../../parts/Panel'
import { Gestures } from './Gestures'
import { Keys } from './Keys'
import { Staging } from './Staging'
import { WhatCanBeSaid } from './WhatCanBeSaid'

interface Props {
  open: boolean
  onClose: () => void
}

/** What can be said, what the hand can do, and the keys. */
export function HowItWorks({ open, onClose }: Props) {
  return (
    <Panel title="How it works" width="w-[56rem]" open={open} onClose={onClose}>
      <Heading>What can be said</Heading>
      <WhatCanBeSaid onSay={onClose} />
      <Heading>With the hand</Heading>
      <Gestures />
      <Heading>Dressing the picture</Heading>
      <Staging />
      <Heading>Keys</Heading>
      <Keys />
    </Panel>
  )
}

const Heading = ({ children }: { children: string }) => (
  <h3 className="mt-5 mb-2 border-b border-rule pb-1 font-serif text-[calc(17px*var(--type))] font-semibold">
    {children}
  </h3>
)
