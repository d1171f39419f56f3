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
