import { Settings, type Person } from '@treadle/contract'
import { FieldError, gravityAt, gravityChangeSecondsPerDay, OIL_SCHOOLS } from '@treadle/core'
import { Button, Fieldset, Group, NativeSelect, Select, Switch, Table, TextInput } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useRowForm } from '../parts/useRowForm.ts'
import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import { v7 as uuid } from 'uuid'
import { sayNotKept, useChange, usePeople, useSettings } from '../data/queries.ts'
import { Loaded } from '../parts/Loading.tsx'
import { keepOver, meetConflict } from '../parts/conflict.tsx'
import { wordsOf } from '../parts/fieldWords.ts'
import { Figure } from '../parts/Figure.tsx'
import { pedalKey, teachPedalKey } from '../pedal/pedalKey.ts'
import { Backups } from './Backups.tsx'
import { TakeElsewhere } from './TakeElsewhere.tsx'
import { UnreadableHere } from './UnreadableHere.tsx'
import { CalendarAddress } from './CalendarAddress.tsx'
import { ShopJournal } from './ShopJournal.tsx'
import { OwnClockField } from './OwnClockField.tsx'
import styles from './SettingsPage.module.css'

/** What the workshop decides for itself: place, people, pedal, tolerances, schools. */
export function SettingsPage() {
  return (
    <>
      <h1>Settings</h1>
      <UnreadableHere />
      <div className={styles.columns}>
        <People />
        <PedalTeaching />
      </div>
      <Loaded query={useSettings()}>{(settings) => <SettingsForm settings={settings} />}</Loaded>
      <div className={styles.columns}>
        <OwnTables />
        <CalendarAddress />
        <Backups />
        <TakeElsewhere />
        <ShopJournal />
      </div>
    </>
  )
}

const WORDS = wordsOf(Settings)

/** Gravity where the fields say, m/s²; null while they say no place. */
function gravityWhere({ latitudeDeg, altitudeM }: { latitudeDeg: number | null; altitudeM: number | null }) {
  try {
    return latitudeDeg === null || altitudeM === null ? null : gravityAt(latitudeDeg, altitudeM)
  } catch (error) {
    if (error instanceof FieldError) return null
    throw error
  }
}

