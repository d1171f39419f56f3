import { type Sequelize, QueryTypes, Transaction } from 'sequelize'
import { SequelizeStorage, Umzug } from 'umzug'
import * as studies from './0001-studies'
import * as demoStudies from './0002-demo-studies'
import * as summaries from './0003-summaries'
import * as formats from './0004-formats'
import * as examples from './0005-examples'

const lockKey = 4_620_001

/** Brings the database up to date; several servers starting at once take turns. */
export async function migrate(sequelize: Sequelize, options: { demo: boolean }): Promise<void> {
  const all = [studies, ...(options.demo ? [demoStudies] : []), summaries, formats, examples]
  const umzug = new Umzug({
    migrations: all.map(({ name, up, down }) => ({
      name,
      up: () => up(sequelize.getQueryInterface()),
      down: () => down(sequelize.getQueryInterface()),
    })),
    storage: new SequelizeStorage({ sequelize, tableName: 'migrations' }),
    logger: undefined,
  })
  await sequelize.transaction(
    { isolationLevel: Transaction.ISOLATION_LEVELS.READ_COMMITTED },
    async (transaction) => {
      await sequelize.query('SELECT pg_advisory_xact_lock(:lockKey)', {
        replacements: { lockKey },
        transaction,
        type: QueryTypes.SELECT,
      })
      await umzug.up()
    },
  )
}
