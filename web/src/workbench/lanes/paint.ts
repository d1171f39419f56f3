import { isFilled, type Item, markerPath } from '@yperkine/core'
import { fills, insides, mixed, strokes } from '../../parts/inks'
import { setText } from '../../parts/setText'

const chosenDashes = { solid: undefined, dashed: '11 6', dotted: '0.1 6' }
const signs = { positive: 'fill-positive', negative: 'fill-negative' }
/** The order of derivative as dashes: f solid, f′ dashed, f″ dotted, f‴ dash-dot. */
const dashes = ['', '11 6', '0.1 6', '11 5 0.1 5']

type Attributes = Record<string, string | number | undefined>

/** What an item is drawn with: an SVG element's name, its attributes and its text. */
function elementOf(item: Item): { name: string; attributes: Attributes; text?: string } {
  const opacity = item.dimmed ? 0.35 : undefined
  switch (item.kind) {
    case 'path':
      return {
        name: 'path',
        attributes: {
          d: item.d,
          'data-item': item.key,
          class:
            item.fill === 'own' ? `${strokes[item.ink]} ${fills[item.ink]}` : strokes[item.ink],
          style: `${item.fill === 'own' ? '' : `fill: ${item.fill ? insides[item.fill] : 'none'};`} stroke-width: calc(${item.width}px * var(--line));${item.mix ? ` stroke: ${mixed(item.mix)};` : ''}${item.opacity === undefined ? '' : ` stroke-opacity: ${item.opacity}`}`,
          'stroke-dasharray': item.dash
            ? chosenDashes[item.dash]
            : item.dotted
              ? '2 4'
              : dashes[item.order ?? 0] || undefined,
          'stroke-linecap': item.order !== undefined || item.dash ? 'round' : 'butt',
          'stroke-linejoin': 'round',
          opacity,
        },
      }
    case 'label':
      return {
        name: 'text',
        attributes: {
          x: item.x,
          y: item.y,
          'text-anchor': item.anchor,
          class: item.named
            ? `${fills[item.ink]} font-serif text-[calc(17px*var(--type))] italic select-none`
            : item.ink === 'ink'
              ? 'fill-ink text-[calc(13px*var(--type))] select-none'
              : `${fills[item.ink]} stroke-page text-[calc(13px*var(--type))] font-semibold select-none`,
          'stroke-width': item.ink === 'ink' || item.named ? 0 : 4,
          'stroke-linejoin': 'round',
          'paint-order': 'stroke',
          'data-figures': item.named ? undefined : '',
          opacity,
        },
        text: item.text,
      }
    case 'rect':
      return {
        name: 'rect',
        attributes: {
          x: item.x,
          y: item.y,
          width: item.width,
          height: item.height,
          class: signs[item.sign],
          opacity,
        },
      }
    case 'body':
      return {
        name: 'path',
        attributes: {
          d: item.d,
          transform: item.transform,
          'data-item': item.key,
          class: item.filled ? `${fills[item.ink]} stroke-page` : `${strokes[item.ink]} fill-page`,
          style: `stroke-width: calc(${item.width}px * var(--line))`,
          'stroke-linecap': 'round',
          'stroke-linejoin': 'round',
          opacity,
        },
      }
    case 'note':
      // Words of a page, not of a picture: they are laid over it.
      return { name: 'g', attributes: {} }
    case 'dot': {
      const filled = isFilled(item.shape)
      return {
        name: 'path',
        attributes: {
          d: markerPath(item.shape, item.x, item.y, item.reach),
          class: filled ? `${fills[item.ink]} stroke-page` : `${strokes[item.ink]} fill-page`,
          'stroke-width': filled ? 2 : 3,
          opacity,
        },
      }
    }
  }
}

interface Painted {
  item: Item
  element: SVGElement
  name: string
  attributes: Attributes
}

/**
 * Makes a painter for a group: it draws the items of a display list and writes only what differs
 * from its last picture, straight to the elements. It knows nothing of what an item means.
 */
export function createPainter(group: SVGGElement) {
  let painted = new Map<string, Painted>()
  return (items: readonly Item[]) => {
    const next = new Map<string, Painted>()
    let before: ChildNode | null = group.firstChild
    for (const item of items) {
      const known = painted.get(item.key)
      const done = known?.item === item ? known : draw(item, known)
      next.set(item.key, done)
      if (done.element === before) before = before.nextSibling
      else group.insertBefore(done.element, before)
    }
    for (const [key, { element }] of painted) {
      if (next.get(key)?.element !== element) element.remove()
    }
    painted = next
  }
}

function draw(item: Item, known: Painted | undefined): Painted {
  const { name, attributes: plain, text } = elementOf(item)
  const attributes = item.tint ? { ...plain, class: `${plain.class} tint-${item.tint}` } : plain
  const kept = known?.name === name ? known : null
  const element = kept?.element ?? document.createElementNS('http://www.w3.org/2000/svg', name)
  for (const [key, value] of Object.entries(attributes)) {
    if (kept && kept.attributes[key] === value) continue
    if (value === undefined) element.removeAttribute(key)
    else element.setAttribute(key, String(value))
  }
  if (text !== undefined) setText(element, text)
  return { item, element, name, attributes }
}
