import { Settings } from '@treadle/contract'
import { Button, Fieldset, Select, TextInput } from '@mantine/core'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { v7 as uuid } from 'uuid'
import { setBench } from '../data/atTheBench.ts'
import { sentenceOf, useChange, useSettings } from '../data/queries.ts'
import { Figure } from '../parts/Figure.tsx'
import styles from './SettingsPage.module.css'

/** The first page of an empty workshop: who works here, where it stands, and where a phone finds it. */
export function FirstRun() {
  const { data: settings } = useSettings()
  return settings ? <Form settings={settings} /> : null
}

type Begun = Pick<Settings, 'workshop' | 'place' | 'timeZone' | 'shopAddress'> & { latitudeDeg: number | null }

function Form({ settings }: { settings: Settings }) {
  const navigate = useNavigate()
  const change = useChange('settings', 'people')
  const [names, setNames] = useState('')
  const [row, setRow] = useState<Begun>({
    workshop: settings.workshop === 'The workshop' ? '' : settings.workshop,
    place: settings.place,
    latitudeDeg: settings.latitudeDeg,
    timeZone: settings.timeZone,
    shopAddress: reachable() ? window.location.origin : settings.shopAddress,
  })
  const [wrong, setWrong] = useState<string | null>(null)
  const set = (part: Partial<typeof row>) => setRow((now) => ({ ...now, ...part }))
  const begin = async () => {
    const people = [...new Set(names.split(/[,;\n]/).map((n) => n.trim()))].filter((n) => n !== '')
    if (people.length === 0) {
      setWrong('Who works here: name at least one person')
      return
    }
    const body = {
      ...settings,
      ...row,
      workshop: row.workshop.trim() === '' ? settings.workshop : row.workshop.trim(),
      latitudeDeg: row.latitudeDeg ?? settings.latitudeDeg,
    }
    try {
      await Settings.validate(body, { strict: true })
      for (const [i, name] of people.entries()) {
        const person = { id: uuid(), version: 0, name: name.slice(0, 80), initials: initialsOf(name), active: true }
        await change.mutateAsync({ method: 'PUT', path: `/people/${person.id}`, body: person })
        if (i === 0) setBench(person)
      }
      await change.mutateAsync({ method: 'PUT', path: '/settings', body })
      void navigate('/', { replace: true })
    } catch (error) {
      setWrong(sentenceOf(error))
    }
  }
  return (
    <form
      noValidate
      style={{ maxWidth: '44rem' }}
      onSubmit={(e) => {
        e.preventDefault()
        void begin()
      }}
    >
      <h1>Welcome to the bench</h1>
      <p className={styles.lead}>Three things, so that what is written here bears a name, a place and an hour.</p>
      <Fieldset legend="Who works here">
        <TextInput
          label="Names"
          description="One, or several with commas between; the first is at this bench now"
          value={names}
          onChange={(e) => setNames(e.currentTarget.value)}
          withAsterisk
        />
      </Fieldset>
      <Fieldset legend="Where the workshop stands" mt="md">
        <TextInput
          label="Workshop"
          description="As it stands on cards and estimates"
          value={row.workshop}
          onChange={(e) => set({ workshop: e.currentTarget.value })}
        />
        <TextInput label="Place" mt="sm" value={row.place} onChange={(e) => set({ place: e.currentTarget.value })} />
        <Figure
          label="Latitude"
          description="For gravity: a clock set right at 45° gains 57 s a day at 60°"
          unit="°"
          mt="sm"
          of={[Settings, 'latitudeDeg']}
          value={row.latitudeDeg}
          onKeep={(latitudeDeg) => set({ latitudeDeg })}
          atOnce
        />
        <Select
          label="Time zone"
          mt="sm"
          searchable
          value={row.timeZone}
          onChange={(zone) => zone && set({ timeZone: zone })}
          data={[...new Set(['UTC', row.timeZone, ...Intl.supportedValuesOf('timeZone')])]}
        />
      </Fieldset>
      <Fieldset legend="For phones" mt="md">
        <TextInput
          label="Address at which a phone in the workshop finds this"
          description="Such as http://bench.local:4173; the code on a job’s tag opens it. It can be given later, under Settings."
          value={row.shopAddress}
          onChange={(e) => set({ shopAddress: e.currentTarget.value.trim() })}
        />
      </Fieldset>
      {wrong !== null && (
        <p role="alert" className={styles.wrong}>
          {wrong}
        </p>
      )}
      <Button type="submit" size="lg" my="md" loading={change.isPending}>
        Begin
      </Button>
    </form>
  )
}

/** Whether the address of this page is one that another device reaches as well. */
function reachable(): boolean {
  return !/^(localhost|127\.|\[::1\])/.test(window.location.hostname)
}

function initialsOf(name: string): string {
  return name
    .split(/\s+/)
    .map((word) => [...word][0] ?? '')
    .join('')
    .toUpperCase()
    .slice(0, 6)
}
