import {
  CLOCK_KIND_TITLES,
  CLOCK_KINDS,
  EMPTY_PENDULUM,
  NewJob,
  PART_STATES,
  PLAIN_WORK,
  USUAL_THINGS,
  type ClockKind,
  type JobPage,
  type Owner,
} from '@treadle/contract'
import { Button, Checkbox, Fieldset, Group, NativeSelect, SegmentedControl, Textarea, TextInput } from '@mantine/core'
import type { UseFormReturnType } from '@mantine/form'
import { useDebouncedValue } from '@mantine/hooks'
import { useSessionValue } from '../parts/useSessionValue.ts'
import { useRowForm } from '../parts/useRowForm.ts'
import { useState } from 'react'
import { DayField } from '../parts/DayField.tsx'
import { Figure } from '../parts/Figure.tsx'
import { useNavigate } from 'react-router'
import { v7 as uuid } from 'uuid'
import { sentenceOf, useChange, useClocks, useOwners, type ClockListed } from '../data/queries.ts'
import { TrainPowers } from '../job/TrainPowers.tsx'
import { SeenBefore } from '../job/SeenBefore.tsx'
import { PhotoPicker, sendPhotos } from '../job/PhotoPicker.tsx'
import { dayToday } from '../parts/say.ts'
import styles from './TakeIn.module.css'

function blank(): NewJob {
  return {
    id: uuid(),
    owner: { id: uuid(), name: '', phone: '', address: '' },
    clock: {
      id: uuid(),
      name: '',
      kind: 'wall',
      marks: '',
      trains: [{ train: 'going', power: 'spring' }],
      pendulum: { ...EMPTY_PENDULUM },
      work: { ...PLAIN_WORK },
    },
    complaint: '',
    cameWith: [],
    promisedOn: '',
    standsAt: '',
    movedLately: 'unknown',
    lastServiced: null,
  }
}

