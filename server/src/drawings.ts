import { type Picture, type Study, studySchema, topicsOf } from '@yperkine/core'
import type { Logger } from 'pino'
import { col, Op, QueryTypes, where } from 'sequelize'
import { StudyRow } from './database'
import { blankPicture } from './picture'
import { schemaMark } from './schemaMark'

export interface Drawings {
  /** Asks for the picture of a study's present version. */
  ask(id: string): void
  /** Asks for every picture that is missing, as after a start. */
  askForMissing(): Promise<void>
  /** Resolves when nothing is left to draw. */
  idle(): Promise<void>
  stop(): void
}

/**
 * Draws studies for the list, one after another and apart from every answer: a study that is saved
 * often is drawn once for its latest version, and one that cannot be drawn gets a blank picture.
 */
export function createDrawings(
  draw: (study: Study) => Promise<Picture>,
  log: Logger,
  /** How long a study rests before it is drawn, in milliseconds: while someone works it is saved often. */
  rest = 0,
): Drawings {
  const waiting = new Set<string>()
  let running: Promise<void> | null = null
  let stopped = false

  const drawOne = async (id: string) => {
    const row = await StudyRow.findByPk(id, {
      attributes: ['id', 'version', 'study', 'drawn', 'checked'],
    })
    if (!row || row.drawn === row.version) return
    let [picture, topics]: [Picture, string[]] = [blankPicture, []]
    try {
      const study = row.checked === schemaMark ? row.study : studySchema.parse(row.study)
      topics = topicsOf(study)
      picture = await draw(study)
    } catch (error) {
      log.warn({ id, reason: error instanceof Error ? error.message : String(error) }, 'not drawn')
    }
    if (stopped) return
    const { version } = row
    await StudyRow.sequelize!.query(
      'UPDATE studies SET picture = $1, topics = $2, drawn = $3 WHERE id = $4 AND version = $3',
      { bind: [JSON.stringify(picture), topics, version, id], type: QueryTypes.UPDATE },
    )
  }

  const run = async (pause: number) => {
    if (pause > 0) await new Promise((resolve) => setTimeout(resolve, pause).unref())
    for (const id of waiting) {
      if (stopped) return
      waiting.delete(id)
      // A database that is away leaves the old picture; the next save, or start, asks again.
      await drawOne(id).catch((error: unknown) => log.warn({ id, err: error }, 'not drawn'))
    }
  }

  const start = (pause: number) => {
    running ??= run(pause).finally(() => {
      running = null
      // What was asked for while the last one ended.
      if (waiting.size > 0 && !stopped) start(rest)
    })
  }
  const ask = (id: string) => {
    waiting.add(id)
    start(rest)
  }

  return {
    ask,
    async askForMissing() {
      const rows = await StudyRow.findAll({
        attributes: ['id'],
        where: where(col('drawn'), Op.ne, col('version')),
        order: [['updatedAt', 'DESC']],
      })
      rows.forEach(({ id }) => waiting.add(id))
      if (waiting.size > 0) start(0)
    },
    async idle() {
      while (running) await running
    },
    stop() {
      stopped = true
      waiting.clear()
    },
  }
}
