import type { QueryInterface } from 'sequelize'

export const name = '0003-summaries'

/**
 * What the list of studies shows stands in columns of its own, so that no study has to be read for
 * it: title and about by the database, topics and the picture by the server. `drawn` is the version
 * that topics and picture belong to, `checked` the schema that the study was last checked against.
 */
export async function up(database: QueryInterface) {
  await database.sequelize.query(`
    ALTER TABLE studies
      ADD COLUMN title TEXT GENERATED ALWAYS AS (coalesce(study ->> 'title', '')) STORED,
      ADD COLUMN about TEXT GENERATED ALWAYS AS (coalesce(study ->> 'about', '')) STORED,
      ADD COLUMN topics TEXT[] NOT NULL DEFAULT '{}',
      ADD COLUMN picture TEXT,
      ADD COLUMN drawn INTEGER NOT NULL DEFAULT 0,
      ADD COLUMN checked VARCHAR(64)
  `)
  await database.sequelize.query(
    'CREATE INDEX studies_in_order ON studies (updated_at DESC, id DESC) WHERE deleted_at IS NULL',
  )
  await database.removeIndex('studies', 'studies_by_age')
  // One row that is written to find out whether the database still can.
  await database.sequelize.query(
    'CREATE TABLE readiness (one BOOLEAN PRIMARY KEY DEFAULT TRUE CHECK (one), at TIMESTAMPTZ NOT NULL)',
  )
  await database.sequelize.query('INSERT INTO readiness (at) VALUES (now())')
}

export async function down(database: QueryInterface) {
  await database.dropTable('readiness')
  await database.addIndex('studies', ['updated_at'], { name: 'studies_by_age' })
  await database.sequelize.query('DROP INDEX studies_in_order')
  await database.sequelize.query(`
    ALTER TABLE studies
      DROP COLUMN title, DROP COLUMN about, DROP COLUMN topics,
      DROP COLUMN picture, DROP COLUMN drawn, DROP COLUMN checked
  `)
}
