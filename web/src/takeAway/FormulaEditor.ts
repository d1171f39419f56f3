/** Nothing is written in a take-away page: the largest package of all stays behind. */
export const FormulaEditor = null
