import { printable } from './printable.ts'

/** A length in mm as a drawing holds it: to a thousandth. */
export function mm(value: number): string {
  return String(Math.round(value * 1000) / 1000)
}

const ENTITIES: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' }

/** Words as an SVG may hold them. */
export function escaped(text: string): string {
  return printable(text).replace(/[&<>"']/g, (c) => ENTITIES[c] ?? c)
}
