import { ClockChange, Person, Settings, StockChange } from '@treadle/contract'
import { Fieldset } from '@mantine/core'
import { useShopJournal } from '../data/queries.ts'
import { Fold } from '../parts/Fold.tsx'
import { Loaded } from '../parts/Loading.tsx'
import { broughtWords, whenShort } from '../parts/say.ts'
import styles from './SettingsPage.module.css'

/** What was changed of the workshop itself, by whom, and what it was before. */
export function ShopJournal() {
  return (
    <Fieldset legend="Who changed what">
      <p className="quiet">
        Settings, tables, people, owners, clocks and drawers. What was done to a clock is in its own journal.
      </p>
      <Fold title="Look through it">
        <Entries />
      </Fold>
    </Fieldset>
  )
}

function Entries() {
  return (
    <Loaded query={useShopJournal()}>
      {(entries) =>
        entries.length === 0 ? (
          <p>Nothing was changed yet.</p>
        ) : (
          <ol className={styles.entries} tabIndex={0} aria-label="What was changed">
            {entries.map((e) => (
              <li key={e.id}>
                <span className="quiet">
                  {whenShort(e.at)}, {e.who}.{e.brought !== null && ` ${broughtWords(e.brought)}`}
                </span>{' '}
                {e.text}
                {changes(e.figures).map(([field, was, is]) => (
                  <span key={field} className={styles.change}>
                    {field}: {was} → {is}
                  </span>
                ))}
              </li>
            ))}
          </ol>
        )
      }
    </Loaded>
  )
}

/** The plain fields that differ; what is a list or a table in itself is told by the sentence alone. */
function changes(figures: Record<string, unknown>): [field: string, was: string, is: string][] {
  const { before, after } = figures as Record<'before' | 'after', Record<string, unknown> | null | undefined>
  if (!before || !after) return []
  return Object.keys(after)
    .filter((key) => key !== 'version' && before[key] !== after[key])
    .filter((key) => isPlain(before[key]) && isPlain(after[key]))
    .map((key) => [words(key), shown(before[key]), shown(after[key])])
}

const isPlain = (value: unknown) => value == null || typeof value !== 'object'
const shown = (value: unknown) => (value == null || value === '' ? '–' : JSON.stringify(value).replace(/^"|"$/g, ''))
/** What each field is called where it is typed. */
const LABELS = Object.fromEntries(
  [Settings, StockChange, Person, ClockChange].flatMap((schema) =>
    Object.entries(schema.describe().fields).flatMap(([key, field]) =>
      'label' in field && field.label !== undefined ? [[key, field.label]] : [],
    ),
  ),
)
const words = (key: string) => LABELS[key] ?? key
