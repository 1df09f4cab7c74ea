import { CLOCK_KIND_TITLES } from '@treadle/contract'
import { arcScale, FieldError } from '@treadle/core'
import { Button, Group, SegmentedControl } from '@mantine/core'
import { Link, useSearchParams } from 'react-router'
import { useSettings } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { Figure } from '../../parts/Figure.tsx'
import parts from '../../parts/parts.module.css'
import { useObservations } from '../../job/useObservations.ts'
import { usePaper } from '../../parts/usePaper.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import styles from './Papers.module.css'
import { qrPath } from '../../parts/qr.ts'
import { scaleSvg } from './scaleSvg.ts'
import { dayLike } from '../../parts/say.ts'

const SHEETS = [
  { value: 'tag', label: 'Job tag', paper: '78mm 134mm', margin: '3mm' },
  { value: 'receipt', label: 'Owner’s receipt', paper: 'A5', margin: '8mm' },
  { value: 'scale', label: 'Arc scale', paper: 'A4', margin: '4mm' },
] as const
type Sheet = (typeof SHEETS)[number]['value']

/** What goes on paper when a clock comes in: its tag, the owner’s receipt, the scale for its arc. */
export function PapersSurface() {
  const [search, setSearch] = useSearchParams()
  const sheet = SHEETS.find((s) => s.value === search.get('show')) ?? SHEETS[0]
  const shown = sheet.value
  usePaper(sheet.paper, sheet.margin)
  const print = () => window.print()
  usePedalAction({
    label: `Press to print the ${sheet.label.toLowerCase()}`,
    press: print,
  })
  return (
    <>
      <Group className={styles.tools} mb="md">
        <SegmentedControl
          aria-label="Which paper"
          value={shown}
          onChange={(show: Sheet) => setSearch({ show }, { replace: true })}
          data={SHEETS.map(({ value, label }) => ({ value, label }))}
        />
        <Button size="md" onClick={print}>
          Print it
        </Button>
      </Group>
      {shown === 'tag' && <Tag />}
      {shown === 'receipt' && <Receipt />}
      {shown === 'scale' && <Scale />}
    </>
  )
}

function Tag() {
  const { job, clock, owner } = useJobData()
  const { data: settings } = useSettings()
  const address = `${settings?.shopAddress || window.location.origin}/jobs/${job.id}`
  const unreachable = /^https?:\/\/(localhost|127\.|\[::1\])/.test(address)
  const { path, size } = qrPath(address)
  return (
    <>
      <article className={styles.tag} aria-label="Job tag">
        <span className={styles.hole} />
        <p className={styles.number}>{job.number}</p>
        <p className={styles.name}>{clock.name}</p>
        <p>{CLOCK_KIND_TITLES[clock.kind]}</p>
        <p>{owner.name}</p>
        <p className={styles.promised}>
          {job.promisedOn ? `Promised ${dayLike(job.promisedOn, 'Fri 27 Nov 2026')}` : 'Nothing promised'}
        </p>
        <svg
          viewBox={`0 0 ${size} ${size}`}
          className={styles.code}
          role="img"
          aria-label={`Code that opens this job: ${address}`}
          shapeRendering="crispEdges"
        >
          <rect width={size} height={size} fill="#fff" />
          <path d={path} fill="#000" />
        </svg>
        <p className={styles.small}>{settings?.workshop}</p>
      </article>
      {unreachable && (
        <p className={styles.notPrinted} role="note">
          A phone can’t open this code: it leads to this computer alone. Give the shop’s address for phones under{' '}
          <Link to="/settings">Settings</Link>.
        </p>
      )}
    </>
  )
}

function Receipt() {
  const { job, clock, owner } = useJobData()
  const { data: settings } = useSettings()
  return (
    <article className={styles.receipt} aria-label="Owner’s receipt">
      <p className={styles.shop}>{[settings?.workshop, settings?.place, settings?.phone].filter(Boolean).join(', ')}</p>
      <h1>Received from you</h1>
      <p>
        <strong>{clock.name}</strong>, {CLOCK_KIND_TITLES[clock.kind].toLowerCase()}, job number {job.number}, on{' '}
        {dayLike(job.receivedAt, '27 November 2026')}.
      </p>
      <p>
        {owner.name}
        {owner.address === '' ? '' : `, ${owner.address}`}
      </p>
      <p>“{job.complaint}”</p>
      {clock.marks !== '' && <p>Marks: {clock.marks}</p>}
      <h2>What came with it</h2>
      <ul>
        {job.cameWith.map((c) => (
          <li key={c.name}>
            {c.name}
            {c.hung ? `, ${c.hung}` : ''}
            {c.massKg ? `, ${c.massKg} kg` : ''}: {c.state}
          </li>
        ))}
        {job.cameWith.length === 0 && <li>Nothing but the clock itself.</li>}
      </ul>
      <p>
        {job.promisedOn
          ? `We promised it for ${dayLike(job.promisedOn, 'Friday 27 November 2026')}.`
          : 'We let you know when it is ready; no day is promised.'}{' '}
        Nothing is done that costs you money before you have agreed to our estimate.
      </p>
      <p className={styles.line}>For the workshop</p>
    </article>
  )
}

function Scale() {
  const { clock } = useJobData()
  const seen = useObservations()
  const tip = seen.of('suspension to tip')?.figure ?? clock.pendulum.lengthMm
  const made = tip === null ? null : scaleFor(tip, clock.name)
  const download = () => {
    if (typeof made !== 'string') return
    const link = document.createElement('a')
    link.href = URL.createObjectURL(new Blob([made], { type: 'image/svg+xml' }))
    link.download = 'arc-scale.svg'
    link.click()
    URL.revokeObjectURL(link.href)
  }
  return (
    <>
      <div className={styles.tools}>
        <p className={parts.say}>
          Stand it under the tip with 0 at plumb. Print at 100 %, without “fit to page”, and lay a rule on the checking
          line before you trust it.
        </p>
        <Group align="end" mt="sm" mb="md">
          <Figure
            label="From suspension to tip"
            unit="mm"
            value={tip}
            min={40}
            max={6000}
            onKeep={(figure) => seen.set('suspension to tip', { figure })}
          />
          <Button variant="default" onClick={download} disabled={typeof made !== 'string'}>
            Save as SVG
          </Button>
        </Group>
      </div>
      {made === null && <p>Say how long the pendulum is, from where it hangs to its tip.</p>}
      {made instanceof FieldError && <p>{made.message}</p>}
      {/* The drawing is made by us alone; the clock’s name in it is escaped. */}
      {typeof made === 'string' && <div className={styles.scale} dangerouslySetInnerHTML={{ __html: made }} />}
    </>
  )
}

function scaleFor(lengthMm: number, name: string): string | FieldError {
  try {
    return scaleSvg(arcScale(lengthMm), `${name}: degrees, for ${lengthMm.toFixed(0)} mm from suspension to tip`)
  } catch (error) {
    if (error instanceof FieldError) return error
    throw error
  }
}
