import { randomUUID } from 'node:crypto'
import type { QueryInterface } from 'sequelize'
import { demoStudies } from '../demo/studies'

export const name = '0002-demo-studies'

const hour = 3_600_000

/** A migration, so that demo studies someone has deleted do not come back at the next start. */
export async function up(database: QueryInterface) {
  const now = Date.now()
  await database.bulkInsert(
    'studies',
    demoStudies.map(({ study, hoursAgo }) => {
      const at = new Date(now - hoursAgo * hour)
      return {
        id: randomUUID(),
        version: 1,
        study: JSON.stringify(study),
        created_at: at,
        updated_at: at,
      }
    }),
  )
}

export async function down() {
  // The studies may have been worked on; they are the user's now.
}
