import type { EstimateRow } from '@treadle/contract'
import { costPerYear, FieldError } from '@treadle/core'
import { Radio, TextInput } from '@mantine/core'
import styles from './Estimate.module.css'

type Choice = EstimateRow['choices'][number]

/** What each year costs of a choice, in words. */
export function yearlyWords({ price, years }: Choice, currency: string): string {
  if (years === 0) return 'lasts no time'
  try {
    return `${costPerYear(price, years) ?? ''} ${currency} a year, ${years} ${years === 1 ? 'year' : 'years'}`
  } catch (error) {
    if (error instanceof FieldError) return 'say a price'
    throw error
  }
}

/** The ways that are open, side by side, with what each costs for every year that it lasts. */
export function Choices({ draft, setDraft }: { draft: EstimateRow; setDraft: (part: Partial<EstimateRow>) => void }) {
  const set = (key: string, part: Partial<Choice>) =>
    setDraft({ choices: draft.choices.map((c) => (c.key === key ? { ...c, ...part } : c)) })
  if (draft.choices.length === 0) return null
  return (
    <>
      <h2 className={styles.next}>Side by side</h2>
      <Radio.Group
        aria-label="What this estimate is for"
        value={draft.chosen}
        onChange={(chosen) => setDraft({ chosen })}
      >
        <ul className={styles.choices}>
          {draft.choices.map((choice) => (
            <li key={choice.key}>
              <Radio value={choice.key} label={choice.title} size="md" className={styles.choice} />
              <TextInput
                aria-label={`Price of: ${choice.title}`}
                value={choice.price}
                inputMode="decimal"
                onChange={(e) => set(choice.key, { price: e.currentTarget.value.replace(',', '.') })}
                w="6rem"
              />
              <TextInput
                aria-label={`Years of: ${choice.title}`}
                value={String(choice.years)}
                inputMode="numeric"
                rightSection={<span className="quiet">y</span>}
                onChange={(e) => {
                  const years = Number(e.currentTarget.value)
                  if (Number.isFinite(years)) set(choice.key, { years })
                }}
                w="4.5rem"
              />
              <span className={styles.yearly}>{yearlyWords(choice, draft.currency)}</span>
            </li>
          ))}
        </ul>
      </Radio.Group>
    </>
  )
}