function SettingsForm({ settings }: { settings: Settings }) {
  const { form, base, dirty, forget } = useRowForm(settings, 'settings', Settings)
  const change = useChange('settings')
  const save = (values: Settings) =>
    change.mutate(
      { method: 'PUT', path: '/settings', body: values },
      {
        onSuccess: () => {
          forget()
          notifications.show({ message: 'Kept.', autoClose: 2000 })
        },
        onError: (error) => {
          const met = meetConflict(error, {
            words: WORDS,
            base,
            mine: values,
            send,
            takeTheirs: forget,
          })
          if (!met) sayNotKept(error)
        },
      },
    )
  const send = (row: object, version: number) => save({ ...(row as Settings), version })
  const keep = (values: Settings) => keepOver({ words: WORDS, base, mine: values, send, takeTheirs: forget }, settings)
  const number = (path: string, label: string, unit = '') => {
    const { value, onChange, error } = form.getInputProps(path) as {
      value: number | null
      onChange: (value: number | null) => void
      error?: string
    }
    return (
      <Figure
        key={path}
        draftOf={path}
        label={label}
        unit={unit}
        value={value}
        onKeep={onChange}
        error={error}
        atOnce
      />
    )
  }
  const gravity = gravityWhere(form.values)
  return (
    <form onSubmit={form.onSubmit(keep)} noValidate>
      <div className={styles.columns}>
        <Fieldset legend="The workshop and its place">
          <TextInput label="Workshop" {...form.getInputProps('workshop')} />
          <TextInput label="Place" {...form.getInputProps('place')} />
          <div className={styles.pair}>
            {number('latitudeDeg', 'Latitude', '°')}
            {number('altitudeM', 'Altitude', 'm')}
          </div>
          {gravity !== null && (
            <p className="quiet">
              Gravity here {gravity.toFixed(5)} m/s². A clock set right at 45° and sea level would{' '}
              {gravity > gravityAt(45) ? 'gain' : 'lose'}{' '}
              {Math.abs(gravityChangeSecondsPerDay(gravityAt(45), gravity)).toFixed(0)} s a day here.
            </p>
          )}
          <Select
            label="Time zone"
            description="Days and hours are the workshop’s"
            searchable
            data={[...new Set(['UTC', form.values.timeZone, ...Intl.supportedValuesOf('timeZone')])]}
            {...form.getInputProps('timeZone')}
          />
          <NativeSelect label="Caliper unit" data={['mm', 'thou']} {...form.getInputProps('lengthUnit')} />
          {number('pickupPpm', 'Sound card fast by', 'ppm')}
          <OwnClockField />
        </Fieldset>
        <Fieldset legend="Papers and money">
          <p className="quiet">What stands on tags, receipts and estimates.</p>
          <TextInput
            label="Shop’s address for phones"
            description="Such as http://bench.local:4173; the code on a job tag opens it"
            {...form.getInputProps('shopAddress')}
          />
          <TextInput label="Telephone" {...form.getInputProps('phone')} />
          <div className={styles.pair}>
            <TextInput label="Currency" {...form.getInputProps('currency')} />
            <TextInput label="Tax" rightSection="%" {...form.getInputProps('taxPercent')} />
            <TextInput label="Deposit" rightSection="%" {...form.getInputProps('depositPercent')} />
          </div>
        </Fieldset>
        <Fieldset legend="Beat">
          <p className="quiet">What counts as even, and what is proposed first when it is not.</p>
          <NativeSelect
            label="This workshop goes by"
            data={[
              { value: 'split', label: 'the split, points from 50/50' },
              { value: 'milliseconds', label: 'milliseconds out' },
            ]}
            {...form.getInputProps('beat.by')}
          />
          <div className={styles.pair}>
            {number('beat.finePoints', 'Even within', 'points')}
            {number('beat.acceptablePoints', 'Acceptable within', 'points')}
            {number('beat.heardPoints', 'Plainly heard from', 'points')}
            {number('beat.limitMs', 'Limit', 'ms')}
          </div>
          <NativeSelect
            label="First cure"
            data={[
              { value: 'size', label: 'pack for small errors, bend for large ones' },
              { value: 'pack', label: 'pack or tilt the case' },
              { value: 'crutch', label: 'set it by the crutch, the case plumb' },
              { value: 'adjuster', label: 'adjuster or friction crutch where there is one' },
            ]}
            {...form.getInputProps('beatSchool')}
          />
          {number('packUpToMs', 'Pack the case up to', 'ms')}
          <NativeSelect
            label="At the owner’s"
            data={[
              { value: 'level', label: 'the case level first, and the beat set there' },
              { value: 'as-it-stands', label: 'the beat set to its footing as it is' },
            ]}
            {...form.getInputProps('footingSchool')}
          />
        </Fieldset>
        <Fieldset legend="Bushing">
          <p className="quiet">When a hole is bushed, and the sizes that its plan gives.</p>
          <NativeSelect
            label="Bush when"
            data={[
              { value: 'two-or-depth', label: 'any two schools agree, or the depth alone' },
              { value: 'play', label: 'the play is exceeded' },
              { value: 'oval', label: 'the ovalness is exceeded' },
              { value: 'depth', label: 'the depth is exceeded' },
            ]}
            {...form.getInputProps('bushing.rule')}
          />
          <div className={styles.pair}>
            {number('bushing.playPercent', 'Play above', '%')}
            {number('bushing.finePlayPercent', 'Escape and pallets', '%')}
            {number('bushing.ovalPercent', 'Oval above', '%')}
            {number('bushing.ovalMm', 'or above', 'mm')}
            {number('bushing.depthPercent', 'Depth above', '%')}
            {number('bushing.leavePlayPercent', 'Play to leave', '%')}
            {number('bushing.leaveFinePlayPercent', 'Escape and pallets', '%')}
            {number('bushing.leavePlayAtLeastMm', 'at least', 'mm')}
            {number('bushing.pressFitMm', 'Press fit', 'mm')}
            {number('bushing.wallMm', 'Least wall', 'mm')}
            {number('bushing.cleanUpMm', 'Cutter beyond slot', 'mm')}
            {number('bushing.drillUnderMm', 'Drill under pivot', 'mm')}
            {number('markerReachMm', 'Marker, middle point to outer', 'mm')}
            {number('pivotLeastPercent', 'Least pivot', '%')}
          </div>
          <NativeSelect
            label="Bushing"
            data={[
              { value: 'hand', label: 'filed back and cut by hand' },
              { value: 'jig', label: 'centred and cut in a jig' },
            ]}
            {...form.getInputProps('bushingMethod')}
          />
          <NativeSelect
            label="Scored pivots"
            data={[
              { value: 'burnish', label: 'pivot file and burnisher' },
              { value: 'paste', label: 'a ladder of papers, then paste' },
            ]}
            {...form.getInputProps('pivotSchool')}
          />
        </Fieldset>
        <Fieldset legend="Rate, trial and oil">
          <p className="quiet">
            When a turn of the nut is proposed, how long a clock is tried, and when it is due again.
          </p>
          <div className={styles.pair}>
            {number('rateToleranceSecondsPerDay', 'Rate within', 's/day')}
            {number('rateGoalSecondsPerDay', 'Worth waiting for ±', 's/day')}
            {number('trialDays', 'Trial', 'days')}
            {number('trialDaysLong', 'Trial, chiming or complicated', 'days')}
            {number('openFrom', 'At the bench from', 'h')}
            {number('openUntil', 'until', 'h')}
            {number('guaranteeMonths', 'Guarantee', 'months')}
          </div>
          <p className="quiet">Readings and answers are asked for within these hours.</p>
          <NativeSelect
            label="Oil"
            data={Object.entries(OIL_SCHOOLS).map(([value, s]) => ({ value, label: s.title }))}
            {...form.getInputProps('oilSchool')}
          />
          <Switch
            mt="md"
            label="Sound when the pedal is heard"
            {...form.getInputProps('pedalSound', { type: 'checkbox' })}
          />
        </Fieldset>
        <Fieldset legend="Keeping">
          <p className="quiet">What is kept, and for how long.</p>
          <div className={styles.pair}>
            {number('backupDays', 'Daily backups kept', 'days')}
            {number('backupWeeks', 'Weekly ones', 'weeks')}
          </div>
          <Switch
            mt="md"
            label="Photos keep what the camera wrote into them"
            description="The place where it was taken, the camera, the time. Without this only the picture is kept."
            {...form.getInputProps('keepPhotoData', { type: 'checkbox' })}
          />
        </Fieldset>
      </div>
      <Button type="submit" my="md" disabled={!dirty} loading={change.isPending}>
        Keep the settings
      </Button>
    </form>
  )
}

