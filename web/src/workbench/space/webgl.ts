/** Whether this browser draws in three dimensions by itself. */
export function hasWebGl(): boolean {
  try {
    const context = document.createElement('canvas').getContext('webgl2')
    const isThere = context !== null && !context.isContextLost()
    context?.getExtension('WEBGL_lose_context')?.loseContext()
    return isThere
  } catch {
    return false
  }
}
