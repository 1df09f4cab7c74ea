import type { CareListed, NowMark } from '@treadle/contract'
import { groupedBy, type CareState } from '@treadle/core'
import { Button, Checkbox, Menu, SegmentedControl } from '@mantine/core'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { sayNotKept, useCare, useChange, useSettings } from '../data/queries.ts'
import { Fold } from '../parts/Fold.tsx'
import { Loaded } from '../parts/Loading.tsx'
import { Mark } from '../parts/Mark.tsx'
import { count, dayLike, dayShort, daysSpoken } from '../parts/say.ts'
import { usePaper } from '../parts/usePaper.ts'
import { usePedalAction } from '../pedal/Pedal.tsx'
import { PedalBar } from '../pedal/PedalBar.tsx'
import { careTitle } from './care/careTitles.ts'
import { Letter } from './care/Letter.tsx'
import styles from './care/Care.module.css'

const STATES: Record<CareState, [mark: 'sound' | 'watch' | 'must' | 'none', words: string]> = {
  coming: ['none', 'to come'],
  due: ['watch', 'due'],
  'put-off': ['none', 'put off'],
  answered: ['sound', 'answered'],
  'not-needed': ['none', 'not wanted'],
  lapsed: ['must', 'lapsed'],
}
const MONTHS = ['3', '12', '24', '36']
const DAY_S = 86_400
const LATER: [title: string, days: number][] = [
  ['a month', 30],
  ['three months', 91],
  ['a year', 365],
]

const keyOf = (due: CareListed) => `${due.jobId} ${due.kind}`

/** What falls due of the clocks at home, months ahead: a list, a letter for each, and what their owners answered. */
export function Care() {
  const [search, setSearch] = useSearchParams()
  const months = MONTHS.find((m) => m === search.get('months')) ?? '12'
  const care = useCare(Number(months))
  return (
    <>
      <div className={styles.head}>
        <h1>Due at home</h1>
        <SegmentedControl
          aria-label="Months ahead"
          value={months}
          onChange={(m) => setSearch(m === '12' ? {} : { months: m }, { replace: true })}
          data={MONTHS.map((value) => ({ value, label: `${value} months` }))}
        />
      </div>
      <Loaded query={care}>{(list) => <CareOf list={list} />}</Loaded>
      <PedalBar />
    </>
  )
}

function CareOf({ list }: { list: CareListed[] }) {
  const { data: settings } = useSettings()
  const [chosen, setChosen] = useState<string[]>([])
  usePaper('A4', '22mm')
  const letters = list.filter((due) => chosen.includes(keyOf(due)))
  usePedalAction(
    letters.length === 0
      ? null
      : { label: `Press to print ${count(letters.length, 'letter')}`, press: () => window.print() },
  )
  if (!settings) return null
  if (list.length === 0)
    return (
      <p className={styles.none}>
        Nothing falls due in these months. A clock comes onto this list when it was oiled here, or has a guarantee, and
        has gone home; how long its oil is trusted is this workshop’s <Link to="/settings">school</Link>, or the oil’s
        own.
      </p>
    )
  const byMonth = groupedBy(list, (due) => due.dueOn.slice(0, 7))
  const toggle = (key: string, on: boolean) => setChosen((now) => (on ? [...now, key] : now.filter((k) => k !== key)))
  return (
    <div className={styles.columns}>
      <section className={styles.list}>
        {[...byMonth].map(([month, dues]) => (
          <section key={month}>
            <h2>{dayLike(`${month}-01`, 'November 2026')}</h2>
            <ul>
              {dues.map((due) => (
                <Row
                  key={keyOf(due)}
                  due={due}
                  chosen={chosen.includes(keyOf(due))}
                  onChoose={(on) => toggle(keyOf(due), on)}
                />
              ))}
            </ul>
          </section>
        ))}
      </section>
      <section className={styles.letters} aria-label="Letters">
        {letters.length === 0 ? (
          <p className="quiet">Choose whom to write to, and their letters stand here, ready to print.</p>
        ) : (
          <Button size="lg" className={styles.print} onClick={() => window.print()}>
            Print {count(letters.length, 'letter')}
          </Button>
        )}
        {letters.map((due) => (
          <Letter key={keyOf(due)} due={due} settings={settings} />
        ))}
      </section>
    </div>
  )
}

function Row({ due, chosen, onChoose }: { due: CareListed; chosen: boolean; onChoose: (on: boolean) => void }) {
  const change = useChange('care', 'bench')
  const [mark, words] = STATES[due.state]
  const path = `/jobs/${due.jobId}/now`
  const { kind, subject, dueS } = due.owed
  const say = (state: NowMark['state'], untilS: number | null) =>
    change.mutate({ method: 'PUT', path, body: { kind, subject, state, dueS, untilS } }, { onError: sayNotKept })
  const again = () =>
    change.mutate(
      { method: 'DELETE', path: `${path}/${kind}?subject=${encodeURIComponent(subject)}` },
      { onError: sayNotKept },
    )
  const open = due.state === 'coming' || due.state === 'due' || due.state === 'lapsed'
  return (
    <li>
      <Checkbox
        size="md"
        aria-label={`Letter to ${due.owner.name}: ${due.clock.name}, ${careTitle(due)}`}
        checked={chosen}
        onChange={(e) => onChoose(e.currentTarget.checked)}
      />
      <div className={styles.what}>
        <p>
          <Link to={`/clocks/${due.clock.id}`} className={styles.name}>
            {due.clock.name}
          </Link>{' '}
          {careTitle(due)}
        </p>
        <p className="quiet">
          {dayShort(due.dueOn)}. {[due.owner.name, due.owner.phone].filter(Boolean).join(', ')}. {daysSpoken(due.why)}
        </p>
        <Fold title="What to look at">
          <ul className={styles.look}>
            {due.look.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </Fold>
      </div>
      <span className={styles.state}>
        <Mark state={mark} label={words} /> {words}
      </span>
      <Menu position="bottom-end">
        <Menu.Target>
          <Button variant="subtle" aria-label={`Answer: ${due.clock.name}, ${careTitle(due)}`}>
            Answer
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          {open && <Menu.Item onClick={() => say('done', null)}>The owner answered</Menu.Item>}
          {open &&
            LATER.map(([title, days]) => (
              <Menu.Item key={title} onClick={() => say('later', Math.round(Date.now() / 1000) + days * DAY_S)}>
                Put off {title}
              </Menu.Item>
            ))}
          {open && <Menu.Item onClick={() => say('not-needed', null)}>Not wanted</Menu.Item>}
          {!open && <Menu.Item onClick={again}>Owed again</Menu.Item>}
        </Menu.Dropdown>
      </Menu>
    </li>
  )
}
