/** The sign of Yperkine: a curve with a level tangent at its high point. */
export function Mark() {
  return (
    <svg viewBox="0 0 26 22" width="28" height="24" fill="none" strokeLinecap="round" aria-hidden>
      <path d="M2 19C8 19 8.5 6 13 6s5 13 11 13" className="stroke-kelp" strokeWidth="2.6" />
      <path d="M5 6h16" className="stroke-rust" strokeWidth="2.2" />
      <circle cx="13" cy="6" r="3" className="fill-rust" />
    </svg>
  )
}
