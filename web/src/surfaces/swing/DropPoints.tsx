import {
  beatIntervals,
  dropPoints,
  dropsOf,
  FieldError,
  unlessRefused,
  type Drop,
  type DropPoints as Found,
} from '@treadle/core'
import { Button, Slider } from '@mantine/core'
import { useRef, useState } from 'react'
import { useSettings } from '../../data/queries.ts'
import type { ClicksHeard } from '../../hear/clicks.worker.ts'
import { MicrophonePickup, PracticePickup } from '../../hear/pickup.ts'
import { Remedies } from '../../hear/Remedies.tsx'
import { useWorkerEar } from '../../hear/useWorkerEar.ts'
import { useClockChange } from '../../job/useClockChange.ts'
import { useJobData } from '../../job/useJobData.ts'
import { count, leaning } from '../../parts/say.ts'
import { useLatest } from '../../parts/useLatest.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { DropsPicture } from './DropsPicture.tsx'
import { PracticeFilm, type Film } from '../../see/film.ts'
import type { SwingSeen } from '../../see/useSwing.ts'
import styles from './Swing.module.css'

const NONE: ClicksHeard = []

/** Where the escapement drops: the bob is led slowly across by hand, and at each click the picture gives the angle. */
export function DropPoints({ seen, film }: { seen: SwingSeen; film: Film }) {
  const { clock } = useJobData()
  const { pendulum } = clock
  const { data: settings } = useSettings()
  const saveClock = useClockChange(clock)
  const now = useLatest({ saveClock, pendulum })
  const practice = useRef<PracticePickup | null>(null)
  const [kept, setKept] = useState<Found | null>(null)
  const ear = useWorkerEar<null, ClicksHeard>(
    () => new Worker(new URL('../../hear/clicks.worker.ts', import.meta.url), { type: 'module' }),
    null,
    NONE,
    'Read the angles off a scale instead.',
  )
  const { led } = seen
  const path = led?.path ?? []
  const drops = dropsOf(
    path,
    ear.heard.map((s) => ear.startedMs / 1000 + s),
  )
  const found = drops.length > 0 ? unlessRefused(() => dropPoints(drops)) : null
  const points = found instanceof FieldError ? null : found
  const begin = () => {
    setKept(null)
    seen.lead(true)
    practice.current = film instanceof PracticeFilm ? new PracticePickup(film.clock, false) : null
    ear.start(practice.current ?? new MicrophonePickup())
    leadPractice(0)
  }
  const leadPractice = (deg: number) => {
    if (film instanceof PracticeFilm) film.hold(deg)
    practice.current?.hold(deg)
  }
  const end = () => {
    ear.stop()
    seen.lead(false)
    if (film instanceof PracticeFilm) film.hold(null)
  }
  const mayKeep = points !== null && film.kind !== 'practice'
  const keep = (told: Found) => {
    const before = pendulum.releaseDeg
    const releaseDeg = Number(told.releaseDeg.toFixed(2))
    saveClock({ pendulum: { ...pendulum, releaseDeg } })
    setKept(told)
    end()
    return () => {
      setKept(null)
      // On the clock as it stands by then.
      now.current.saveClock({ pendulum: { ...now.current.pendulum, releaseDeg: before } })
    }
  }
  usePedalAction(
    led === null
      ? null
      : mayKeep
        ? {
            label: `Press to keep ${points.releaseDeg.toFixed(2)}° as its release`,
            hint: count(points.right + points.left, 'drop'),
            press: () => keep(points),
          }
        : { label: 'Press to let the bob go', hint: count(drops.length, 'drop'), press: end },
  )
  if (!settings) return null
  const told = kept ?? points
  return (
    <section aria-label="Where it drops">
      <h3>Where it drops</h3>
      {ear.sentence !== '' && <p role="alert">{ear.sentence}</p>}
      {led === null ? (
        <>
          <p>
            Lead the bob slowly across by hand, a finger from behind, to and fro past both clicks; at each click the
            picture gives the angle: release and offset are measured. It must be under power: if its weight is off, a
            light pull on the line does.
          </p>
          <Button variant="default" onClick={begin}>
            Lead the bob by hand
          </Button>
        </>
      ) : (
        <>
          <p className={styles.angle} aria-live="off">
            {led.deg === null ? 'The bob is not seen' : leaning(led.deg, 1)}
          </p>
          {film instanceof PracticeFilm && (
            <div className={styles.lead}>
              <p id="lead">Lead the practice clock’s bob</p>
              <Slider
                aria-labelledby="lead"
                thumbLabel="Lead of the practice bob"
                min={-film.clock.semiArcDeg}
                max={film.clock.semiArcDeg}
                step={0.1}
                defaultValue={0}
                label={null}
                onChange={leadPractice}
                size="lg"
              />
            </div>
          )}
          <DropsPicture drops={drops} nowDeg={led.deg} />
          <p role="status">
            {points
              ? `Drops ${leaning(points.rightDeg)} and ${leaning(points.leftDeg)} of plumb, from ${points.right} and ${points.left}.`
              : found instanceof FieldError
                ? `${capital(found.allowed)}.`
                : 'Lead it slowly to the right until it clicks.'}
            {tooQuick(drops) && ' Slower: picture and sound are not of one moment.'}
          </p>
          <Button variant="default" onClick={end}>
            Let the bob go
          </Button>
        </>
      )}
      {told && (
        <>
          <p className={styles.found}>
            Release {told.releaseDeg.toFixed(2)}° ± {(2 * told.releaseStandardError).toFixed(2)}°; the escapement stands{' '}
            {leaning(told.offsetDeg)} of plumb, ± {(2 * told.offsetStandardError).toFixed(2)}°.
            {supplementary(told, seen.told?.swing.semiArcDeg ?? pendulum.semiArcDeg)}
          </p>
          {mayKeep && led !== null && <Button onClick={() => keep(points)}>Keep its release angle</Button>}
          {Math.abs(told.offsetDeg) > 2 * told.offsetStandardError ? (
            <Remedies
              offsetDeg={told.offsetDeg}
              outOfBeatMs={outOf(told, pendulum.beatsPerHour, seen.told?.swing.semiArcDeg ?? pendulum.semiArcDeg)}
              pendulum={pendulum}
              settings={settings}
            />
          ) : (
            <p>It stands in beat, as far as can be told.</p>
          )}
        </>
      )}
    </section>
  )
}

/** Faster than this picture and sound part by more than a tenth of a degree, degrees a second. */
const QUICK = 3

function tooQuick(drops: Drop[]): boolean {
  return drops.slice(-4).some((d) => Math.abs(d.degPerS) > QUICK)
}

/** What the swing goes beyond the later of its drops: what is left before it stops. */
function supplementary({ rightDeg, leftDeg }: Found, semiArcDeg: number | null): string {
  if (semiArcDeg === null) return ''
  const over = semiArcDeg - Math.max(rightDeg, -leftDeg)
  return over > 0
    ? ` It swings ${over.toFixed(2)}° beyond its later drop.`
    : ' Its swing does not reach its later drop: it can’t go so.'
}

function outOf({ releaseDeg, offsetDeg }: Found, beatsPerHour: number | null, semiArcDeg: number | null): number {
  if (beatsPerHour === null || semiArcDeg === null) return 0
  const beat = unlessRefused(() => beatIntervals(beatsPerHour, semiArcDeg, releaseDeg, offsetDeg))
  return beat instanceof FieldError ? Infinity : Math.abs(beat.rightToLeftMs - beat.leftToRightMs) / 2
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}
