/**
 * How many letters are left out, put in, changed or swapped with the next: the optimal string
 * alignment distance (F. J. Damerau, 1964, from memory).
 */
export function slipsBetween(a: string, b: string): number {
  const rows = Array.from({ length: a.length + 1 }, (_, i) => [i])
  for (let j = 1; j <= b.length; j += 1) rows[0]!.push(j)
  for (let i = 1; i <= a.length; i += 1) {
    for (let j = 1; j <= b.length; j += 1) {
      const changed = rows[i - 1]![j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1)
      let least = Math.min(rows[i - 1]![j]! + 1, rows[i]![j - 1]! + 1, changed)
      const swapped = i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]
      if (swapped) least = Math.min(least, rows[i - 2]![j - 2]! + 1)
      rows[i]!.push(least)
    }
  }
  return rows[a.length]![b.length]!
}
