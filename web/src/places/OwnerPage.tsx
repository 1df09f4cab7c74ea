import { OwnerChange, type OwnerListed } from '@treadle/contract'
import { Button, TextInput } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useMemo } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { sayNotKept, useChange, useOwner } from '../data/queries.ts'
import { keepOver, meetConflict } from '../parts/conflict.tsx'
import { wordsOf } from '../parts/fieldWords.ts'
import { Loaded } from '../parts/Loading.tsx'
import { useRowForm } from '../parts/useRowForm.ts'
import { ChooseOwner } from './ChooseOwner.tsx'
import styles from './Clocks.module.css'

const WORDS = wordsOf(OwnerChange)
const SCHEMA = OwnerChange.omit(['version'])
type Known = Omit<OwnerChange, 'version'>

/** An owner: how to reach them, their clocks, and the same one met twice in the book made one. */
export function OwnerPage() {
  const { id = '' } = useParams()
  return <Loaded query={useOwner(id)}>{(listed) => <One key={listed.owner.id} listed={listed} />}</Loaded>
}

function One({ listed: { owner, clocks } }: { listed: OwnerListed }) {
  const change = useChange('owner', 'owners', 'clocks', 'clock', 'find')
  const known = useMemo<Known>(
    () => ({ name: owner.name, phone: owner.phone, address: owner.address }),
    [owner.name, owner.phone, owner.address],
  )
  const { form, base, dirty, forget } = useRowForm(known, `owner ${owner.id}`, SCHEMA)
  const send = (row: object, version: number) =>
    change.mutate(
      { method: 'PATCH', path: `/owners/${owner.id}`, body: { ...row, version } },
      {
        onSuccess: () => {
          forget()
          notifications.show({ message: 'Kept.', autoClose: 2000 })
        },
        onError: (error) => {
          const met = meetConflict(error, { words: WORDS, base, mine: row, send, takeTheirs: forget })
          if (!met) sayNotKept(error)
        },
      },
    )
  return (
    <>
      <h1>{owner.name}</h1>
      <div className={styles.history}>
        <section>
          <form
            noValidate
            onSubmit={form.onSubmit((mine) => keepOver({ words: WORDS, base, mine, send, takeTheirs: forget }, owner))}
          >
            <TextInput label="Owner" {...form.getInputProps('name')} />
            <TextInput label="Telephone" mt="sm" {...form.getInputProps('phone')} />
            <TextInput label="Address" mt="sm" {...form.getInputProps('address')} />
            <Button type="submit" mt="sm" disabled={!dirty}>
              Keep this
            </Button>
          </form>
          <SameAs owner={owner} />
        </section>
        <section>
          <h2>Clocks</h2>
          {clocks.length === 0 && <p className="quiet">None is known.</p>}
          <ol>
            {clocks.map((c) => (
              <li key={c.id}>
                <Link to={`/clocks/${c.id}`}>{c.name}</Link>
              </li>
            ))}
          </ol>
        </section>
      </div>
    </>
  )
}

/** One owner who is in the book twice becomes one; what is known of one only is kept. */
function SameAs({ owner }: { owner: OwnerListed['owner'] }) {
  const navigate = useNavigate()
  const change = useChange<OwnerListed>('owner', 'owners', 'clocks', 'clock', 'find')
  const merge = (into: OwnerListed['owner']) =>
    change.mutate(
      { method: 'POST', path: `/owners/${owner.id}/merge`, body: { version: owner.version, into: into.id } },
      {
        onError: sayNotKept,
        onSuccess: () => {
          notifications.show({ message: `${owner.name} and ${into.name} are one owner now.` })
          void navigate(`/owners/${into.id}`, { replace: true })
        },
      },
    )
  return (
    <>
      <h2 style={{ marginTop: '1.5rem' }}>The same as somebody else</h2>
      <p>Their clocks pass to the other, and what only this entry knows is kept there. The journal remembers both.</p>
      <ChooseOwner label="It is the same person as" except={owner.id} onChoose={merge} say="Make them one" />
    </>
  )
}
