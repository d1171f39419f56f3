/** Where the script, the study and what is read without the script stand in a take-away page. */
export const playerId = 'player'
export const studyId = 'study'
export const writtenId = 'written'
