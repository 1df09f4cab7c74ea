import type { BenchPage, BenchTag } from '@treadle/contract'
import { BAYS, type Bay, type Owed } from '@treadle/core'
import { Button, Group, NativeSelect, SegmentedControl, TextInput } from '@mantine/core'
import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import { whenIdle } from '../parts/whenIdle.ts'
import { useBench } from '../data/queries.ts'
import { ClockGlyph } from '../parts/ClockGlyph.tsx'
import { Loaded } from '../parts/Loading.tsx'
import { dayAndHour, dayShort, daysSpoken, whenDue } from '../parts/say.ts'
import { Mark } from '../parts/Mark.tsx'
import { SURFACES, whereInBay, whereOwed } from '../surfaces/index.ts'
import styles from './Bench.module.css'
import { NowMenu } from './NowMenu.tsx'
import { sortNow } from './nowWords.ts'

/** Today: what the workshop owes its clocks, and every clock by its tag under the bay it is in. */
export function Bench() {
  return <Loaded query={useBench()}>{(data) => <BenchOf data={data} />}</Loaded>
}

function BenchOf({ data }: { data: BenchPage }) {
  // A tag leads to where its bay's work goes on.
  const tagged = data.tags.length > 0
  useEffect(() => (tagged ? whenIdle(SURFACES.filter((s) => s.home).map((s) => s.load)) : undefined), [tagged])
  if (!tagged)
    return (
      <div className={styles.empty}>
        <h1>Nothing on the bench</h1>
        <p>
          Start with <Link to="/take-in">taking in a clock</Link>: its owner, what it is and what it does wrong. Then
          hear it before you touch it.
        </p>
        <p>
          No clock at hand? The <Link to="/practice">practice clock</Link> ticks, limps and is set in beat like a real
          one.
        </p>
      </div>
    )
  return (
    <>
      <Now data={data} />
      <Rail tags={data.tags} />
    </>
  )
}

interface OwedHere {
  tag: Omit<BenchTag, 'by'>
  owed: Owed
}

/** More than these nobody reads at a glance, and the tags would hang out of sight. */
const AT_ONCE = 20

/** What is owed in order of time; what is waited for, and what is due at home, stand apart. */
function Now({ data }: { data: BenchPage }) {
  const [all, setAll] = useState(false)
  const at = new Date(data.at)
  const { pressing, later, waited } = sortNow(
    data.tags.flatMap((tag) => tag.owed.map((owed) => ({ tag, owed }))),
    at.getTime() / 1000,
  )
  const more = [
    pressing.length > AT_ONCE && `${pressing.length - AT_ONCE} more`,
    later.length > 0 && `${later.length} later`,
  ]
    .filter(Boolean)
    .join(', ')
  const recalls = data.recalls.flatMap((tag) => tag.owed.map((owed) => ({ tag, owed })))
  return (
    <section aria-labelledby="now" className={styles.now}>
      <div className={styles.nowHead}>
        <h1 id="now">Now</h1>
        <span className="quiet">{dayAndHour(at)}</span>
        <a className={styles.calendar} href="/api/now.ics" download="treadle-now.ics">
          As a calendar
        </a>
      </div>
      <OwedLine list={all ? [...pressing, ...later] : pressing.slice(0, AT_ONCE)} at={at} />
      {pressing.length === 0 && <p className="quiet">Nothing is due. Every clock waits for you, not you for it.</p>}
      {more !== '' && (
        <Button variant="subtle" size="compact-md" onClick={() => setAll(!all)}>
          {all ? 'Only what presses' : `and ${more}`}
        </Button>
      )}
      <Apart title="Waited for" list={waited} at={at} />
      <Apart title="At home, and due" list={recalls} at={at} />
      {recalls.length > 0 && (
        <p>
          <Link to="/care">Months ahead, with letters</Link>
        </p>
      )}
    </section>
  )
}

function Apart({ title, list, at }: { title: string; list: OwedHere[]; at: Date }) {
  if (list.length === 0) return null
  return (
    <details className={styles.apart}>
      <summary>
        {title}: {list.length}
      </summary>
      <OwedLine list={list} at={at} />
    </details>
  )
}

