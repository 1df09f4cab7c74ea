import { bathCheck, type BathPart } from './bathCheck.ts'
import type { Bath } from './recipes.ts'

export interface SortedBaths<P> {
  baths: { bath: Bath; parts: P[] }[]
  dry: { part: P; why: string }[]
}

/**
 * Sorts parts into the workshop's baths: rusty steel and iron into the rust bath, mainsprings into spirit, the rest into
 * the bath preferred for this clock, or into the mildest other that takes it; what no bath takes stays dry, with why.
 */
export function sortIntoBaths<P extends BathPart>(parts: P[], baths: Bath[], preferred: string): SortedBaths<P> {
  const order = [
    ...baths.filter((b) => b.key === preferred),
    ...baths.filter((b) => b.key !== preferred && b.kind !== 'chelating' && b.kind !== 'ammoniated'),
  ]
  const into = new Map<string, P[]>(baths.map((b) => [b.key, []]))
  const dry: { part: P; why: string }[] = []
  for (const part of parts) {
    const rusty = /rust/.test(`${part.material} ${part.finish ?? ''}`.toLowerCase())
    const tried = rusty ? [...baths.filter((b) => b.kind === 'chelating'), ...order] : order
    const reasons = tried.map((bath) => bathCheck(bath.key, [part], baths).keepOut[0]?.why ?? null)
    const fit = tried[reasons.indexOf(null)]
    if (fit) into.get(fit.key)?.push(part)
    else dry.push({ part, why: reasons[0] ?? 'no bath is set up' })
  }
  return { baths: baths.map((bath) => ({ bath, parts: into.get(bath.key) ?? [] })), dry }
}
