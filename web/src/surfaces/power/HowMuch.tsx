import type { Train } from '@treadle/contract'
import {
  FieldError,
  feltEnergy,
  SAFE_YIELD_MPA,
  springEnergy,
  weightEnergy,
  winderMay,
  type SpringEnergy,
} from '@treadle/core'
import { useState } from 'react'
import { useJobData } from '../../job/useJobData.ts'
import { Caution } from '../../parts/Caution.tsx'
import { Mark } from '../../parts/Mark.tsx'
import { Figure } from '../../parts/Figure.tsx'
import parts from '../../parts/parts.module.css'
import { useClockChange } from '../../job/useClockChange.ts'
import { SpringPicture } from '../../parts/SpringPicture.tsx'
import styles from './Power.module.css'

const DIMENSIONS = [
  ['widthMm', 'Width'],
  ['thicknessMm', 'Thickness'],
  ['lengthMm', 'Length'],
  ['barrelInsideMm', 'Barrel, inside'],
  ['arborMm', 'Arbor'],
] as const
type Spring = NonNullable<Train['spring']>

/** How much is in there, said so that it is felt; from the spring's dimensions, or the weight and its fall. */
export function HowMuch({ train }: { train: Train }) {
  const { clock } = useJobData()
  const save = useClockChange(clock)
  const put = (part: Partial<Train>) =>
    save({ trains: clock.trains.map((t) => (t.train === train.train ? { ...t, ...part } : t)) })
  return (
    <div className={styles.much}>
      {train.power === 'weight' ? <OfWeight train={train} put={put} /> : <OfSpring train={train} put={put} />}
    </div>
  )
}

function OfWeight({ train, put }: { train: Train; put: (part: Partial<Train>) => void }) {
  const { weightKg, fallMm } = train
  return (
    <>
      {weightKg && fallMm ? (
        <p className={parts.say}>
          Fully wound it holds {weightEnergy(weightKg, fallMm).toFixed(0)} J: {weightKg} kg that may fall{' '}
          {(fallMm / 1000).toFixed(2)} m. On a foot or through a glass door, all of it at once.
        </p>
      ) : null}
      <div className={parts.fields}>
        <Figure
          label="Weight"
          draftOf={train.train}
          unit="kg"
          value={weightKg ?? null}
          onKeep={(v) => put({ weightKg: v })}
          min={0.01}
        />
        <Figure
          label="Fall"
          draftOf={train.train}
          unit="mm"
          value={fallMm ?? null}
          onKeep={(v) => put({ fallMm: v })}
          min={10}
        />
      </div>
    </>
  )
}

function OfSpring({ train, put }: { train: Train; put: (part: Partial<Train>) => void }) {
  const [draft, setDraft] = useState<Partial<Spring>>(train.spring ?? {})
  const energy = reckoned(draft)
  const keep = (name: keyof Spring, value: number | null) => {
    const next = { ...draft, [name]: value ?? undefined }
    setDraft(next)
    if (isWhole(next)) put({ spring: next })
  }
  return (
    <>
      {energy && !(energy instanceof FieldError) && isWhole(draft) && (
        <div className={styles.felt}>
          <SpringPicture spring={draft} />
          <p className={parts.say}>
            Fully wound: <strong>{feltEnergy(energy.energyJ)}</strong>, {energy.energyJ.toFixed(1)} J, let go in the
            blink of an eye. It pulls with {(energy.torqueWoundNmm / 1000).toFixed(2)} N·m at{' '}
            {energy.turnsAvailable.toFixed(1)} turns, and still with {(energy.torqueRunDownNmm / 1000).toFixed(2)} when
            it has run down in its barrel. Reckoned for a hard spring, to be on the safe side.
          </p>
        </div>
      )}
      {energy instanceof FieldError && <p className={styles.wrong}>{energy.message}</p>}
      <details>
        <summary>Dimensions of the spring, if you know them</summary>
        <div className={parts.fields}>
          {DIMENSIONS.map(([name, label]) => (
            <Figure
              key={name}
              label={label}
              draftOf={train.train}
              unit="mm"
              value={draft[name] ?? null}
              onKeep={(value) => keep(name, value)}
            />
          ))}
        </div>
      </details>
    </>
  )
}

/** A new spring comes wired: only in a winder that is stronger than it is. */
export function NewSpring({ trains }: { trains: Train[] }) {
  const [rated, setRated] = useState<number | null>(null)
  const strongest = trains
    .map((t) => (t.spring ? reckoned(t.spring) : null))
    .filter((e): e is SpringEnergy => e !== null && !(e instanceof FieldError))
    .sort((a, b) => b.torqueWoundNmm - a.torqueWoundNmm)[0]
  if (!trains.some((t) => t.power !== 'weight')) return null
  const may = strongest && rated !== null ? winderMay(rated, strongest.torqueWoundNmm) : null
  return (
    <>
      <h2 className={parts.next}>A new spring, wired</h2>
      <Caution second>
        Released only in a winder rated above its torque, under cover, by a key that fits; never by cutting the wire in
        the hand. A winder that is too weak is worse than none.
      </Caution>
      <Figure label="Your winder is rated for" unit="N·mm" value={rated} onKeep={setRated} min={1} />
      {strongest && (
        <p className={styles.state}>
          {may !== null && <Mark state={may ? 'sound' : 'must'} label={may ? 'strong enough' : 'too weak'} />}
          <span>
            {may === null
              ? `This clock’s strongest spring pulls ${strongest.torqueWoundNmm.toFixed(0)} N·mm fully wound.`
              : may
                ? `Strong enough for ${strongest.torqueWoundNmm.toFixed(0)} N·mm, with a fifth to spare.`
                : `Too weak: ${strongest.torqueWoundNmm.toFixed(0)} N·mm asks for ${(1.2 * strongest.torqueWoundNmm).toFixed(0)} at least. Do not use it.`}
          </span>
        </p>
      )}
    </>
  )
}

function isWhole(spring: Partial<Spring>): spring is Spring {
  return DIMENSIONS.every(([name]) => typeof spring[name] === 'number')
}

function reckoned(spring: Partial<Spring>): SpringEnergy | FieldError | null {
  if (!isWhole(spring)) return null
  try {
    return springEnergy(spring, undefined, undefined, SAFE_YIELD_MPA)
  } catch (error) {
    if (error instanceof FieldError) return error
    throw error
  }
}
