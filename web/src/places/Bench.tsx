import type { BenchPage, BenchTag } from '@treadle/contract'
import { BAYS, type Bay, type Owed } from '@treadle/core'
import { Button } from '@mantine/core'
import { useState } from 'react'
import { Link } from 'react-router'
import { useBench } from '../data/queries.ts'
import { ClockGlyph } from '../parts/ClockGlyph.tsx'
import { Loaded } from '../parts/Loading.tsx'
import { dayAndHour, whenDue } from '../parts/say.ts'
import { Mark } from '../parts/Mark.tsx'
import { whereInBay, whereOwed } from '../surfaces/index.ts'
import styles from './Bench.module.css'
import { NowMenu } from './NowMenu.tsx'

/** Today: what the workshop owes its clocks, and every clock by its tag under the bay it is in. */
export function Bench() {
  return <Loaded query={useBench()}>{(data) => <BenchOf data={data} />}</Loaded>
}

function BenchOf({ data }: { data: BenchPage }) {
  if (data.tags.length === 0)
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

const MOST_SHOWN = 5

interface OwedHere {
  tag: BenchTag
  owed: Owed
}

/** What is owed in order of time: what holds a clock up, what is due today, then what is coming. */
function Now({ data }: { data: BenchPage }) {
  const [all, setAll] = useState(false)
  const at = new Date(data.at)
  const list: OwedHere[] = data.tags
    .flatMap((tag) => tag.owed.map((owed) => ({ tag, owed })))
    .filter(({ owed }) => owed.weight !== 'sound' || owed.dueS !== null)
    .sort((a, b) => rank(a.owed, at) - rank(b.owed, at))
  return (
    <section aria-labelledby="now" className={styles.now}>
      <div className={styles.nowHead}>
        <h1 id="now">Now</h1>
        <span className="quiet">{dayAndHour(at)}</span>
        <a className={styles.calendar} href="/api/now.ics" download="treadle-now.ics">
          As a calendar
        </a>
      </div>
      <ol className={styles.line}>
        {list.slice(0, all ? list.length : MOST_SHOWN).map(({ tag, owed }) => (
          <li key={`${tag.job.id} ${owed.kind} ${owed.subject}`} className={styles[owed.weight]}>
            <span className={styles.tick}>{whenOf(owed, at)}</span>
            <Link to={`/jobs/${tag.job.id}/${whereOwed(owed.kind)}`} className={styles.owed}>
              <Mark state={owed.weight} label={{ must: 'must', watch: 'soon', sound: 'in order' }[owed.weight]} />
              <span>
                <strong>{owed.title}</strong>
                <span className={styles.why}>
                  {tag.clock.name}. {owed.why}
                </span>
              </span>
            </Link>
            <NowMenu jobId={tag.job.id} clock={tag.clock.name} owed={owed} at={at} />
          </li>
        ))}
      </ol>
      {list.length === 0 && <p className="quiet">Nothing is due. Every clock waits for you, not you for it.</p>}
      {list.length > MOST_SHOWN && (
        <Button variant="subtle" size="compact-md" onClick={() => setAll(!all)}>
          {all ? 'Only the first' : `and ${list.length - MOST_SHOWN} more`}
        </Button>
      )}
    </section>
  )
}

function rank(owed: Owed, at: Date): number {
  const base =
    owed.weight === 'must'
      ? 0
      : owed.dueS !== null && owed.dueS <= at.getTime() / 1000
        ? 1
        : owed.weight === 'watch'
          ? 2
          : 3
  return base * 1e11 + (owed.dueS ?? 5e10)
}

function whenOf(owed: Owed, at: Date): string {
  if (owed.dueS === null) return owed.weight === 'must' ? 'held up' : 'when free'
  if (owed.dueS <= at.getTime() / 1000) return 'due'
  return whenDue(new Date(owed.dueS * 1000), at)
}

function Rail({ tags }: { tags: BenchTag[] }) {
  return (
    <section aria-label="Clocks in the workshop" className={styles.rail}>
      {BAYS.map(({ bay, title }) => {
        const hanging = tags.filter((t) => t.job.bay === bay)
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
        <span className="quiet">{tag.owner.name}</span>
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
