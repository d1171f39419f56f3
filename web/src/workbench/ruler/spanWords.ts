import type { SpanText } from '@yperkine/core'

export const spanWords = ({ from, to }: SpanText) => `Span from ${from} to ${to}`
