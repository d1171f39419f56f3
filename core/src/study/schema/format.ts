/** The format that is written; older ones are brought up to it. */
export const presentFormat = 2
