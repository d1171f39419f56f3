/** Plain progress lines, and faults a person can act on without a stack. */
export const say = (text) => console.log(text)

export class Explained extends Error {}

/** Stops with one sentence where the fault is one we can explain, with all we know otherwise. */
export function runMain(main) {
  main().catch((error) => {
    console.error(error instanceof Explained ? `\n${error.message}` : error)
    process.exit(1)
  })
}
