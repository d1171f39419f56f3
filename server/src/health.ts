import type { RequestHandler } from 'express'
import type { Sequelize } from 'sequelize'
import { isAway, isFull } from './errors'

export interface Health {
  /** Whether the process answers, and what was last known of the database, at once. */
  alive: RequestHandler
  /** Whether studies can be read and kept just now: asks the database, and writes to it. */
  ready: RequestHandler
  /** Takes note of how a request that needed the database has ended. */
  note: (error?: unknown) => void
}

/** `probe` resolves when the database has answered and has taken in a write. */
export function createHealth(probe: () => Promise<unknown>): Health {
  let database: 'answers' | 'away' | 'full' | 'unknown' = 'unknown'
  const note = (error?: unknown) => {
    if (error === undefined) database = 'answers'
    else if (isFull(error)) database = 'full'
    else if (isAway(error)) database = 'away'
  }
  return {
    note,
    alive: (_request, response) => {
      response.json({ status: 'ok', database })
    },
    ready: async (_request, response) => {
      try {
        await probe()
      } catch (error) {
        note(error)
        throw error
      }
      note()
      response.json({ status: 'ok' })
    },
  }
}

/** Asks the database and writes to it; the write is rolled into one row and leaves nothing behind. */
export const probeDatabase = (sequelize: Sequelize) => () =>
  sequelize.query('UPDATE readiness SET at = now()')
