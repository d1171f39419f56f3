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
