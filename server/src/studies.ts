import {
  type ListAnswer,
  type ListQuery,
  type SavedAnswer,
  type StoredStudy,
  type Study,
  studyProblems,
  studySchema,
  topicsOf,
} from '@yperkine/core'
import { QueryTypes } from 'sequelize'
import { z } from 'zod'
import { StudyRow } from './database'
import { badCursor, notFound, studyChanged, unreadableStudy } from './errors'
import { schemaMark } from './schemaMark'

interface StoredRow {
  id: string
  version: number
  study: string
  checked: string | null
  updatedAt: Date
}
interface SummaryRow {
  id: string
  version: number
  title: string
  about: string
  topics: string[]
  example: boolean
  picture: string | null
  drawn: number
  format: number
  updatedAt: Date
}

const storedColumns = 'id, version, study::text AS study, checked, updated_at AS "updatedAt"'

/** The study of a row, as JSON, with what is usual where it was kept before the schema grew. */
function studyText(row: StoredRow): string {
  if (row.checked === schemaMark) return row.study
  const read = studySchema.safeParse(JSON.parse(row.study))
  if (!read.success) throw unreadableStudy(studyProblems(read.error))
  return JSON.stringify(read.data)
}

const storedText = (row: StoredRow) =>
  `{"id":${JSON.stringify(row.id)},"version":${row.version},"updatedAt":"${row.updatedAt.toISOString()}","study":${studyText(row)}}`

/** So many entries of the list are remembered as text: each is asked for again and again. */
const mostRemembered = 5000

/** The text of an entry: a study of one version, drawn or not, always reads the same. */
function createSummaryTexts(): (row: SummaryRow) => string {
  const texts = new Map<string, string>()
  return (row) => {
    const key = `${row.id} ${row.version} ${row.drawn}`
    let text = texts.get(key)
    if (text === undefined) {
      const { picture, drawn, ...shown } = row
      const plain = JSON.stringify({ ...shown, drawing: drawn !== row.version })
      // A picture is JSON already.
      text = `${plain.slice(0, -1)},"thumbnail":${picture ?? 'null'}}`
      if (texts.size >= mostRemembered) texts.clear()
      texts.set(key, text)
    }
    return text
  }
}

const cursorOf = (row: SummaryRow) =>
  Buffer.from(`${row.updatedAt.toISOString()} ${row.id}`).toString('base64url')

function readCursor(cursor: string): [at: string, id: string] {
  const [at = '', id = ''] = Buffer.from(cursor, 'base64url').toString().split(' ')
  const read = z.tuple([z.iso.datetime(), z.uuid()]).safeParse([at, id])
  if (!read.success) throw badCursor()
  return read.data
}

/** A word as a pattern that finds it anywhere; what is special in patterns stands for itself. */
const patternOf = (word: string) => `%${word.replace(/[\\%_]/g, '\\$&')}%`

/**
 * The studies as the routes see them; answers that may be long come as JSON text, so that what is
 * JSON in the database is not read and written again. Every study handed in has been through the
 * schema.
 */
export function createStudies(onSaved: (id: string) => void = () => undefined) {
  const summaryText = createSummaryTexts()
  const select = <Row extends object>(sql: string, bind: unknown[]) =>
    StudyRow.sequelize!.query<Row>(sql, { bind, type: QueryTypes.SELECT })

  const find = async (id: string, deletedToo = false): Promise<StoredRow> => {
    const [row] = await select<StoredRow>(
      `SELECT ${storedColumns} FROM studies WHERE id = $1${deletedToo ? '' : ' AND deleted_at IS NULL'}`,
      [id],
    )
    if (!row) throw notFound()
    return row
  }

  return {
    /** A page of the list, newest first, as JSON; only the columns made for it are read. */
    async list({ cursor, search, topic, example, limit }: ListQuery): Promise<string> {
      const bind: unknown[] = []
      const place = (value: unknown) => `$${bind.push(value)}`
      const wanted = ['deleted_at IS NULL']
      if (cursor !== undefined) {
        const [at, id] = readCursor(cursor)
        wanted.push(`(updated_at, id) < (${place(at)}::timestamptz, ${place(id)}::uuid)`)
      }
      for (const word of (search ?? '').split(/\s+/).filter((w) => w !== '')) {
        wanted.push(`title || ' ' || array_to_string(topics, ' ') ILIKE ${place(patternOf(word))}`)
      }
      if (example !== undefined) wanted.push(`example = ${place(example === 'true')}`)
      if (topic !== undefined) wanted.push(`${place(topic)} = ANY(topics)`)
      const rows = await select<SummaryRow>(
        `SELECT id, version, title, about, topics, example, picture, drawn, format, updated_at AS "updatedAt"
         FROM studies WHERE ${wanted.join(' AND ')}
         ORDER BY updated_at DESC, id DESC LIMIT ${place(limit + 1)}`,
        bind,
      )
      const page = rows.slice(0, limit)
      const next: ListAnswer['next'] = rows.length > limit ? cursorOf(page.at(-1)!) : null
      return `{"studies":[${page.map(summaryText).join(',')}],"next":${JSON.stringify(next)}}`
    },

    /** One study as JSON. */
    async get(id: string): Promise<string> {
      return storedText(await find(id))
    },

    async create(study: Study): Promise<SavedAnswer & { id: string }> {
      const { id, version, updatedAt } = await StudyRow.create({
        study,
        saveId: null,
        topics: topicsOf(study),
        checked: schemaMark,
      })
      onSaved(id)
      return { id, version, updatedAt: updatedAt.toISOString() }
    },

    /**
     * Saves a new version over the one it was made from. A save that was already taken in, whose
     * answer got lost, is answered again; one made from another version is refused with the
     * present state.
     */
    async save(id: string, version: number, study: Study, saveId: string): Promise<SavedAnswer> {
      const [saved] = await select<{ version: number; updatedAt: Date }>(
        `UPDATE studies SET study = $1, save_id = $2, topics = $3, checked = $4,
           version = version + 1, updated_at = date_trunc('milliseconds', now())
         WHERE id = $5 AND version = $6 AND deleted_at IS NULL
         RETURNING version, updated_at AS "updatedAt"`,
        [JSON.stringify(study), saveId, topicsOf(study), schemaMark, id, version],
      )
      if (saved) {
        onSaved(id)
        return { version: saved.version, updatedAt: saved.updatedAt.toISOString() }
      }
      const [again] = await select<{ version: number; updatedAt: Date }>(
        `SELECT version, updated_at AS "updatedAt" FROM studies
         WHERE id = $1 AND save_id = $2 AND deleted_at IS NULL`,
        [id, saveId],
      )
      if (again) return { version: again.version, updatedAt: again.updatedAt.toISOString() }
      throw studyChanged(JSON.parse(storedText(await find(id))) as StoredStudy)
    },

    async remove(id: string): Promise<void> {
      if ((await StudyRow.destroy({ where: { id } })) === 0) throw notFound()
    },

    async restore(id: string): Promise<string> {
      const row = await find(id, true)
      // Bringing a study back is no work on it: its age stays.
      await StudyRow.update({ deletedAt: null }, { where: { id }, paranoid: false, silent: true })
      return storedText(row)
    },
  }
}

export type Studies = ReturnType<typeof createStudies>
