/**
 * Makes a text all that an element holds. Its text node is kept where it has one: a browser lays out
 * a changed text in less time than a new one.
 */
export function setText(element: Element, text: string) {
  const only = element.childNodes.length === 1 ? element.firstChild : null
  if (!(only instanceof Text)) element.textContent = text
  else if (only.data !== text) only.data = text
}

/** A longer text may have to wrap, so it is laid out with what stands around it. */
const longest = 40

/** Room for so many more signs than a text has is kept: it may need them again in a moment. */
const slack = 3

/**
 * Writes a text that changes at every frame: within a `steady` element, so that what stands around
 * it is laid out anew only when the text takes other room. Digits are all of one width here.
 */
export function setSteadyText(steady: HTMLElement, text: string) {
  const kept = steady.dataset.room?.length ?? 0
  const room = text.length > longest ? '' : text.replace(/\d/g, '0')
  if (room.length > kept || room.length < kept - slack) steady.dataset.room = room
  setText(steady.firstElementChild!, text)
}