function People() {
  const { data: people } = usePeople()
  const change = useChange('people')
  const [name, setName] = useState('')
  const [initials, setInitials] = useState('')
  const put = (person: Person) => change.mutate({ method: 'PUT', path: `/people/${person.id}`, body: person })
  return (
    <Fieldset legend="People of the workshop">
      <Table>
        <Table.Tbody>
          {people?.map((p) => (
            <Table.Tr key={p.id}>
              <Table.Td>{p.name}</Table.Td>
              <Table.Td>{p.initials}</Table.Td>
              <Table.Td>
                <Switch
                  aria-label={`${p.name} works here`}
                  checked={p.active}
                  onChange={(e) => put({ ...p, active: e.currentTarget.checked })}
                />
              </Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
      <form
        onSubmit={(e) => {
          e.preventDefault()
          put({ id: uuid(), name: name.trim(), initials: initials.trim(), active: true, version: 0 })
          setName('')
          setInitials('')
        }}
      >
        <Group align="end" mt="sm">
          <TextInput
            label="Name"
            required
            maxLength={80}
            value={name}
            onChange={(e) => setName(e.currentTarget.value)}
          />
          <TextInput
            label="Initials"
            required
            maxLength={6}
            w="6rem"
            value={initials}
            onChange={(e) => setInitials(e.currentTarget.value)}
          />
          <Button type="submit" variant="default">
            Add
          </Button>
        </Group>
      </form>
    </Fieldset>
  )
}

function OwnTables() {
  return (
    <Fieldset legend="This workshop’s own tables">
      <ul className={styles.tables}>
        <li>
          <Link to="/tables/prices">Prices, and the choices laid side by side</Link>
        </li>
        <li>
          <Link to="/tables/baths">Baths and what follows them</Link>
        </li>
        <li>
          <Link to="/tables/trouble">Causes of trouble, and the checks that tell</Link>
        </li>
      </ul>
    </Fieldset>
  )
}

function PedalTeaching() {
  const [key, setKey] = useState(pedalKey)
  const [waiting, setWaiting] = useState(false)
  useEffect(() => {
    if (!waiting) return
    const learn = (event: KeyboardEvent) => {
      event.preventDefault()
      event.stopPropagation()
      if (['Escape', 'Tab', 'Shift', 'Control', 'Alt', 'Meta'].includes(event.key)) {
        setWaiting(false)
        return
      }
      teachPedalKey(event.key)
      setKey(event.key)
      setWaiting(false)
    }
    window.addEventListener('keydown', learn, true)
    return () => window.removeEventListener('keydown', learn, true)
  }, [waiting])
  return (
    <Fieldset legend="The pedal of this bench">
      <p>
        Page Down always works, and so does Space while nothing is focused. A pedal that sends another key is taught
        here.
      </p>
      <Group mt="sm">
        <Button variant="default" onClick={() => setWaiting(true)}>
          {waiting ? 'Press the pedal now…' : 'Teach it your pedal'}
        </Button>
        <span role="status">{key === '' ? 'None taught.' : `It sends “${key}”.`}</span>
        {key !== '' && (
          <Button
            variant="subtle"
            onClick={() => {
              teachPedalKey('')
              setKey('')
            }}
          >
            Forget it
          </Button>
        )}
      </Group>
    </Fieldset>
  )
}
