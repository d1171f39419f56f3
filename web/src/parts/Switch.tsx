interface Props {
  label: string
  on: boolean
  onChange: (on: boolean) => void
}

/** Something that is on or off. */
export const Switch = ({ label, on, onChange }: Props) => (
  <button
    type="button"
    role="switch"
    aria-checked={on}
    aria-label={label}
    title={on ? `${label} is shown` : `${label} is not shown`}
    className="grid h-7 w-11 shrink-0 place-items-center rounded-md pointer-coarse:size-11"
    onClick={() => onChange(!on)}
  >
    <span
      className={`flex h-[18px] w-9 items-center rounded-[5px] border-2 px-0.5 ${on ? 'justify-end border-kelp bg-kelp' : 'justify-start border-edge bg-page'}`}
    >
      <span className={`h-2.5 w-3 rounded-[2px] ${on ? 'bg-page' : 'bg-edge'}`} />
    </span>
  </button>
)
