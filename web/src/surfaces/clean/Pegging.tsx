import { Checkbox } from '@mantine/core'
import { useJobData } from '../../job/useJobData.ts'
import parts from '../../parts/parts.module.css'
import { pegKey, pegPlaces } from './pegging.ts'
import type { Observations } from '../../job/useObservations.ts'

/** After the bath: every hole pegged with wood until the peg comes out clean, and looked at. */
export function Pegging({ seen }: { seen: Observations }) {
  const { holes, job } = useJobData()
  if (job.partedAt === null) return null
  const places = pegPlaces(holes)
  const pegged = places.filter((p) => seen.of(pegKey(p))?.answer === 'clean').length
  return (
    <>
      <h2 className={parts.next}>Peg out and look</h2>
      <p className={parts.say}>
        Sharpened wood in each hole, turned and renewed until it comes out clean; then look through it at the light.
      </p>
      <p className="quiet">
        {pegged} of {places.length} done
      </p>
      <ul className={parts.list}>
        {places.map((place) => {
          const key = pegKey(place)
          return (
            <li key={place}>
              <Checkbox
                size="md"
                label={place}
                checked={seen.of(key)?.answer === 'clean'}
                onChange={(e) => seen.set(key, { answer: e.currentTarget.checked ? 'clean' : 'not yet' })}
              />
            </li>
          )
        })}
      </ul>
    </>
  )
}
