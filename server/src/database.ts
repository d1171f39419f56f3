import pg from 'pg'
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  Sequelize,
} from 'sequelize'
import type { Study } from '@yperkine/core'

/** One row of the table of studies. */
export class StudyRow extends Model<InferAttributes<StudyRow>, InferCreationAttributes<StudyRow>> {
  declare id: CreationOptional<string>
  declare version: CreationOptional<number>
  declare study: Study
  /** The id of the save that made this version, so that a repeated save is recognised. */
  declare saveId: string | null
  /** Title and about stand beside them, made by the database. */
  declare topics: CreationOptional<string[]>
  /** The drawing as JSON, and the version that it and the topics belong to. */
  declare picture: CreationOptional<string | null>
  declare drawn: CreationOptional<number>
  /** The schema it was last checked against; null where that was an older one. */
  declare checked: CreationOptional<string | null>
  declare updatedAt: CreationOptional<Date>
  declare createdAt: CreationOptional<Date>
  declare deletedAt: CreationOptional<Date | null>
}

/**
 * A connection that breaks while it is being opened says so twice: its promise is refused, which is
 * dealt with where it was asked for, and it emits an error, which ends the process where nobody
 * listens.
 */
class Client extends pg.Client {
  constructor(config?: string | pg.ClientConfig) {
    super(config)
    this.on('error', () => undefined)
  }
}

/** Milliseconds that a person waits for a connection before the database counts as away. */
const patience = 5000
/** Nobody waits for a start, and a busy machine may take long over its first connection. */
export const patienceAtStart = 60_000

/** Connects lazily; the pool replaces connections that the database has dropped. */
export function connect(databaseUrl: string, acquire = patience): Sequelize {
  const sequelize = new Sequelize(databaseUrl, {
    dialect: 'postgres',
    dialectModule: { ...pg, Client },
    logging: false,
    pool: { max: 10, acquire, idle: 10_000 },
    retry: { max: 2, match: [/terminating connection/, /Connection terminated/, /ECONNRESET/] },
  })
  StudyRow.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
      version: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 1 },
      study: { type: DataTypes.JSONB, allowNull: false },
      saveId: { type: DataTypes.STRING(100), field: 'save_id' },
      topics: { type: DataTypes.ARRAY(DataTypes.TEXT), allowNull: false, defaultValue: [] },
      picture: { type: DataTypes.TEXT },
      drawn: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 },
      checked: { type: DataTypes.STRING(64) },
      createdAt: { type: DataTypes.DATE, field: 'created_at' },
      updatedAt: { type: DataTypes.DATE, field: 'updated_at' },
      deletedAt: { type: DataTypes.DATE, field: 'deleted_at' },
    },
    { sequelize, tableName: 'studies', timestamps: true, paranoid: true },
  )
  return sequelize
}
