const worth: Record<string, number> = { '"': 2, '″': 2, '‴': 3 }

/** How many primes a row of them comes to, typed or typeset: 2 for ″, '' and ". */
export const countPrimes = (marks: string): number =>
  [...marks].reduce((total, mark) => total + (worth[mark] ?? 1), 0)