function OwedLine({ list, at }: { list: OwedHere[]; at: Date }) {
  return (
    <ol className={styles.line}>
      {list.map(({ tag, owed }) => (
        <li key={`${tag.job.id} ${owed.kind} ${owed.subject}`} className={styles[owed.weight]}>
          <span className={styles.tick}>{whenOf(owed, at)}</span>
          <Link
            to={owed.kind === 'recall' ? `/clocks/${tag.clock.id}` : `/jobs/${tag.job.id}/${whereOwed(owed.kind)}`}
            className={styles.owed}
          >
            <Mark state={owed.weight} label={{ must: 'must', watch: 'soon', sound: 'in order' }[owed.weight]} />
            <span>
              <strong>{owed.title}</strong>
              <span className={styles.why}>
                {tag.clock.name}. {daysSpoken(owed.why)}
              </span>
            </span>
          </Link>
          <NowMenu jobId={tag.job.id} clock={tag.clock.name} owed={owed} at={at} />
        </li>
      ))}
    </ol>
  )
}

function whenOf(owed: Owed, at: Date): string {
  if (owed.dueS === null) return 'now'
  if (owed.dueS <= at.getTime() / 1000) return 'due'
  return whenDue(new Date(owed.dueS * 1000), at)
}

const STATES = [
  { value: 'all', label: 'all' },
  { value: 'due', label: 'must or soon' },
  { value: 'waits', label: 'waits' },
] as const
type State = (typeof STATES)[number]['value']

function Rail({ tags }: { tags: BenchTag[] }) {
  const [words, setWords] = useState('')
  const [by, setBy] = useState('')
  const [state, setState] = useState<State>('all')
  const people = [...new Set(tags.map((t) => t.by))].filter((name) => name !== '').sort()
  const shown = tags.filter(
    (t) =>
      (by === '' || t.by === by) &&
      (state === 'all' || (state === 'waits' ? t.job.waitsFor !== '' : t.owed[0]?.weight !== 'sound')) &&
      `${t.job.number} ${t.clock.name} ${t.owner.name}`.toLowerCase().includes(words.trim().toLowerCase()),
  )
  return (
    <section aria-label="Clocks in the workshop" className={styles.rail}>
      {tags.length > FEW && (
        <Group className={styles.filter}>
          <TextInput
            aria-label="Only clocks with these words"
            placeholder="clock, owner or number"
            size="sm"
            value={words}
            onChange={(e) => setWords(e.currentTarget.value)}
          />
          <NativeSelect
            aria-label="Only what this person worked on last"
            size="sm"
            value={by}
            onChange={(e) => setBy(e.currentTarget.value)}
            data={[{ value: '', label: 'anybody’s' }, ...people]}
          />
          <SegmentedControl
            aria-label="Only clocks in this state"
            size="sm"
            value={state}
            onChange={setState}
            data={[...STATES]}
          />
          {shown.length < tags.length && (
            <span className="quiet">
              {shown.length} of {tags.length}
            </span>
          )}
        </Group>
      )}
      {BAYS.map(({ bay, title }) => {
        const hanging = shown.filter((t) => t.job.bay === bay).sort(byPromise)
        return (
          <div key={bay} className={styles.bay}>
            <h2>
              {title} <span className={styles.count}>{hanging.length}</span>
            </h2>
            <div className={styles.rod} />
            <ul>
              {hanging.map((tag, i) => (
                <Tag key={tag.job.id} tag={tag} bay={bay} turn={((tag.job.number * 7 + i * 3) % 5) - 2} />
              ))}
            </ul>
          </div>
        )
      })}
    </section>
  )
}

/** With so few clocks nobody needs to look for one. */
const FEW = 6

/** What is promised first hangs first; what is promised to nobody, by its number. */
function byPromise(a: BenchTag, b: BenchTag): number {
  const [one, two] = [a.job.promisedOn ?? '9999', b.job.promisedOn ?? '9999']
  return one === two ? a.job.number - b.job.number : one < two ? -1 : 1
}

function Tag({ tag, bay, turn }: { tag: BenchTag; bay: Bay; turn: number }) {
  const next = tag.owed[0]
  const surface = next ? whereOwed(next.kind) : whereInBay(bay)
  return (
    <li className={styles.hanger}>
      <Link to={`/jobs/${tag.job.id}/${surface}`} className={styles.tag} style={{ rotate: `${turn * 0.35}deg` }}>
        <span className={styles.eye} />
        <span className={styles.tagHead}>
          <span className={styles.tagName}>{tag.clock.name}</span>
          <ClockGlyph kind={tag.clock.kind} />
        </span>
        <span className="quiet">
          {tag.job.number}, {tag.owner.name}
        </span>
        {tag.job.promisedOn !== null && <span className="quiet">promised {dayShort(tag.job.promisedOn)}</span>}
        <span className={styles.next}>
          <Mark
            state={next?.weight ?? 'sound'}
            label={{ must: 'must', watch: 'soon', sound: 'in order' }[next?.weight ?? 'sound']}
          />
          {next?.title ?? 'Nothing is owed to it'}
        </span>
      </Link>
    </li>
  )
}
