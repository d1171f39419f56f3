import { offersOverSpan, type SpanText } from '@yperkine/core'
import { useState } from 'react'
import { OfferMenu } from '../working/OfferMenu'
import { useWorkbenchStore } from '../store'

/** A span that was drawn or pressed, and where in the window. */
export interface DrawnSpan {
  span: SpanText
  x: number
  y: number
}

/** What can hang on a span that was drawn. */
export function SpanOffers({ drawn, onClose }: { drawn: DrawnSpan; onClose: () => void }) {
  const store = useWorkbenchStore()
  const [offers] = useState(() => offersOverSpan(drawn.span, store.getState().shown))
  const { span, x, y } = drawn
  const close = () => {
    store.getState().selectSpan(null)
    onClose()
  }
  return (
    <OfferMenu
      heading={`[${span.from}, ${span.to}]`.replaceAll('-', '−')}
      offers={offers}
      x={x}
      y={y}
      onClose={close}
    />
  )
}
