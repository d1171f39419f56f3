const written = (text: string) => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`)

/** Puts a table on the clipboard: as a table for pages and papers, and as text with tabs. */
export async function copyTable(text: string, rows: readonly (readonly string[])[]): Promise<void> {
  const [head = [], ...body] = rows
  const row = (cells: readonly string[], tag: 'th' | 'td') =>
    `<tr>${cells.map((cell) => `<${tag}>${written(cell)}</${tag}>`).join('')}</tr>`
  const html = `<table><thead>${row(head, 'th')}</thead><tbody>${body.map((r) => row(r, 'td')).join('')}</tbody></table>`
  const blob = (content: string, type: string) => new Blob([content], { type })
  await navigator.clipboard.write([
    new ClipboardItem({
      'text/plain': blob(text, 'text/plain'),
      'text/html': blob(html, 'text/html'),
    }),
  ])
}
