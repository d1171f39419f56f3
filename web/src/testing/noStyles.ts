/** Stands for style sheets where nothing is drawn. */
export default {}
