import type { FootingRow } from '@treadle/contract'
import {
  evenTilt,
  FieldError,
  practiceLike,
  rockedPoints,
  STILL_S,
  unlessRefused,
  type EvenTilt,
  type TiltPoint,
} from '@treadle/core'
import { Button, Slider } from '@mantine/core'
import { useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { v7 as uuid } from 'uuid'
import { useSettings } from '../../data/queries.ts'
import { MicrophonePickup, PracticePickup, type Pickup } from '../../hear/pickup.ts'
import { Remedies } from '../../hear/Remedies.tsx'
import type { SwingsHeard, SwingsOptions } from '../../hear/swings.worker.ts'
import { useWorkerEar } from '../../hear/useWorkerEar.ts'
import { useJobData } from '../../job/useJobData.ts'
import { useRows } from '../../job/useRows.ts'
import { Figure } from '../../parts/Figure.tsx'
import parts from '../../parts/parts.module.css'
import { count, leaning, whenShort } from '../../parts/say.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { RockedPicture } from './RockedPicture.tsx'
import { useTilt } from './useTilt.ts'
import styles from './Footing.module.css'

/** Known less well the even footing is told with a word of warning, degrees. */
const SURE_DEG = 0.15
const NOTHING: SwingsHeard = { swings: [], sentence: '', seconds: 0 }

/** The even footing in one go: a telephone on the case feels the tilt while it hears the beat, and the case is rocked. */
export function FootingSurface() {
  const { clock, footings } = useJobData()
  const { data: settings } = useSettings()
  const { pendulum } = clock
  const tilt = useTilt()
  const navigate = useNavigate()
  const rows = useRows<FootingRow>('footings')
  const practice = useRef<PracticePickup | null>(null)
  const [keptId, setKeptId] = useState<string | null>(null)
  const ear = useWorkerEar<SwingsOptions, SwingsHeard>(
    () => new Worker(new URL('../../hear/swings.worker.ts', import.meta.url), { type: 'module' }),
    { ...(pendulum.beatsPerHour !== null && { beatsPerHour: pendulum.beatsPerHour }), ticks: pendulum.ticks },
    NOTHING,
    'Hear and tilt it by hand instead, under Beat.',
  )
  const { swings, sentence } = ear.heard
  const log = tilt.log(ear.startedMs)
  const stoodAtDeg = log[0]?.tiltDeg ?? null
  const points = swings.length > 0 ? rockedPoints(swings, log, tilt.by !== 'sensor') : []
  const found = points.length > 0 ? unlessRefused(() => evenTilt(points)) : null
  const even = found instanceof FieldError ? null : found
  const begin = (by: Pickup) => {
    practice.current = by instanceof PracticePickup ? by : null
    if (practice.current) tilt.tell('practice', 0)
    else if (tilt.by === 'practice') tilt.bySensor()
    tilt.begin()
    setKeptId(null)
    ear.start(by)
  }
  const beginByMicrophone = () => begin(new MicrophonePickup())
  const leanPractice = (deg: number) => {
    practice.current?.lean(deg)
    tilt.tell('practice', deg)
  }
  const mayKeep = even !== null && !ear.on && tilt.by !== 'practice' && stoodAtDeg !== null
  const keep = () => {
    if (!even || stoodAtDeg === null || tilt.by === 'practice') return
    const id = uuid()
    rows.put({
      id,
      version: 0,
      way: tilt.by,
      stoodAtDeg,
      evenAtDeg: even.evenAtDeg,
      standardError: even.standardError,
      msPerDeg: Math.abs(even.msPerDeg),
      swings: points.length,
    })
    setKeptId(id)
    return () => {
      rows.remove(id)
      setKeptId(null)
    }
  }
  const ready = tilt.sensor === true || (tilt.by === 'level' && tilt.nowDeg !== null)
  const goOn = { label: 'Press to go on and hear its beat', press: () => void navigate('../listen') }
  usePedalAction(
    ear.on
      ? { label: 'Press when it was rocked enough', hint: count(points.length, 'swing'), press: ear.stop }
      : mayKeep && keptId === null
        ? { label: 'Press to keep where it is even', hint: leaning(even.evenAtDeg), press: keep }
        : even
          ? goOn
          : ready
            ? {
                label: 'Press to listen while you rock the case',
                hint: `let it stand still for ${STILL_S} s first`,
                press: beginByMicrophone,
              }
            : { ...goOn, hint: 'nothing here tells the tilt yet' },
  )
  if (!settings) return null
  return (
    <div className={parts.columns}>
      <section>
        {even ? (
          <Even even={even} stoodAtDeg={stoodAtDeg ?? 0} points={points} />
        ) : (
          <Not
            on={ear.on}
            sentence={
              ear.on
                ? found instanceof FieldError
                  ? `${count(points.length, 'swing')} so far. Not yet: ${found.allowed}.`
                  : sentence
                : ear.sentence
            }
            heard={swings.length > 0}
          />
        )}
        {ear.on && tilt.by === 'practice' && (
          <div className={styles.slider}>
            <p id="lean">Lean the practice clock’s case, to the left and to the right</p>
            <Slider
              aria-labelledby="lean"
              thumbLabel="Lean of the practice clock"
              min={-1}
              max={1}
              step={0.1}
              defaultValue={0}
              marks={[{ value: 0 }]}
              label={null}
              onChange={leanPractice}
              size="lg"
            />
          </div>
        )}
        <div className={styles.sources}>
          {ear.on ? (
            <Button size="lg" onClick={ear.stop}>
              Enough
            </Button>
          ) : (
            <>
              {mayKeep && (
                <Button size="lg" disabled={keptId !== null} onClick={keep}>
                  {keptId === null ? 'Keep where it is even' : 'Kept'}
                </Button>
              )}
              <Button size="lg" variant={even ? 'default' : 'filled'} disabled={!ready} onClick={beginByMicrophone}>
                {even ? 'Once more' : 'Listen and rock it'}
              </Button>
              <Button
                size="lg"
                variant="default"
                onClick={() => begin(new PracticePickup(practiceLike(pendulum, 0.5), false))}
              >
                Practice clock
              </Button>
            </>
          )}
        </div>
        {footings.length > 0 && <Kept footings={footings} onRemove={rows.remove} />}
      </section>
      <section>
        {even && Math.abs(even.evenAtDeg - (stoodAtDeg ?? 0)) >= 2 * even.standardError ? (
          <>
            <h2>Make it even</h2>
            <Remedies
              offsetDeg={even.evenAtDeg - (stoodAtDeg ?? 0)}
              outOfBeatMs={Math.abs(even.msPerDeg * (even.evenAtDeg - (stoodAtDeg ?? 0)))}
              pendulum={pendulum}
              settings={settings}
            />
          </>
        ) : (
          <>
            <h2>How it stands</h2>
            {tilt.nowDeg !== null && <p className={styles.big}>{leaning(tilt.nowDeg, 1)}</p>}
            {tilt.sensor === false && tilt.by === 'sensor' && (
              <p>
                This device feels no tilt, or its browser does not say it. Telephones and tablets do on a secure page:
                at http://127.0.0.1 or over https. A level does the same: type what it reads, lift one side, and type it
                again while it listens.
              </p>
            )}
            <Figure
              label="What the level reads"
              description="Right side down is +"
              unit="°"
              min={-15}
              max={15}
              value={null}
              onKeep={(deg) => deg !== null && tilt.tell('level', deg)}
            />
            {tilt.by !== 'sensor' && tilt.sensor === true && (
              <Button variant="subtle" onClick={tilt.bySensor}>
                By the device’s own sensor again
              </Button>
            )}
          </>
        )}
      </section>
    </div>
  )
}

/** While nothing is told: what is to be done, or why not. */
function Not({ on, sentence, heard }: { on: boolean; sentence: string; heard: boolean }) {
  if (!on && sentence !== '') return <p role="alert">{sentence}</p>
  return on ? (
    <>
      <p className={styles.big} role="status">
        {heard ? 'Rock it gently through the even point' : 'Let it stand still'}
      </p>
      <p>{sentence}</p>
    </>
  ) : (
    <>
      <p className={styles.big}>The even footing, in one go</p>
      <p>
        Lay the telephone flat on the case or on the seat board, its top to the wall. Press, let the clock stand still
        for {STILL_S} seconds, then lift one side a little and lower it, slowly, to and fro: half a degree either way is
        enough. A second person holds a tall case; hang no weight that could swing into it.
      </p>
    </>
  )
}

/** Where it is even, against how it stood, and how sure. */
function Even({ even, stoodAtDeg, points }: { even: EvenTilt; stoodAtDeg: number; points: TiltPoint[] }) {
  const lean = even.evenAtDeg - stoodAtDeg
  return (
    <>
      <p className={styles.big} role="status">
        {Math.abs(lean) < 2 * even.standardError
          ? 'It stands even as it is'
          : `Even at ${leaning(lean)} of how it stood`}
      </p>
      <p>
        From {count(points.length, 'swing')}, sure to ±{Math.max(0.02, 2 * even.standardError).toFixed(2)}°
        {even.standardError > SURE_DEG ? ': rock it farther, through the even point, and it is surer.' : '.'}
      </p>
      <RockedPicture points={points} even={even} stoodAtDeg={stoodAtDeg} />
    </>
  )
}

function Kept({ footings, onRemove }: { footings: FootingRow[]; onRemove: (id: string) => void }) {
  return (
    <>
      <h3>Kept on this visit</h3>
      <ul className={styles.kept}>
        {footings.map((f) => (
          <li key={f.id}>
            {whenShort(f.at)}: in beat at {leaning(f.evenAtDeg)}, ±{Math.max(0.02, 2 * f.standardError).toFixed(2)}°
            {f.way === 'level' ? ', by a level' : ''}
            <Button variant="subtle" size="compact-sm" onClick={() => onRemove(f.id)}>
              Take back
            </Button>
          </li>
        ))}
      </ul>
    </>
  )
}
