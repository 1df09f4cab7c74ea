import {
  CARD_PAPER_TITLES,
  CARD_PAPERS,
  LANGUAGE_TITLES,
  LANGUAGES,
  USUAL_CARD,
  type CardChoices,
  type Language,
} from '@treadle/contract'
import { Checkbox } from '@mantine/core'
import { useClockChange } from '../../job/useClockChange.ts'
import { useJobData } from '../../job/useJobData.ts'
import { Pick } from '../../parts/Pick.tsx'
import styles from './Card.module.css'

const TICKS = [
  ['regulates', 'The owner regulates it'],
  ['seasons', 'and by the season'],
  ['oilsPulleys', 'The owner oils the pulleys'],
  ['largePrint', 'Large print'],
] as const

/** What this owner likes to do to this clock, and how they read: it stays with the clock. */
export function CardChoicesForm() {
  const { clock } = useJobData()
  const save = useClockChange(clock)
  const choices = clock.card ?? USUAL_CARD
  const set = (part: Partial<CardChoices>) =>
    save({ card: { ...choices, ...part } }, undefined, undefined, { card: clock.card })
  const weights = clock.trains.some((t) => t.power === 'weight')
  return (
    <section className={styles.choices} aria-label="Choices of the card">
      <Pick
        label="Language"
        value={choices.language}
        of={LANGUAGES.map((l) => [l, LANGUAGE_TITLES[l]])}
        onPick={(language) => set({ language, ...(choices.second === language && { second: '' }) })}
      />
      <Pick<Language | ''>
        label="Beside it"
        value={choices.second}
        of={[
          ['', 'nothing'],
          ...LANGUAGES.filter((l) => l !== choices.language).map((l): [Language, string] => [l, LANGUAGE_TITLES[l]]),
        ]}
        onPick={(second) => set({ second })}
      />
      <Pick
        label="Paper"
        value={choices.paper}
        of={CARD_PAPERS.map((p) => [p, CARD_PAPER_TITLES[p]])}
        onPick={(paper) => set({ paper })}
      />
      {TICKS.filter(([key]) => (key !== 'oilsPulleys' || weights) && (key !== 'seasons' || choices.regulates)).map(
        ([key, label]) => (
          <Checkbox
            key={key}
            my={8}
            size="md"
            label={label}
            checked={choices[key]}
            onChange={(e) => set({ [key]: e.currentTarget.checked })}
          />
        ),
      )}
    </section>
  )
}
