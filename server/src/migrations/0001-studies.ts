import { DataTypes, type QueryInterface } from 'sequelize'

export const name = '0001-studies'

export async function up(database: QueryInterface) {
  await database.createTable('studies', {
    id: { type: DataTypes.UUID, primaryKey: true },
    version: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 1 },
    study: { type: DataTypes.JSONB, allowNull: false },
    save_id: { type: DataTypes.STRING(100) },
    created_at: { type: DataTypes.DATE, allowNull: false },
    updated_at: { type: DataTypes.DATE, allowNull: false },
    deleted_at: { type: DataTypes.DATE },
  })
  await database.addIndex('studies', ['updated_at'], { name: 'studies_by_age' })
}

export async function down(database: QueryInterface) {
  await database.dropTable('studies')
}
