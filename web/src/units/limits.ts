import { plain } from './format'

/** What a field allows. */
export interface Limits {
  label?: string
  unit?: string
  above?: number
  least?: number
  most?: number
  whole?: boolean
}

/** Why a value is refused, in a sentence that says what is allowed; undefined where it is not. */
export function refusal(value: number, limits: Limits): string | undefined {
  const { above, least, most, unit } = limits
  const fits = !(above !== undefined && value <= above) && !(least !== undefined && value < least) && !(most !== undefined && value > most)
  if (fits) return limits.whole && !Number.isInteger(value) ? `${capital(limits.label)} is a whole number.` : undefined
  const bounds = [
    above !== undefined && `above ${plain(above)}`,
    above === undefined && least !== undefined && `at least ${plain(least)}`,
    most !== undefined && `at most ${plain(most)}`,
  ]
  return `${capital(limits.label)} must be ${bounds.filter(Boolean).join(' and ')}${unit ? ` ${unit}` : ''}; ${plain(value)} is not.`
}

const capital = (label = 'the value') => label.charAt(0).toUpperCase() + label.slice(1)
