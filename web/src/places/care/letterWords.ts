import type { Language } from '@treadle/contract'
import type { CareKind, CarePart } from '@treadle/core'
import { dayIn } from '../../parts/say.ts'

/** A letter to an owner whose clock falls due, in one language. */
export interface LetterWords {
  day: (day: string) => string
  month: (day: string) => string
  subject: (clock: string) => string
  dear: (owner: string) => string
  body: Record<CareKind, (told: { clock: string; oiled: string; due: string; late: boolean }) => string[]>
  /** what is inspected on the same visit, where there is anything besides the oil */
  withIt: (parts: CarePart[]) => string[]
  answer: (phone: string) => string
  farewell: string
}

const EN_PARTS: Record<CarePart, string> = {
  suspension: 'the spring that its pendulum hangs from',
  mercury: 'the mercury of its pendulum and what holds it',
  chimes: 'its chime',
}
const DE_PARTS: Record<CarePart, string> = {
  suspension: 'die Feder, an der das Pendel hängt',
  mercury: 'das Quecksilber des Pendels und was es hält',
  chimes: 'das Melodieschlagwerk',
}

export const LETTER_WORDS: Record<Language, LetterWords> = {
  en: {
    day: dayIn('en-GB', { day: 'numeric', month: 'long', year: 'numeric' }),
    month: dayIn('en-GB', { month: 'long', year: 'numeric' }),
    subject: (clock) => `Your ${clock}`,
    dear: (owner) => `To ${owner}`,
    body: {
      check: ({ clock, oiled, due, late }) => [
        `Your ${clock} was last oiled here in ${oiled}. Oil ages whether a clock goes or not, and ${late ? `it was to be looked at by ${due}` : `by ${due} it should be looked at`}: a short visit, and mostly the clock can stay where it stands.`,
        'Please don’t wait until it stops: a clock that stops for want of oil has worn by then.',
      ],
      service: ({ clock, oiled, due, late }) => [
        `Your ${clock} was last oiled here in ${oiled}. ${late ? `It was due by ${due}` : `By ${due} it is due`} to be taken apart, cleaned and oiled, even if it still goes: it is the old oil that wears it.`,
        'You would have a figure from us before anything is done.',
      ],
      guarantee: ({ clock, due }) => [
        `Our guarantee on your ${clock} ends on ${due}. If it does not keep time, strike or run its days as it should, tell us before then, and what is ours to mend is mended.`,
        'If all is well there is nothing to do.',
      ],
    },
    withIt: (parts) => [
      `On the same visit we inspect ${new Intl.ListFormat('en-GB').format(parts.map((part) => EN_PARTS[part]))}.`,
      ...(parts.includes('mercury')
        ? ['Please leave its pendulum where it hangs: it holds mercury, and only we should move it.']
        : []),
    ],
    answer: (phone) => `When would suit you? ${phone === '' ? 'Please let us know.' : `Please ring ${phone}.`}`,
    farewell: 'With kind regards',
  },
  de: {
    day: dayIn('de-DE', { day: 'numeric', month: 'long', year: 'numeric' }),
    month: dayIn('de-DE', { month: 'long', year: 'numeric' }),
    subject: (clock) => `Ihre Uhr: ${clock}`,
    dear: (owner) => `An ${owner}`,
    body: {
      check: ({ clock, oiled, due, late }) => [
        `Ihre Uhr, ${clock}, wurde hier zuletzt im ${oiled} geölt. Öl altert, ob eine Uhr geht oder nicht; ${late ? `bis ${due} hätte es angesehen werden sollen` : `bis ${due} sollte es angesehen werden`}: ein kurzer Besuch, und meist kann die Uhr stehen bleiben, wo sie steht.`,
        'Bitte warten Sie nicht, bis sie stehen bleibt: eine Uhr, die aus Mangel an Öl steht, ist dann schon ausgelaufen.',
      ],
      service: ({ clock, oiled, due, late }) => [
        `Ihre Uhr, ${clock}, wurde hier zuletzt im ${oiled} geölt. ${late ? `Bis ${due} hätte sie zerlegt, gereinigt und geölt werden sollen` : `Bis ${due} sollte sie zerlegt, gereinigt und geölt werden`}, auch wenn sie noch geht: es ist das alte Öl, das sie abnutzt.`,
        'Ehe etwas gemacht wird, nennen wir Ihnen den Preis.',
      ],
      guarantee: ({ clock, due }) => [
        `Unsere Garantie auf Ihre Uhr, ${clock}, endet am ${due}. Geht, schlägt oder läuft sie nicht, wie sie soll, sagen Sie es uns vorher; was an uns liegt, richten wir.`,
        'Ist alles gut, brauchen Sie nichts zu tun.',
      ],
    },
    withIt: (parts) => [
      `Beim selben Besuch prüfen wir ${new Intl.ListFormat('de-DE').format(parts.map((part) => DE_PARTS[part]))}.`,
      ...(parts.includes('mercury')
        ? ['Bitte lassen Sie das Pendel hängen, wo es hängt: es enthält Quecksilber, und bewegen sollten es nur wir.']
        : []),
    ],
    answer: (phone) =>
      `Wann würde es Ihnen passen? ${phone === '' ? 'Bitte geben Sie uns Bescheid.' : `Bitte rufen Sie an: ${phone}.`}`,
    farewell: 'Mit freundlichen Grüßen',
  },
}
