/** A page that is taken away draws its surfaces as SVG: the package for more stays behind. */
export default function SpaceGl() {
  return null
}
