import type { QueryInterface } from 'sequelize'

export const name = '0004-formats'

/** The list tells studies that are kept in a newer format; what has none that counts is of format 0. */
export async function up(database: QueryInterface) {
  await database.sequelize.query(`
    ALTER TABLE studies ADD COLUMN format INTEGER GENERATED ALWAYS AS (
      CASE WHEN study ->> 'format' ~ '^[0-9]{1,6}$' THEN (study ->> 'format')::integer ELSE 0 END
    ) STORED
  `)
}

export async function down(database: QueryInterface) {
  await database.sequelize.query('ALTER TABLE studies DROP COLUMN format')
}
