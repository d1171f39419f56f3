import { liteAdaptor } from 'mathjax-full/js/adaptors/liteAdaptor.js'
import type { LiteElement } from 'mathjax-full/js/adaptors/lite/Element.js'
import { RegisterHTMLHandler } from 'mathjax-full/js/handlers/html.js'
import { TeX } from 'mathjax-full/js/input/tex.js'
import 'mathjax-full/js/input/tex/ams/AmsConfiguration.js'
import 'mathjax-full/js/input/tex/base/BaseConfiguration.js'
import { mathjax } from 'mathjax-full/js/mathjax.js'
import { SVG } from 'mathjax-full/js/output/svg.js'
import svgpath from 'svgpath'

export interface SetMaths {
  d: string
  width: number
  above: number
  below: number
}

const adaptor = liteAdaptor()
RegisterHTMLHandler(adaptor)
const page = mathjax.document('', {
  // Only what draws: nothing that defines, links or reads anything.
  InputJax: new TeX({ packages: ['base', 'ams'], maxBuffer: 4096, maxMacros: 100 }),
  OutputJax: new SVG({ fontCache: 'none' }),
})

/** The units of its outlines to an em. */
const em = 1000
const nothing: SetMaths = { d: '', width: 0, above: 0, below: 0 }
const known = new Map<string, { d: string; box: readonly [number, number, number, number] }>()

/** Mathematics as outlines, from its start on its line; `size` in pixels. */
export function setMaths(latex: string, size: number): SetMaths {
  let made = known.get(latex)
  if (!made) {
    const container = page.convert(latex, { display: false, em: 16, ex: 8 }) as LiteElement
    const svg = adaptor.firstChild(container) as LiteElement | null
    const box = (svg ? String(adaptor.getAttribute(svg, 'viewBox')) : '').split(' ').map(Number)
    if (!svg || box.length !== 4) return nothing
    made = {
      d: pathsOf(svg, '').join(''),
      box: box as unknown as readonly [number, number, number, number],
    }
    known.set(latex, made)
  }
  const [left, top, width, height] = made.box
  const by = size / em
  return {
    d: made.d === '' ? '' : svgpath(made.d).translate(-left, 0).scale(by).round(2).toString(),
    ...{ width: width * by, above: -top * by, below: (top + height) * by },
  }
}

/** The outlines of an element and all in it, in its own coordinates. */
function pathsOf(element: LiteElement, outer: string): string[] {
  const get = (name: string) => String(adaptor.getAttribute(element, name) ?? '')
  const transform = `${outer} ${get('transform')}`.trim()
  const placed = (d: string) => [svgpath(d).transform(transform).toString()]
  switch (adaptor.kind(element)) {
    case 'path':
      return get('d') === '' ? [] : placed(get('d'))
    case 'rect': {
      const [x, y, w, h] = ['x', 'y', 'width', 'height'].map((name) => Number(get(name)) || 0)
      return placed(`M${x!} ${y!}h${w!}v${h!}h${-w!}Z`)
    }
    case 'svg':
    case 'g':
      return adaptor
        .childNodes(element)
        .flatMap((child) =>
          adaptor.kind(child) === '#text' ? [] : pathsOf(child as LiteElement, transform),
        )
    default:
      return []
  }
}
