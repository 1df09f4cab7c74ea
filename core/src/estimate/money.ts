import Big from 'big.js'
import { FieldError } from '../check/require.ts'

/** Reads an amount such as "12.50"; refuses anything else, by the field's name. */
export function amount(field: string, value: string | number): Big {
  const text = typeof value === 'number' ? String(value) : value.trim()
  if (!/^-?\d{1,12}(\.\d{1,8})?$/.test(text)) throw new FieldError(field, value, 'it must be an amount such as "12.50"')
  return new Big(text)
}

/** Two places, a half rounded away from nought. */
export function twoPlaces(value: Big): string {
  return value.round(2, Big.roundHalfUp).toFixed(2)
}
