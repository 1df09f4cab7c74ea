import type { TableValues } from '@treadle/contract'
import type { TroubleCheck } from '@treadle/core'
import { Button } from '@mantine/core'
import { useState } from 'react'
import { Cell, Headings, NumberCell } from './Cell.tsx'
import styles from './Tables.module.css'

type Values = TableValues<'trouble'>

/** Causes with how often they are met; and for one check at a time, how likely it says yes under each. */
export function TroubleTableEditor({ values, onChange }: { values: Values; onChange: (values: Values) => void }) {
  const [open, setOpen] = useState<string | null>(null)
  // What is half typed and can’t be read has no share, and takes none from the others.
  const all = values.causes.reduce((s, c) => s + (Number.isFinite(c.weight) ? c.weight : 0), 0)
  const shareOf = (weight: number) =>
    Number.isFinite(weight) && all > 0 ? `${((100 * weight) / all).toFixed(0)} %` : '–'
  const setCheck = (key: string, part: Partial<TroubleCheck>) =>
    onChange({ ...values, checks: values.checks.map((c) => (c.key === key ? { ...c, ...part } : c)) })
  return (
    <>
      <table className={styles.table}>
        <Headings of={['Cause', 'How often', 'Share', 'Remark']} />
        <tbody>
          {values.causes.map((cause) => {
            const set = (part: Partial<typeof cause>) =>
              onChange({ ...values, causes: values.causes.map((c) => (c.key === cause.key ? { ...c, ...part } : c)) })
            return (
              <tr key={cause.key}>
                <td>
                  <Cell label={`Cause ${cause.title}`} value={cause.title} onChange={(title) => set({ title })} wide />
                </td>
                <td>
                  <NumberCell
                    label={`How often: ${cause.title}`}
                    value={cause.weight}
                    onChange={(weight) => set({ weight })}
                  />
                </td>
                <td>{shareOf(cause.weight)}</td>
                <td>
                  <Cell
                    label={`Remark on ${cause.title}`}
                    value={cause.remark}
                    onChange={(remark) => set({ remark })}
                    wide
                  />
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
      <h2 className={styles.next}>Checks</h2>
      {values.checks.map((check) => (
        <div key={check.key} className={styles.check}>
          <Cell
            label={`Question ${check.question}`}
            value={check.question}
            onChange={(question) => setCheck(check.key, { question })}
            wide
          />
          <NumberCell
            label={`Minutes: ${check.question}`}
            value={check.minutes}
            onChange={(minutes) => setCheck(check.key, { minutes })}
          />
          <span className="quiet">minutes</span>
          {check.yearsUpTo === null && (
            <Button
              variant="subtle"
              size="compact-md"
              aria-expanded={open === check.key}
              aria-label={`Chances of: ${check.question}`}
              onClick={() => setOpen(open === check.key ? null : check.key)}
            >
              Chances
            </Button>
          )}
          {open === check.key && (
            <Chances check={check} causes={values.causes} onChange={(part) => setCheck(check.key, part)} />
          )}
        </div>
      ))}
    </>
  )
}

function Chances({
  check,
  causes,
  onChange,
}: {
  check: TroubleCheck
  causes: Values['causes']
  onChange: (part: Partial<TroubleCheck>) => void
}) {
  const pair = (yes: number) => [yes, Math.round((1 - yes) * 1e6) / 1e6]
  return (
    <div className={styles.chances}>
      <label>
        Yes, under a cause not named below
        <NumberCell
          label={`Otherwise: ${check.question}`}
          value={check.otherwise[0] ?? 0}
          onChange={(yes) => onChange({ otherwise: pair(yes) })}
        />
      </label>
      {causes.map((cause) => (
        <label key={cause.key}>
          {cause.title}
          <NumberCell
            label={`${check.question} yes, under: ${cause.title}`}
            value={(check.given[cause.key] ?? check.otherwise)[0] ?? 0}
            onChange={(yes) => onChange({ given: { ...check.given, [cause.key]: pair(yes) } })}
          />
        </label>
      ))}
    </div>
  )
}
