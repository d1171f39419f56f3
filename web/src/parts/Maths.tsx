import katex from 'katex'
import { memo, useMemo } from 'react'

/** Typeset mathematics. What it says must stand in an accessible name beside it. */
export const Maths = memo(function Maths({ latex }: { latex: string }) {
  const html = useMemo(
    () => katex.renderToString(latex, { throwOnError: false, output: 'html', strict: false }),
    [latex],
  )
  return <span aria-hidden dangerouslySetInnerHTML={{ __html: html }} />
})
