import { listeningFrom, type ListeningSummary, type NewListening } from '@treadle/contract'
import {
  DEFAULT_PRACTICE_CLOCK,
  practiceLike,
  EYE_KEY,
  goingCounts,
  nearestUsualCount,
  outOfBeatMs,
  signedMs,
  splitTold,
  zeroByTwo,
  type Bay,
} from '@treadle/core'
import { Button, Checkbox, FileButton } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useEffect, useMemo, useRef, useState } from 'react'
import { Figure } from '../../parts/Figure.tsx'
import { useNavigate } from 'react-router'
import { v7 as uuid } from 'uuid'
import { queryClient, sendAsChange, sentenceOf, useChange, useSettings, useSoundBefore } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { useClockChange } from '../../job/useClockChange.ts'
import { useObservations } from '../../job/useObservations.ts'
import { count, whenShort } from '../../parts/say.ts'
import { isField, usePedalAction } from '../../pedal/Pedal.tsx'
import styles from '../../hear/Listen.module.css'
import { ListenView } from '../../hear/ListenView.tsx'
import { MicrophonePickup, PracticePickup } from '../../hear/pickup.ts'
import { SideByCamera } from './SideByCamera.tsx'
import { nextOf } from './next.ts'
import { useListening, type Heard } from '../../hear/useListening.ts'

/** Where it was heard: before touching it, on the stand, or in its place at its owner’s. */
const PURPOSES: Partial<Record<Bay, NewListening['purpose']>> = { arrive: 'observe', return: 'in-place' }

/** Listening to the clock of a job; each listening is kept with its beats and the last minute of its sound. */
export function JobListen() {
  const { job, clock, listenings, trainSheets } = useJobData()
  const train = useMemo(() => goingCounts(trainSheets), [trainSheets])
  const { data: soundBefore } = useSoundBefore(job.id)
  const { data: settings } = useSettings()
  const navigate = useNavigate()
  const change = useChange()
  const { pendulum } = clock
  const [changeMm, setChangeMm] = useState<number | null>(null)
  const saveClock = useClockChange(clock)
  const listening = useListening(
    {
      beatsPerHour: pendulum.beatsPerHour ?? undefined,
      teeth: pendulum.escapeTeeth ?? train?.escapeTeeth,
      train: train ?? undefined,
      ppm: settings?.pickupPpm,
      ticks: pendulum.ticks,
    },
    job.id,
  )
  const { status, heard, side } = listening
  const [kept, setKept] = useState<ArrayBuffer | null>(null)

  const keep = async (now: Heard) => {
    const id = uuid()
    const body: NewListening = listeningFrom(now.result, {
      id,
      at: new Date().toISOString(),
      pickup: now.pickup,
      fileName: now.fileName.slice(0, 200),
      purpose: PURPOSES[job.bay] ?? 'beat',
      firstSide: side.first,
      hasSound: now.wav !== null,
      changeMm,
    })
    try {
      await change.mutateAsync({ method: 'PUT', path: `/jobs/${job.id}/listenings/${id}`, body })
      if (now.wav)
        await sendAsChange({
          method: 'PUT',
          path: `/listenings/${id}/sound`,
          body: new Blob([now.wav], { type: 'audio/wav' }),
        })
      setChangeMm(null)
      listening.letGo()
      notifications.show({ message: 'Kept, with its sound.', autoClose: 2500 })
      await queryClient.invalidateQueries({ queryKey: ['job', job.id] })
    } catch (error) {
      notifications.show({ color: 'red', title: 'The listening was not kept', message: sentenceOf(error) })
    }
    return id
  }
  const lastKept = useRef<Promise<string> | null>(null)
  const keepNow = () => {
    if (!heard) return
    setKept(heard.wav)
    lastKept.current = keep(heard)
  }
  const takeBack = () => {
    void lastKept.current?.then((id) => change.mutate({ method: 'DELETE', path: `/jobs/${job.id}/listenings/${id}` }))
    setKept(null)
  }
  const start = () => listening.start(new MicrophonePickup())
  const [chalkWanted, setChalking] = useState(false)
  const chalking = chalkWanted && status === 'listening'
  const [tapAt, setTapAt] = useState(0)
  const sinceTap = useMsSince(tapAt, status === 'listening')
  const isKept = heard?.wav != null && kept === heard.wav
  const next = nextOf({
    status,
    heard: heard !== null,
    first: side.first,
    taps: listening.taps,
    sinceTapMs: sinceTap,
    seconds: listening.seconds,
    kept: isKept,
    bay: job.bay,
  })
  const press = (atMs: number): (() => void) | void => {
    if (chalking) {
      listening.nameTooth(atMs)
      setChalking(false)
      return
    }
    switch (next.what) {
      case 'tap':
        setTapAt(atMs)
        return listening.tap(atMs)
      case 'stop':
        return listening.stop()
      case 'keep':
        keepNow()
        return takeBack
      case 'rate':
        return void navigate(`/jobs/${job.id}/rate`)
      case 'back':
        return void navigate(`/jobs/${job.id}/arrive`)
      case 'set-up':
        return void navigate(`/jobs/${job.id}/set-up`)
      case 'listen':
        return start()
    }
  }
  usePedalAction(
    chalking
      ? { label: 'Press as the chalked tooth drops', rhythmic: true, press }
      : { label: next.label, hint: next.hint, rhythmic: next.rhythmic, press },
  )
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() === 'l' && !isField(event.target)) listening.stop()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })
  if (!settings) return null

  const practise = () =>
    listening.start(
      new PracticePickup(
        practiceLike(pendulum, 0.1 * (pendulum.semiArcDeg ?? DEFAULT_PRACTICE_CLOCK.semiArcDeg)),
        false,
      ),
    )
  const sources =
    status === 'listening' ? (
      <div className={styles.sources}>
        <Button size="lg" onClick={listening.stop}>
          Stop listening
        </Button>
        <span className="quiet">or the key L</span>
      </div>
    ) : (
      <div className={styles.sources}>
        <Button
          size={heard ? 'md' : 'lg'}
          variant={heard ? 'default' : 'filled'}
          onClick={start}
          loading={status === 'reading'}
        >
          Microphone
        </Button>
        <FileButton onChange={(file) => file && listening.open(file)} accept="audio/*,.wav">
          {(props) => (
            <Button variant="default" {...props}>
              Sound file
            </Button>
          )}
        </FileButton>
        <Button variant="default" onClick={practise}>
          Practice clock
        </Button>
        {heard && status === 'done' && !isKept && <Button onClick={keepNow}>Keep this listening</Button>}
        {listening.instead !== null && (
          <Button
            variant="default"
            onClick={() =>
              saveClock({ pendulum: { ...pendulum, beatsPerHour: nearestUsualCount(listening.instead ?? 0) } })
            }
          >
            It is this clock: its count is {count(nearestUsualCount(listening.instead), 'beat')} an hour
          </Button>
        )}
      </div>
    )
  return (
    <ListenView
      listening={listening}
      pendulum={pendulum}
      settings={settings}
      sources={sources}
      train={train}
      before={soundBefore?.sides ?? null}
      onChalkByPedal={() => setChalking(true)}
      sheetOf={(heardFirst) => `/jobs/${job.id}/escapement?heard=${heardFirst}`}
      aside={
        <>
          {pendulum.ticks === 'once a period' && <EvenToTheEye />}
          {status === 'listening' && heard && pendulum.ticks !== 'once a period' && (
            <SideByCamera listening={listening} />
          )}
          <ThisVisit
            listenings={listenings}
            changeMm={changeMm}
            onChange={setChangeMm}
            onAgain={(file) => listening.open(file)}
          />
        </>
      }
    />
  )
}

