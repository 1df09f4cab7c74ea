import { readFileSync } from 'node:fs'

/** The SQL of that name, with whole numbers for its :names. */
export function sql(name, numbers = {}) {
  const text = readFileSync(new URL(`../sql/${name}.sql`, import.meta.url), 'utf8')
  return Object.entries(numbers).reduce((said, [key, value]) => {
    if (!Number.isInteger(value)) throw new Error(`${key} must be a whole number.`)
    return said.replaceAll(new RegExp(`(?<!:):${key}\\b`, 'g'), String(value))
  }, text)
}