/** Taking in a clock: whose it is, what it is, what its owner says, what came with it. */
export function TakeIn() {
  const [row, setRow] = useState(blank)
  const { form, forget } = useRowForm(row, 'take-in', NewJob)
  const [photos, setPhotos] = useState<File[]>([])
  // It outlives a reload with what was typed: the figures of a clock that is known are not typed over.
  const [knownId, setKnownId] = useSessionValue<string | null>('treadle-take-in-known', null)
  const known = knownId !== null
  const [ownerKnown, setOwnerKnown] = useSessionValue('treadle-take-in-owner-known', false)
  const change = useChange<JobPage>('clocks', 'clock', 'owners', 'owner', 'find')
  const navigate = useNavigate()

  const submit = form.onSubmit(
    (values) => {
      change.mutate(
        { method: 'POST', path: '/jobs', body: { ...values, promisedOn: values.promisedOn || null } },
        {
          onSuccess: () => {
            forget()
            setKnownId(null)
            setOwnerKnown(false)
            void sendPhotos(values.id, photos).then(() => navigate(`/jobs/${values.id}/arrive`))
          },
          onError: () => undefined, // it stands on the page, above what was typed
        },
      )
    },
    (errors) => form.getInputNode(Object.keys(errors)[0] ?? '')?.focus(),
  )
  const choose = ({ clock, owner }: ClockListed) => {
    const { ownerId: _, version: _v, ...rest } = clock
    const { id, name, phone, address } = owner
    form.setValues({ owner: { id, name, phone, address }, clock: rest })
    setKnownId(clock.id)
  }
  return (
    <form onSubmit={submit} className={styles.form} noValidate>
      <h1>Take in a clock</h1>
      <BeenHere onChoose={choose} />
      {knownId !== null && <SeenBefore clockId={knownId} />}
      <div className={styles.columns}>
        <div className={styles.stack}>
          <Fieldset legend="Whose it is" disabled={known}>
            <TextInput
              label="Owner"
              withAsterisk
              {...form.getInputProps('owner.name')}
              onChange={(e) => {
                // Another name is another person, until they are found among those that are known.
                if (ownerKnown) form.setFieldValue('owner', { ...form.values.owner, id: uuid() })
                setOwnerKnown(false)
                form.setFieldValue('owner.name', e.currentTarget.value)
              }}
            />
            {!known && !ownerKnown && (
              <KnownOwners
                name={form.values.owner.name}
                phone={form.values.owner.phone}
                onChoose={(owner) => {
                  form.setFieldValue('owner', owner)
                  setOwnerKnown(true)
                }}
              />
            )}
            <TextInput label="Telephone" {...form.getInputProps('owner.phone')} />
            <TextInput label="Address" {...form.getInputProps('owner.address')} />
          </Fieldset>
          <Fieldset legend="What is wrong">
            <Textarea
              label="In the owner’s words"
              withAsterisk
              autosize
              minRows={3}
              {...form.getInputProps('complaint')}
            />
            <AtHome form={form} />
            <DayField
              label="Promised for"
              description="Leave it open if you promised nothing"
              value={form.values.promisedOn ?? ''}
              error={form.errors.promisedOn ?? (isPast(form.values.promisedOn) && 'That day is over: is it meant so?')}
              onChange={(day) => form.setFieldValue('promisedOn', day)}
            />
          </Fieldset>
        </div>
        <Fieldset legend="What it is" disabled={known}>
          <TextInput
            label="What you call it"
            description="A name by which you know it on the bench"
            withAsterisk
            {...form.getInputProps('clock.name')}
          />
          <NativeSelect
            label="Kind"
            data={CLOCK_KINDS.map((k) => ({ value: k, label: CLOCK_KIND_TITLES[k] }))}
            {...form.getInputProps('clock.kind')}
          />
          <TrainPowers
            trains={form.values.clock.trains}
            onChange={(trains) => form.setFieldValue('clock.trains', trains)}
          />
          {form.errors['clock.trains'] !== undefined && <p className={styles.error}>{form.errors['clock.trains']}</p>}
          <TextInput
            label="Marks"
            description="Signature, numbers, scratched dates; as found"
            {...form.getInputProps('clock.marks')}
          />
        </Fieldset>
        <Fieldset legend="What came with it">
          <CameWith form={form} />
          <PhotoPicker files={photos} onChange={setPhotos} />
        </Fieldset>
      </div>
      {change.error && (
        <p role="alert" className={styles.error}>
          {sentenceOf(change.error)} What you typed is still here.
        </p>
      )}
      <Group>
        <Button type="submit" size="lg" loading={change.isPending}>
          Take it in
        </Button>
        {known && (
          <Button
            variant="default"
            size="lg"
            onClick={() => {
              forget()
              setRow(blank())
              setKnownId(null)
            }}
          >
            It is another clock
          </Button>
        )}
      </Group>
    </form>
  )
}

/** A day that is over by now cannot be promised for. */
function isPast(day: string | null | undefined): boolean {
  return !!day && day < dayToday()
}

/** Owners that are known by what is typed, so that nobody is written down twice. */
function KnownOwners({ name, phone, onChoose }: { name: string; phone: string; onChoose: (owner: Owner) => void }) {
  const words = name.trim().length >= 3 ? name.trim() : phone.trim().length >= 4 ? phone.trim() : ''
  const [asked] = useDebouncedValue(words, 200)
  const found = useOwners(asked)
  const list = asked === '' ? [] : (found.data ?? []).slice(0, 4)
  if (list.length === 0) return null
  return (
    <div role="group" aria-label="Known already">
      <span className="quiet">Known already:</span>
      {list.map(({ owner: { version: _, ...owner }, clocks }) => (
        <Button key={owner.id} variant="subtle" size="compact-md" onClick={() => onChoose(owner)}>
          {[owner.name, owner.phone, owner.address, clocks[0]?.name].filter(Boolean).join(', ')}
        </Button>
      ))}
    </div>
  )
}

type Form = Pick<UseFormReturnType<NewJob>, 'values' | 'setFieldValue' | 'errors'>

function BeenHere({ onChoose }: { onChoose: (listed: ClockListed) => void }) {
  const [words, setWords] = useState('')
  const [asked] = useDebouncedValue(words.trim(), 200)
  const found = useClocks(asked)
  return (
    <div className={styles.beenHere}>
      <TextInput
        label="Has it been here before?"
        description="Part of its name, its owner or its marks"
        value={words}
        onChange={(e) => setWords(e.currentTarget.value)}
      />
      {asked !== '' && (
        <ul>
          {found.data?.slice(0, 5).map((listed) => (
            <li key={listed.clock.id}>
              <Button
                variant="default"
                onClick={() => {
                  onChoose(listed)
                  setWords('')
                }}
              >
                {listed.clock.name}, {listed.owner.name}
              </Button>
            </li>
          ))}
          {found.data?.length === 0 && <li className="quiet">Not under that name; fill it in below.</li>}
        </ul>
      )}
    </div>
  )
}

