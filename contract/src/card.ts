import { boolean, only, string, type InferType } from './fields.ts'

export const LANGUAGES = ['en', 'de'] as const
export type Language = (typeof LANGUAGES)[number]
export const LANGUAGE_TITLES: Record<Language, string> = { en: 'English', de: 'Deutsch' }

export const CARD_PAPERS = ['A5', 'A4', 'strip'] as const
export const CARD_PAPER_TITLES: Record<(typeof CARD_PAPERS)[number], string> = {
  A5: 'A5',
  A4: 'A4',
  strip: 'strip, inside the case',
}

/** What the owner of a clock likes to do to it, and how they read: the choices of its card. */
export const CardChoices = only({
  /** turns the nut; else it is left to the workshop */
  regulates: boolean().required().label('Regulates it'),
  /** regulates by the season */
  seasons: boolean().required().label('By the season'),
  oilsPulleys: boolean().required().label('Oils the pulleys'),
  language: string<Language>().oneOf(LANGUAGES).required().label('Language'),
  /** beside it; empty: none */
  second: string<Language | ''>()
    .oneOf(['', ...LANGUAGES])
    .defined()
    .label('Second language'),
  largePrint: boolean().required().label('Large print'),
  paper: string().oneOf(CARD_PAPERS).required().label('Paper'),
})
export type CardChoices = InferType<typeof CardChoices>

export const USUAL_CARD: CardChoices = {
  regulates: true,
  seasons: false,
  oilsPulleys: false,
  language: 'en',
  second: '',
  largePrint: false,
  paper: 'A5',
}
