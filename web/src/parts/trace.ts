/** Leaves a trace of a fault of ours where those who mend it look; the page says the rest in words. */
export function trace(what: string, fault: unknown): void {
  // eslint-disable-next-line no-console -- the one place for it
  console.error(what, fault)
}
