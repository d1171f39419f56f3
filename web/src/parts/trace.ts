/** Leaves a trace of a fault of ours where those who mend it look; the page says the rest in words. */
export function trace(what: string, fault: unknown): void {
  console.error(what, fault)
}