/** Where the sound can't tell the beat, a person says that it is even to the eye. */
function EvenToTheEye() {
  const seen = useObservations()
  const even = seen.of(EYE_KEY)?.answer === 'even'
  return (
    <Checkbox
      mt="md"
      size="md"
      label="It lets go as far to the left as to the right: even to the eye"
      checked={even}
      onChange={(e) => seen.set(EYE_KEY, { answer: e.currentTarget.checked ? 'even' : '' })}
    />
  )
}

/** Milliseconds since a moment, told anew a few times a second while it matters. */
function useMsSince(atMs: number, running: boolean): number {
  const [now, setNow] = useState(Date.now)
  useEffect(() => {
    if (!running || atMs === 0) return
    const timer = setInterval(() => setNow(Date.now()), 250)
    return () => clearInterval(timer)
  }, [running, atMs])
  return Math.max(0, now - atMs)
}

/** The listenings of this visit, before and after; two of them with a known change between show where the zero lies. */
function ThisVisit({
  listenings,
  changeMm,
  onChange,
  onAgain,
}: {
  listenings: ListeningSummary[]
  changeMm: number | null
  onChange: (mm: number | null) => void
  onAgain: (file: File) => void
}) {
  if (listenings.length === 0) return null
  const recent = listenings.slice(-5)
  const zero = zeroWords(listenings)
  const again = async (l: ListeningSummary) => {
    const answer = await fetch(`/api/listenings/${l.id}/sound`)
    onAgain(new File([await answer.blob()], `kept ${whenShort(l.at)}.wav`))
  }
  return (
    <div style={{ marginTop: '1rem' }}>
      <h3>This visit</h3>
      <table className={styles.history}>
        <tbody>
          {recent.map((l) => {
            const signed = signedMs(l)
            return (
              <tr key={l.id}>
                <td>
                  {l.changeMm !== null && <span className="quiet">changed {l.changeMm} mm, then </span>}
                  {whenShort(l.at)} <b>{splitTold(l) ? `${outOfBeatMs(l).toFixed(1)} ms` : 'beat not told'}</b>{' '}
                  {signed === null ? '' : signed > 0 ? 'right' : 'left'}
                </td>
                <td>
                  {l.soundStored && (
                    <>
                      <a href={`/api/listenings/${l.id}/sound`} download>
                        sound
                      </a>{' '}
                      <Button variant="subtle" size="compact-sm" onClick={() => void again(l)}>
                        hear again
                      </Button>
                    </>
                  )}
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
      {zero !== null && <p className={styles.say}>{zero}</p>}
      <Figure
        mt="xs"
        label="What you change before the next listening"
        unit="mm"
        description="Packing or bend, one way counted +, the other −"
        value={changeMm}
        onKeep={onChange}
      />
    </div>
  )
}

const ZERO_WAYS = { true: 'further the same way', false: 'back' }

function zeroWords(listenings: ListeningSummary[]): string | null {
  const zero = zeroByTwo(listenings)
  if (!zero) return null
  if (!zero.moved) return 'The change between these two moved nothing that was heard.'
  return `By these two the zero lies ${Math.abs(zero.fromNowMm).toFixed(1)} mm ${ZERO_WAYS[`${zero.sameWay}`]}.`
}
