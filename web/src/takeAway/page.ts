/** Where the script and the study stand in a take-away page. */
export const playerId = 'player'
export const studyId = 'study'
