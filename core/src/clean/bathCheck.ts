import { FieldError } from '../check/require.ts'
import { FINISHES, keepOut, MATERIALS, type Finish, type Material } from './keepOut.ts'
import { DEFAULT_BATHS, type Bath } from './recipes.ts'

export interface BathPart {
  name: string
  material: string
  finish?: string | undefined
}

export interface BathCheck {
  keepOut: { name: string; why: string }[]
  /** how long the rest may stay; 0 when nothing may go in */
  minutes: number
}

/**
 * Which parts must stay out of a bath, each with why, and how many minutes the rest may stay.
 *
 * What a part is made of may be said freely ("silvered brass", "old lacquer"): its words are matched to the materials
 * and finishes known here. The part's own name is read as well: a mainspring, a platform, a mercury jar, bellows and
 * whatever is luminous stay what they are, of whatever they are said to be made. A material that is not known stays
 * out, since nothing is known of what the bath does to it.
 *
 * @throws FieldError when there is no such bath, or a part has no name or material
 */
export function bathCheck(bathKey: string, parts: BathPart[], baths: Bath[] = DEFAULT_BATHS): BathCheck {
  const bath = baths.find((b) => b.key === bathKey)
  if (!bath) throw new FieldError('bath', bathKey, `it must be one of ${baths.map((b) => b.key).join(', ')}`)
  const out: BathCheck['keepOut'] = []
  parts.forEach((part, i) => {
    if (part.name.trim() === '') throw new FieldError(`parts[${i}].name`, part.name, 'it must be named')
    if (part.material.trim() === '') throw new FieldError(`parts[${i}].material`, part.material, 'it must be named')
    const why = whyOut(part, bath)
    if (why !== null) out.push({ name: part.name, why })
  })
  return { keepOut: out, minutes: out.length === parts.length ? 0 : bath.minutes }
}

function whyOut(part: BathPart, bath: Bath): string | null {
  const tender = NAMED.find(([pattern]) => pattern.test(part.name.toLowerCase()))
  if (tender) {
    const why = keepOut(tender[1], 'bare', bath.kind)
    if (why !== null) return why
  }
  const material = materialIn(part.material)
  if (material === null) return `what “${part.material}” does in it is not known here: clean it dry`
  // A finish may be named with the material, "silvered brass", so both are read; any one of them may keep it out.
  const finishes = finishesIn(`${part.material} ${part.finish ?? ''}`)
  if (part.finish !== undefined && part.finish.trim() !== '' && finishesIn(part.finish).length === 0)
    return `what “${part.finish}” does in it is not known here: clean it dry`
  for (const finish of [...finishes, 'bare' as const]) {
    const why = keepOut(material, finish, bath.kind)
    if (why !== null) return why
  }
  return null
}

const LUMINOUS = /radium|\blumin(ous|escent)|\blume\b/

/** What a part's own name says of it, whatever it was said to be made of: a steel mainspring is a mainspring. */
const NAMED: [RegExp, Material][] = [
  [LUMINOUS, 'radium dial'],
  [/mercur|quicksilver/, 'mercury'],
  [/platform|balance (wheel|staff)|hairspring/, 'platform escapement'],
  [/main ?springs?\b(?! (barrel|arbor|hook|clamp))/, 'mainspring'],
  [/bellow/, 'leather'],
]

/** Words that name a material in everyday speech; the first that fits counts, so the tender ones stand first. */
const MATERIAL_WORDS: [RegExp, Material][] = [
  [LUMINOUS, 'radium dial'],
  [/mercur|quicksilver/, 'mercury'],
  [/platform/, 'platform escapement'],
  [/mainspring|main spring/, 'mainspring'],
  [/shellac|glue/, 'shellac or glue'],
  [/ivory/, 'ivory'],
  [/bone|horn|shell/, 'bone'],
  [/leather|bellow/, 'leather'],
  [/paper|card/, 'paper'],
  [/wood|oak|pine|mahogany/, 'wood'],
  [/textile|cloth|silk|gut|line|cord|rope/, 'textile or line'],
  [/plastic|celluloid|nylon/, 'plastic'],
  [/alumini|zinc|pot metal/, 'aluminium or zinc'],
  [/lead\b/, 'lead'],
  [/bronze|gunmetal|bell metal/, 'bronze'],
  [/brass|nickel silver/, 'brass'],
  [/steel/, 'steel'],
  [/iron/, 'iron'],
  [/glass|enamel|porcelain/, 'glass'],
]

const FINISH_WORDS: [RegExp, Finish][] = [
  [/silvered|silver(ing|ed)?\b/, 'silvered'],
  [/paint/, 'painted'],
  [/gilt|gild|gold/, 'gilt'],
  [/lacquer|varnish/, 'lacquered'],
  [/plated|chrom/, 'plated'],
  [/blued|bluing/, 'blued'],
  [/rust/, 'rusty'],
  [/polish/, 'polished'],
  [/bare|none|plain|raw|clean/, 'bare'],
]

function materialIn(words: string): Material | null {
  const said = words.toLowerCase()
  return MATERIALS.find((m) => m === said.trim()) ?? MATERIAL_WORDS.find(([pattern]) => pattern.test(said))?.[1] ?? null
}

function finishesIn(words: string): Finish[] {
  const said = words.toLowerCase()
  const exact = FINISHES.find((f) => f === said.trim())
  return exact ? [exact] : FINISH_WORDS.filter(([pattern]) => pattern.test(said)).map(([, finish]) => finish)
}
