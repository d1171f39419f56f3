/** Over slants one way and short the other, so that they differ without colour. */
export function Hatches() {
  return (
    <svg width="0" height="0" className="absolute" aria-hidden>
      <defs>
        <pattern
          id="hatch-over"
          width="6"
          height="6"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <path d="M0 0V6" className="stroke-brick" strokeWidth="1.6" />
        </pattern>
        <pattern
          id="hatch-short"
          width="6"
          height="6"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(-45)"
        >
          <path d="M0 0V6" className="stroke-short" strokeWidth="1.6" />
        </pattern>
      </defs>
    </svg>
  )
}
