import type { DonorFound } from '@treadle/contract'
import type { DonorWanted } from '@treadle/core'
import { Button } from '@mantine/core'
import { Link } from 'react-router'
import { Mark } from '../../parts/Mark.tsx'
import styles from './Wheels.module.css'

/** Which used parts of the ledger fit this one, the nearest first, and what each still asks for. */
export function DonorsFor({
  wanted,
  found,
  chosen,
  onChoose,
}: {
  wanted: DonorWanted | null
  found: DonorFound[]
  chosen: string | null
  onChoose: (id: string | null) => void
}) {
  if (!wanted) return null
  return (
    <section aria-label="Donors">
      <h3>Donors</h3>
      {found.length === 0 && (
        <p className="quiet">
          None of the <Link to="/drawers/donors">ledger</Link> has {wanted.count} and a module near enough.
        </p>
      )}
      {found.slice(0, 5).map((d) => (
        <div key={d.id} className={styles.donor}>
          <Mark state={d.fits === 'as it is' ? 'sound' : 'watch'} label={d.fits} />
          <span>
            {d.from === '' ? `A ${d.kind} of ${d.count ?? '?'}` : d.from}
            {d.drawer !== '' && `, drawer ${d.drawer}`}
            <small>{d.words.length === 0 ? 'Fits as it is.' : d.words.join(' ')}</small>
          </span>
          <Button
            variant={d.id === chosen ? 'filled' : 'default'}
            size="compact-md"
            aria-pressed={d.id === chosen}
            onClick={() => onChoose(d.id === chosen ? null : d.id)}
          >
            {d.id === chosen ? 'Taken' : 'Take this'}
          </Button>
        </div>
      ))}
    </section>
  )
}
