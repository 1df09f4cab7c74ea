import type { WatchRow } from '@treadle/contract'
import { goingCounts, practiceLike, watchBlocks, watchTells, type Against, type WatchBlock } from '@treadle/core'
import { Button, FileButton, NativeSelect, SegmentedControl } from '@mantine/core'
import { lazy, Suspense, useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { v7 as uuid } from 'uuid'
import { useSettings, useWatch } from '../../data/queries.ts'
import { MicrophonePickup, PracticePickup, type Pickup } from '../../hear/pickup.ts'
import { useOwnClock } from '../../hear/ownClockHost.ts'
import { beginWatch, endWatch, listenAgain, useWatchHost, watchFile } from '../../hear/watchHost.ts'
import { useRows } from '../../job/useRows.ts'
import { useJobData } from '../../job/useJobData.ts'
import { Mark } from '../../parts/Mark.tsx'
import { count, whenShort } from '../../parts/say.ts'
import { useNow } from '../../parts/useNow.ts'
import { useStop } from '../../parts/useStop.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { AGAINST_TITLES } from './againstOption.ts'
import { Marks } from './Marks.tsx'
import { StrikesRead } from './StrikesRead.tsx'
import { TakeBack } from './TakeBack.tsx'
import { Temperatures } from './Temperatures.tsx'
import { duration, headline, stopOf, tellsInWords } from './words.ts'
import styles from './Watch.module.css'

const WatchChart = lazy(() => import('./WatchChart.tsx'))

/** The watch on this clock: begun here or on another device, seen live on all, and what it tells in the morning. */
export function WatchSurface() {
  const { job, clock, watches, events, trainSheets } = useJobData()
  const { data: settings } = useSettings()
  const host = useWatchHost()
  const own = useOwnClock()
  const navigate = useNavigate()
  const nowMs = useNow(5000)
  const [chosen, choose] = useStop('watch')
  const watch = watches.find((w) => w.id === chosen) ?? watches.at(-1) ?? null
  const here = host.watch !== null && host.watch.jobId === job.id
  const rows = useRows<WatchRow>('watches')
  const [view, setView] = useState<'time' | Against>('time')
  const elsewhere = host.watch !== null && host.watch.jobId !== job.id
  const { data: page } = useWatch(watch?.id ?? null, watch !== null && watch.endedAt === null)
  const train = useMemo(() => goingCounts(trainSheets), [trainSheets])
  const tells = useMemo(() => {
    if (!page) return null
    const began = Date.parse(page.watch.beganAt)
    const windings = events
      .filter((e) => e.kind === 'winding')
      .map((e) => (Date.parse(e.at) - began) / 1000)
      .filter((s) => s > -14 * 86_400)
    const warm = page.watch.temperatures.map((t) => ({ atS: (Date.parse(t.at) - began) / 1000, celsius: t.celsius }))
    return {
      ...watchTells(page.minutes, windings, train, warm),
      blocks: watchBlocks(page.minutes, windings, warm),
      wound: windings.length > 0,
    }
  }, [page, events, train])
  const beatsPerHour = clock.pendulum.beatsPerHour
  const fresh = (pickup: WatchRow['pickup'], beganAt = new Date().toISOString()) => ({
    id: uuid(),
    jobId: job.id,
    version: 0,
    beganAt,
    endedAt: null,
    device: '',
    pickup,
    beatsPerHour: beatsPerHour ?? 0,
    ticks: clock.pendulum.ticks ?? ('every beat' as const),
    // A file was recorded by who knows which device.
    ppm: pickup === 'practice' ? 0 : ((pickup === 'microphone' ? own?.ppm : undefined) ?? settings?.pickupPpm ?? 0),
    ppmError: pickup === 'practice' ? 0 : pickup === 'microphone' ? (own?.standardError ?? null) : null,
  })
  const begin = (by: Pickup) => {
    choose('')
    void beginWatch(fresh(by.kind), by)
  }
  const beginByMicrophone = () => begin(new MicrophonePickup())
  const open = (file: File) => {
    choose('')
    void watchFile(fresh('file', new Date(file.lastModified).toISOString()), file)
  }
  usePedalAction(
    beatsPerHour === null
      ? { label: 'Press to say its beats an hour first', press: () => void navigate('../arrive') }
      : here
        ? host.status === 'refused'
          ? { label: 'Press to listen again', hint: host.sentence, press: listenAgain }
          : { label: 'Press to end the watch', hint: `${duration(host.seconds)} listened`, press: endWatch }
        : elsewhere
          ? {
              label: 'Press to see the clock that this device watches',
              press: () => void navigate(`/jobs/${host.watch?.jobId}/watch`),
            }
          : watch?.endedAt === null
            ? {
                label: 'Press to go on: its trial',
                hint: 'another device watches',
                press: () => void navigate('../trial'),
              }
            : watch
              ? { label: 'Press to go on: its trial', press: () => void navigate('../trial') }
              : { label: 'Press to begin a watch', hint: 'by the microphone', press: beginByMicrophone },
  )
  if (!settings) return null
  const practise = () => begin(new PracticePickup(practiceLike(clock.pendulum, 0.2), false))
  const may = beatsPerHour !== null && !here && !elsewhere
  const bySpring = clock.trains.some((t) => t.train === 'going' && t.power === 'spring')
  const said = tells ? tellsInWords(tells, train?.names ?? [], tells.wound, bySpring, page?.watch.ppmError ?? null) : []
  const stopped = stopOf(page)
  return (
    <div className={styles.columns}>
      <section>
        <p className={styles.headline} role="status">
          {headline(watch, page, nowMs)}
        </p>
        <p className="quiet">
          {here && host.status === 'opening' && 'Opening the microphone. '}
          {here && host.ofSeconds !== null && `${duration(host.seconds)} of ${duration(host.ofSeconds)} heard. `}
          {here &&
            host.lostS > 0.5 &&
            `${host.lostS.toFixed(1)} s of sound did not reach the page: the computer is busy. `}
          {here && host.untold > 1 && `${count(host.untold, 'minute')} wait for the server. `}
          {page && page.minutes.length > 0 && `${count(page.minutes.length, 'minute')} written down. `}
          {!watch &&
            'Leave a pickup on the stand for an hour or a week: minute by minute its rate, its beat, both sides’ loudness, its strikes, and when it stops.'}
        </p>
        {host.sentence !== '' && (here || host.status === 'refused') && <p role="alert">{host.sentence}</p>}
        {tells && tells.blocks.length > 2 && (
          <SegmentedControl
            size="xs"
            mt="xs"
            aria-label="What the rate is laid against"
            value={view}
            onChange={setView}
            data={[
              { value: 'time' as const, label: 'time' },
              { value: 'winding' as const, label: tells.wound ? AGAINST_TITLES.winding : 'hours since it began' },
              { value: 'warmth' as const, label: AGAINST_TITLES.warmth, disabled: !known(tells.blocks) },
              { value: 'hour' as const, label: AGAINST_TITLES.hour },
            ]}
          />
        )}
        {page && page.minutes.length > 1 && (
          <Suspense fallback={<div className={styles.chart} />}>
            <WatchChart
              key={page.watch.id}
              page={page}
              events={events}
              blocks={tells?.blocks ?? []}
              view={view}
              timeZone={settings.timeZone}
              label={`${headline(watch, page, nowMs)}. ${said.map((s) => s.text).join(' ')}`}
            />
          </Suspense>
        )}
        <div className={styles.sources}>
          {here ? (
            <Button size="lg" onClick={endWatch}>
              End the watch
            </Button>
          ) : (
            <>
              <Button size="lg" disabled={!may} onClick={beginByMicrophone}>
                {watch ? 'Begin another watch' : 'Begin a watch'}
              </Button>
              <FileButton onChange={(file) => file && open(file)} accept="audio/wav,.wav" disabled={!may}>
                {(props) => (
                  <Button size="lg" variant="default" disabled={!may} {...props}>
                    A long sound file
                  </Button>
                )}
              </FileButton>
              <Button size="lg" variant="default" disabled={!may} onClick={practise}>
                Practice clock
              </Button>
            </>
          )}
          {here && host.status === 'refused' && (
            <Button size="lg" variant="default" onClick={listenAgain}>
              Listen again
            </Button>
          )}
        </div>
        {elsewhere && <p className="quiet">This device keeps a watch on another clock; one at a time.</p>}
      </section>
      <section>
        <h2>What it tells</h2>
        {said.length === 0 && stopped === null && (
          <p className="quiet">
            {page ? 'Nothing yet beside its minutes: slopes and wheels are told after hours.' : 'Nothing yet.'}
          </p>
        )}
        <ul className={styles.tells}>
          {said.map(({ state, text }) => (
            <li key={text}>
              <Mark state={state} /> {text}
            </li>
          ))}
        </ul>
        {page && <Marks page={page} />}
        {page && page.marks.some((m) => m.kind === 'strike') && <StrikesRead jobId={job.id} page={page} />}
        {page && <Temperatures jobId={job.id} page={page} />}
        {watch && !here && <TakeBack key={watch.id} watch={watch} onRemove={rows.remove} />}
        {watches.length > 1 && (
          <NativeSelect
            mt="md"
            label="Watches of this visit"
            value={watch?.id ?? ''}
            onChange={(e) => choose(e.currentTarget.value)}
            data={watches.map((w) => ({ value: w.id, label: whenShort(w.beganAt) }))}
          />
        )}
      </section>
    </div>
  )
}

function known(blocks: WatchBlock[]): boolean {
  return blocks.some((b) => b.celsius !== null)
}
