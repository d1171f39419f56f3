import { z } from 'zod'

/** What the speaker's window shows of a step. */
const toldSchema = z.object({ title: z.string(), question: z.string(), words: z.string() })
export type Told = z.infer<typeof toldSchema>

const lessonSchema = z.object({
  kind: z.literal('lesson'),
  study: z.string(),
  /** From 0; -1 where no step is open. */
  at: z.number(),
  count: z.number(),
  step: toldSchema.nullable(),
  next: toldSchema.nullable(),
  /** When presenting began, in milliseconds. */
  since: z.number(),
})
export type Lesson = z.infer<typeof lessonSchema>

/** What the two windows of a lesson tell each other. */
const messageSchema = z.discriminatedUnion('kind', [
  lessonSchema,
  z.object({ kind: z.literal('ended') }),
  /** The speaker's window has opened and wants to know where the lesson is. */
  z.object({ kind: z.literal('hello') }),
  z.object({ kind: z.literal('go'), by: z.union([z.literal(1), z.literal(-1)]) }),
])
export type Message = z.infer<typeof messageSchema>

/** A channel between the windows of one study in this browser; what is no message is passed over. */
export function openChannel(id: string, onMessage: (message: Message) => void) {
  const channel = new BroadcastChannel(`yperkine.lesson.${id}`)
  channel.addEventListener('message', (event: MessageEvent<unknown>) => {
    const read = messageSchema.safeParse(event.data)
    if (read.success) onMessage(read.data)
  })
  return {
    tell: (message: Message) => channel.postMessage(message),
    close: () => channel.close(),
  }
}
