import { topicsOf } from '@yperkine/core'
import { type QueryInterface, QueryTypes } from 'sequelize'
import { demoStudies } from '../demo/studies'

export const name = '0005-examples'

/**
 * The list keeps examples apart from one's own studies: those that came with the program and still
 * have their titles. Pictures show a study as it opens, so each is drawn anew.
 */
export async function up(database: QueryInterface) {
  await database.sequelize.query(
    'ALTER TABLE studies ADD COLUMN example BOOLEAN NOT NULL DEFAULT FALSE',
  )
  await database.sequelize.query('UPDATE studies SET example = TRUE WHERE title = ANY($1)', {
    bind: [demoStudies.map(({ study }) => study.title)],
    type: QueryTypes.UPDATE,
  })
  // Their topics are known before they are drawn.
  for (const { study } of demoStudies) {
    await database.sequelize.query(
      'UPDATE studies SET topics = $2 WHERE title = $1 AND example AND drawn = 0',
      { bind: [study.title, topicsOf(study)], type: QueryTypes.UPDATE },
    )
  }
  await database.sequelize.query('UPDATE studies SET drawn = 0')
}

export async function down(database: QueryInterface) {
  await database.removeColumn('studies', 'example')
}