function AtHome({ form }: { form: UseFormReturnType<NewJob> }) {
  return (
    <>
      <TextInput
        label="Where it stands at home"
        description="Wall, shelf, floor; sun, radiator, draught"
        mt="sm"
        {...form.getInputProps('standsAt')}
      />
      <Group mt="sm" gap="sm">
        <span id="moved">Moved lately?</span>
        <SegmentedControl
          aria-labelledby="moved"
          data={[
            { value: 'yes', label: 'Yes' },
            { value: 'no', label: 'No' },
            { value: 'unknown', label: 'Don’t know' },
          ]}
          {...form.getInputProps('movedLately')}
        />
      </Group>
      <Figure
        label="Last serviced, about which year"
        mt="sm"
        of={[NewJob, 'lastServiced']}
        value={form.values.lastServiced ?? null}
        error={form.errors.lastServiced}
        onKeep={(v) => form.setFieldValue('lastServiced', v)}
        atOnce
      />
    </>
  )
}

/** The things that came, one by one: here, damaged or missing; a weight with where it hung and what it weighs. */
function CameWith({ form }: { form: Form }) {
  const [other, setOther] = useState('')
  const { cameWith, clock } = form.values
  const names = [...new Set([...USUAL_THINGS[clock.kind as ClockKind], ...cameWith.map((c) => c.name)])]
  const set = (name: string, part: Partial<NewJob['cameWith'][number]> | null) => {
    const known = cameWith.find((c) => c.name === name) ?? { name, state: 'present' as const, returned: false }
    const rest = cameWith.filter((c) => c.name !== name)
    form.setFieldValue(
      'cameWith',
      part === null
        ? rest
        : names.flatMap((n) => (n === name ? [{ ...known, ...part }] : rest.filter((c) => c.name === n))),
    )
  }
  const name = other.trim()
  const isListed = names.includes(name)
  const add = () => {
    if (name === '' || isListed) return
    form.setFieldValue('cameWith', [...cameWith, { name, state: 'present' as const, returned: false }])
    setOther('')
  }
  return (
    <>
      {names.map((name) => {
        const thing = cameWith.find((c) => c.name === name)
        return (
          <div key={name} className={styles.thing}>
            <Checkbox
              label={name}
              checked={thing !== undefined}
              onChange={(e) => set(name, e.currentTarget.checked ? {} : null)}
            />
            {thing && (
              <NativeSelect
                aria-label={`State of ${name}`}
                size="sm"
                value={thing.state}
                onChange={(e) => set(name, { state: e.currentTarget.value as 'present' })}
                data={[...PART_STATES]}
              />
            )}
            {thing && /weight/.test(name) && (
              <>
                <TextInput
                  aria-label={`Where the ${name} hung`}
                  placeholder="hung left"
                  size="sm"
                  w="7rem"
                  value={thing.hung ?? ''}
                  onChange={(e) => set(name, { hung: e.currentTarget.value })}
                />
                <Figure
                  quiet
                  label={`Mass of the ${name}`}
                  placeholder="mass"
                  unit="kg"
                  size="sm"
                  w="6rem"
                  min={0.001}
                  value={thing.massKg ?? null}
                  onKeep={(massKg) => set(name, { massKg })}
                  atOnce
                />
              </>
            )}
          </div>
        )
      })}
      <Group align="end" gap="xs">
        <TextInput
          label="Something else"
          value={other}
          error={isListed && 'It is on the list already.'}
          onChange={(e) => setOther(e.currentTarget.value)}
          onKeyDown={(e) => {
            if (e.key === 'Enter') {
              e.preventDefault()
              add()
            }
          }}
        />
        <Button variant="default" disabled={name === '' || isListed} onClick={add}>
          Add
        </Button>
      </Group>
    </>
  )
}
