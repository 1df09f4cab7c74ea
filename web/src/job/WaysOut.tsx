import type { WayKey, WayOut } from '@treadle/core'
import { Checkbox, Radio } from '@mantine/core'
import { Link } from 'react-router'
import { PriceThePlan } from './PriceThePlan.tsx'
import styles from './WaysOut.module.css'

/** The ways out of what was found, weighed: what each costs, lasts, comes to a year, and whether it can be undone. */
export function WaysOut({
  ways,
  chosen,
  ownerAgreed,
  currency,
  onChoose,
  onAgreed,
}: {
  ways: WayOut[]
  chosen: WayKey | ''
  ownerAgreed: boolean
  currency: string
  onChoose: (key: WayKey | '') => void
  onAgreed: (agreed: boolean) => void
}) {
  const best = ways.find((w) => w.whyNot === '' && w.key !== 'leave')
  const picked = ways.find((w) => w.key === chosen)
  return (
    <section aria-label="Ways out">
      <h3>What may be done</h3>
      <Radio.Group
        aria-label="What is done"
        value={chosen}
        onChange={(key) => onChoose(ways.find((w) => w.key === key)?.key ?? '')}
      >
        <ul className={styles.ways}>
          {ways.map((w) => (
            <li key={w.key} className={w.whyNot === '' ? undefined : styles.not}>
              <Radio
                size="md"
                value={w.key}
                disabled={w.whyNot !== '' && w.key !== chosen}
                label={`${w.title}${w.pieces > 1 ? ` (${w.pieces})` : ''}`}
              />
              <span className={styles.price}>
                <b>
                  {w.total} {currency}
                </b>{' '}
                <small>
                  about {w.years} {w.years === 1 ? 'year' : 'years'}, {w.aYear} a year
                </small>
              </span>
              <small className={styles.says}>
                {w.whyNot !== ''
                  ? w.whyNot
                  : `${w === best ? 'The least a year. ' : ''}${w.undone ? 'Can be undone.' : 'Can’t be undone.'} ${w.remark}`}
              </small>
            </li>
          ))}
        </ul>
      </Radio.Group>
      {picked && !picked.undone && (
        <Checkbox
          size="md"
          label="The owner agreed to what can’t be undone"
          checked={ownerAgreed}
          onChange={(e) => onAgreed(e.currentTarget.checked)}
        />
      )}
      {picked && picked.key !== 'leave' && <PriceThePlan />}
      <p className="quiet">
        The figures are the workshop’s <Link to="/tables/ways">own</Link>.
      </p>
    </section>
  )
}
