/** The part of database.mjs that the browser tests use. */
export interface Database {
  url: string
  port: number
  /** The process that runs it now; another one after it has been brought back. */
  pid: () => number
  stop: () => Promise<void>
}
export function startDatabase(
  folder: string,
  options?: { flags?: string[]; port?: number },
): Promise<Database>
export function temporaryFolder(): string
