interface ChoiceProps {
  label: string
  value: string
  options: readonly (readonly [value: string, words: string])[]
  onChoose: (value: string) => void
}

/** A choice of some words. */
export const Choice = ({ label, value, options, onChoose }: ChoiceProps) => (
  <label className="flex items-center justify-between gap-3">
    {label}
    <select
      aria-label={label}
      className="field"
      value={value}
      onChange={(e) => onChoose(e.target.value)}
    >
      {options.map(([one, words]) => (
        <option key={one} value={one}>
          {words}
        </option>
      ))}
    </select>
  </label>
)

/** Something that is on or off. */
export const Check = ({
  label,
  on,
  onSet,
}: {
  label: string
  on: boolean
  onSet: (on: boolean) => void
}) => (
  <label className="flex items-center gap-2">
    <input type="checkbox" checked={on} onChange={(e) => onSet(e.target.checked)} />
    {label}
  </label>
)
