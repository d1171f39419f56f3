import type { Flag } from './picture'

/** How wide the flag of a place is, in pixels. */
export const flagWidth = (text: string) => Math.max(18, 9 + text.length * 8)

/** Between two flags, in pixels. */
const gap = 2

/**
 * How far each flag stands beside its place, so that none covers another: flags that would are moved
 * apart evenly and keep their order; their tips stay where they are. In the order of the flags.
 */
export function fanOut(flags: readonly Pick<Flag, 'at' | 'text'>[]): number[] {
  const order = flags.map((_, i) => i).sort((a, b) => flags[a]!.at - flags[b]!.at || a - b)
  interface Group {
    members: number[]
    /** The middle of the first flag. */
    start: number
    end: number
  }
  const half = (i: number) => flagWidth(flags[i]!.text) / 2
  const laid = (members: number[]): Group => {
    const offsets = [0]
    for (let k = 1; k < members.length; k++) {
      offsets.push(offsets[k - 1]! + half(members[k - 1]!) + gap + half(members[k]!))
    }
    const mean = members.reduce((sum, i, k) => sum + flags[i]!.at - offsets[k]!, 0) / members.length
    return { members, start: mean, end: mean + offsets.at(-1)! }
  }
  const groups: Group[] = []
  for (const i of order) {
    let group = laid([i])
    for (;;) {
      const before = groups.at(-1)
      const room = before && half(before.members.at(-1)!) + gap + half(group.members[0]!)
      if (!before || group.start - before.end >= room!) break
      groups.pop()
      group = laid([...before.members, ...group.members])
    }
    groups.push(group)
  }
  const shifts = new Array<number>(flags.length).fill(0)
  for (const { members, start } of groups) {
    if (members.length === 1) continue
    let at = start
    members.forEach((i, k) => {
      if (k > 0) at += half(members[k - 1]!) + gap + half(i)
      shifts[i] = at - flags[i]!.at
    })
  }
  return shifts
}
