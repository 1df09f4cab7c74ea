import { boolean, measured, only, string, type InferType } from './fields.ts'

export const DIAL_STATES = ['works', 'disconnected', 'soldered', 'missing'] as const
export const DIAL_STATE_TITLES: Record<(typeof DIAL_STATES)[number], string> = {
  works: 'goes with the clock',
  disconnected: 'disconnected',
  soldered: 'soldered fast',
  missing: 'works missing',
}
const state = () => string().oneOf(DIAL_STATES).required().label('State')

/** The moon of a dial: how it goes, and which way. */
export const MoonWork = only({
  state: state(),
  /** of its wheel for one moon; null: nobody counted, so 59 */
  clicksPerLunation: measured(20, 200).integer().nullable().defined().label('Clicks for one moon'),
  /** made for the southern half of the earth: its disc goes the other way */
  southern: boolean().required().label('Southern'),
  /** high water at new and full moon, as its ring of tides is set for its port, minutes past twelve; null: it has none */
  tideMinutes: measured(0, 719).integer().nullable().defined().label('High water at new and full moon'),
})
export type MoonWork = InferType<typeof MoonWork>
export const PLAIN_MOON: MoonWork = { state: 'works', clicksPerLunation: null, southern: false, tideMinutes: null }

/** The day of the month on a dial. */
export const CalendarWork = only({ state: state() })
export type CalendarWork = InferType<typeof CalendarWork>
