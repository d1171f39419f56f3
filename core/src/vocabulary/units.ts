const raised = ['', '', '²', '³', '⁴', '⁵', '⁶', '⁷', '⁸', '⁹']

/**
 * The unit of a curve's derivative: ML/h against h is "ML/h per h", its second derivative
 * "ML/h per h²". Without a unit on the axis there is nothing to divide by.
 */
export function unitOfDerivative(unit: string, axisUnit: string, order: number): string {
  if (order === 0) return unit
  if (order < 0) return unitOfArea(unit, axisUnit)
  if (axisUnit === '') return unit === '' ? '' : `${unit} per unit`
  const per = `per ${axisUnit}${raised[order] ?? `^${order}`}`
  return unit === '' ? per : `${unit} ${per}`
}

/** A number with its unit behind a space; the unit is left out where there is none. */
export const withUnit = (text: string, unit: string) => (unit === '' ? text : `${text} ${unit}`)

interface UnitPart {
  base: string
  power: number
}

const raisedDigits = '⁰¹²³⁴⁵⁶⁷⁸⁹'

/** Splits "ML/h", "m s⁻²" or "kg·m^2 per s" into factors; what is no such text is one factor. */
function readUnit(unit: string): UnitPart[] {
  const [above = '', ...below] = unit.trim().split(/\s*\/\s*|\s+per\s+|^per\s+/)
  const factors = (text: string, sign: 1 | -1) =>
    text
      .split(/[·*\s]+/)
      .filter((part) => part !== '' && part !== '1')
      .map((part): UnitPart => {
        const [, base = part, caret, raisedText = ''] =
          /^(.+?)(?:\^(-?\d+)|([⁻⁰¹²³⁴⁵⁶⁷⁸⁹]+))?$/.exec(part) ?? []
        const digits = raisedText
          .replace('⁻', '-')
          .replace(/[⁰¹²³⁴⁵⁶⁷⁸⁹]/g, (c) => String(raisedDigits.indexOf(c)))
        return { base, power: sign * Number(caret ?? (digits || 1)) }
      })
  return [...factors(above, 1), ...below.flatMap((part) => factors(part, -1))]
}

function printUnit(parts: readonly UnitPart[]): string {
  const written = ({ base, power }: UnitPart) =>
    power === 1 ? base : base + [...String(power)].map((d) => raisedDigits[Number(d)]).join('')
  const above = parts.filter((p) => p.power > 0).map(written)
  const below = parts.filter((p) => p.power < 0).map((p) => written({ ...p, power: -p.power }))
  const top = above.join('·')
  if (below.length === 0) return top
  return top === '' ? `per ${below.join('·')}` : `${top}/${below.join('/')}`
}

/**
 * The unit of an area under a curve: its unit times the axis unit, like factors brought together
 * and opposite ones cancelled. ML/h times h is ML, m times m is m², °C times h is °C·h.
 */
export function unitOfArea(unit: string, axisUnit: string): string {
  const powers = new Map<string, number>()
  for (const { base, power } of [...readUnit(unit), ...readUnit(axisUnit)]) {
    powers.set(base, (powers.get(base) ?? 0) + power)
  }
  return printUnit([...powers].flatMap(([base, power]) => (power === 0 ? [] : [{ base, power }])))
}

/** "1, 2 and 3 h"; beyond so many, "1, 2 h and 12 more". */
export function listed(all: readonly string[], most: number, unit = ''): string {
  if (all.length > most) {
    return `${withUnit(all.slice(0, most).join(', '), unit)} and ${all.length - most} more`
  }
  const list = all.length < 2 ? all.join('') : `${all.slice(0, -1).join(', ')} and ${all.at(-1)}`
  return withUnit(list, unit)
}
