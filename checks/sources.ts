import { readdirSync, readFileSync, statSync } from 'node:fs'
import path from 'node:path'

/** The folder that holds everything. */
export const root = path.resolve(__dirname, '..')

/** Every file below a folder whose name fits, by its whole path. */
export function filesBelow(folder: string, fits: RegExp): string[] {
  return readdirSync(folder).flatMap((name) => {
    if (name === 'node_modules' || name === 'dist') return []
    const at = path.join(folder, name)
    if (statSync(at).isDirectory()) return filesBelow(at, fits)
    return fits.test(name) ? [at] : []
  })
}

export interface Import {
  from: string
  /** Types alone are not there any more when the code runs. */
  typesOnly: boolean
}

/** What a file imports, statically or when it is needed. */
export function importsOf(file: string): Import[] {
  const text = readFileSync(file, 'utf8')
  const whole = text.matchAll(/^(?:import|export)\s+(type\s)?(?:[^'"]*?\sfrom\s+)?'([^']+)'/gm)
  const later = text.matchAll(/\bimport\('([^']+)'\)/g)
  const styles = text.matchAll(/^@import '([^'.][^']*)'/gm)
  return [
    ...[...whole].map(([, type, from]) => ({ from: from!, typesOnly: type !== undefined })),
    ...[...later, ...styles].map(([, from]) => ({ from: from!, typesOnly: false })),
  ]
}
