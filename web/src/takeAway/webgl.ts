/** Without the package that would use it nothing is asked. */
export const hasWebGl = () => false
