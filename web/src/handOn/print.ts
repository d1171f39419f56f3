import { type Drawing, papers, svgOf, type Typesetter } from '@yperkine/core'
import type { PrintSettings } from './make'

/** Opens the browser's own printing with some pages, and nothing else of the page on them. */
export function printPages(
  pages: readonly Drawing[],
  { paper, landscape }: PrintSettings,
  setter: Typesetter,
) {
  const [width, height] = papers[paper]
  const size = landscape ? `${height}mm ${width}mm` : `${width}mm ${height}mm`
  const box = document.createElement('div')
  box.className = 'print-pages'
  // What the writer writes is well-formed, and words are outlines: no text of a person is in it but escaped.
  box.innerHTML = pages
    .map((page, i) => {
      const svg = svgOf(page, setter).replace(/^<\?xml[^>]*>\s*/, '')
      // Each page has its own definitions.
      return svg
        .replace(/(id="|url\(#)/g, `$1p${i}-`)
        .replace('labelledby="title description"', `labelledby="p${i}-title p${i}-description"`)
    })
    .join('')
  const style = document.createElement('style')
  style.textContent = `@page { size: ${size}; margin: 0 }`
  document.body.append(style, box)
  const clear = () => {
    box.remove()
    style.remove()
    window.removeEventListener('afterprint', clear)
  }
  window.addEventListener('afterprint', clear)
  window.print()
}
