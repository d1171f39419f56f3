import { thumbnail, topicsOf, type Study, studySchema } from '@yperkine/core'
import { StudyRow } from './database'
import { notFound, studyChanged } from './errors'

export interface StoredStudy {
  id: string
  version: number
  study: Study
  updatedAt: string
}

export interface StudySummary {
  id: string
  version: number
  title: string
  about: string
  topics: string[]
  updatedAt: string
  thumbnail: { path: string; axis: number | null; width: number; height: number }
}

const [thumbnailWidth, thumbnailHeight] = [148, 66]
const thumbnailsKept = 1000

/** A row may have been written before the schema grew: what it lacks gets its usual value. */
const studyOf = (row: StudyRow): Study => studySchema.parse(row.study)

const stored = (row: StudyRow): StoredStudy => ({
  id: row.id,
  version: row.version,
  study: studyOf(row),
  updatedAt: row.updatedAt.toISOString(),
})

/** The studies as the routes see them. Every study handed in has been through the schema. */
export function createStudies() {
  const drawings = new Map<string, StudySummary['thumbnail']>()

  /** A drawing belongs to one version of a study and is made once for it. */
  const drawingOf = (row: StudyRow): StudySummary['thumbnail'] => {
    const key = `${row.id} ${row.version}`
    let drawing = drawings.get(key)
    if (!drawing) {
      drawing = {
        ...thumbnail(studyOf(row), thumbnailWidth, thumbnailHeight),
        width: thumbnailWidth,
        height: thumbnailHeight,
      }
      const oldest = drawings.keys().next()
      if (drawings.size >= thumbnailsKept && !oldest.done) drawings.delete(oldest.value)
      drawings.set(key, drawing)
    }
    return drawing
  }

  return {
    async list(): Promise<StudySummary[]> {
      const rows = await StudyRow.findAll({ order: [['updatedAt', 'DESC']], limit: 500 })
      return rows.map((row) => ({
        id: row.id,
        version: row.version,
        title: row.study.title,
        about: row.study.about,
        topics: topicsOf(row.study),
        updatedAt: row.updatedAt.toISOString(),
        thumbnail: drawingOf(row),
      }))
    },

    async get(id: string): Promise<StoredStudy> {
      const row = await StudyRow.findByPk(id)
      if (!row) throw notFound()
      return stored(row)
    },

    async create(study: Study): Promise<StoredStudy> {
      return stored(await StudyRow.create({ study, saveId: null }))
    },

    /**
     * Saves a new version over the one it was made from. A save that was already taken in, whose
     * answer got lost, is answered again; one made from another version is refused with the
     * present state.
     */
    async save(id: string, version: number, study: Study, saveId: string): Promise<StoredStudy> {
      const [count, rows] = await StudyRow.update(
        { study, saveId, version: version + 1 },
        { where: { id, version }, returning: true },
      )
      if (count === 1) return stored(rows[0]!)
      const row = await StudyRow.findByPk(id)
      if (!row) throw notFound()
      if (row.saveId === saveId) return stored(row)
      throw studyChanged(stored(row))
    },

    async remove(id: string): Promise<void> {
      if ((await StudyRow.destroy({ where: { id } })) === 0) throw notFound()
    },

    async restore(id: string): Promise<StoredStudy> {
      const row = await StudyRow.findByPk(id, { paranoid: false })
      if (!row) throw notFound()
      // Bringing a study back is no work on it: its age stays.
      if (row.deletedAt) {
        await StudyRow.update({ deletedAt: null }, { where: { id }, paranoid: false, silent: true })
      }
      return stored(row)
    },
  }
}

export type Studies = ReturnType<typeof createStudies>
