import katex from 'katex'
import { memo, useMemo } from 'react'

/** KaTeX and its call, in a part of the program that is loaded when mathematics is first shown. */
export default memo(function Typeset({ latex }: { latex: string }) {
  const html = useMemo(
    () => katex.renderToString(latex, { throwOnError: false, output: 'html', strict: false }),
    [latex],
  )
  // A stacking context of its own: the browser keeps its painting while other parts change.
  return <span aria-hidden className="isolate" dangerouslySetInnerHTML={{ __html: html }} />
})
