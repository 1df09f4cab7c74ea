import type { Found } from '@treadle/contract'
import { Combobox, TextInput, useCombobox } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { IconSearch } from '@tabler/icons-react'
import { useEffect, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { useFound } from '../data/queries.ts'
import { isField } from '../pedal/Pedal.tsx'
import styles from './Find.module.css'

const KINDS: Record<Found['kind'], string> = { job: 'Jobs', clock: 'Clocks', owner: 'Owners' }

/** Find as you type: an owner by name, telephone or address, a clock by its name or its marks, a job by its number. */
export function Find() {
  const [words, setWords] = useState('')
  const [asked] = useDebouncedValue(words.trim(), 120)
  const { data } = useFound(asked)
  const field = useRef<HTMLInputElement>(null)
  const navigate = useNavigate()
  const box = useCombobox({ onDropdownClose: () => box.resetSelectedOption() })
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== '/' || isField(event.target)) return
      event.preventDefault()
      field.current?.focus()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
  const found = asked === '' ? [] : (data ?? [])
  const open = (id: string) => {
    const [kind, of] = id.split(' ')
    box.closeDropdown()
    setWords('')
    field.current?.blur()
    const clock = found.find((f) => f.kind === 'clock' && f.id === of)
    void navigate(
      kind === 'job'
        ? `/jobs/${of}`
        : kind === 'clock'
          ? clock?.jobId
            ? `/jobs/${clock.jobId}`
            : `/clocks/${of}`
          : `/owners/${of}`,
    )
  }
  return (
    <Combobox store={box} onOptionSubmit={open} width={360} position="bottom-end">
      <Combobox.Target>
        <TextInput
          ref={field}
          type="search"
          aria-label="Find an owner, a clock, a mark or a job number"
          placeholder="Find"
          size="sm"
          className={styles.field}
          leftSection={<IconSearch size={18} />}
          value={words}
          onChange={(e) => {
            setWords(e.currentTarget.value)
            box.openDropdown()
            box.selectFirstOption()
          }}
          onFocus={() => words !== '' && box.openDropdown()}
          onBlur={() => box.closeDropdown()}
          onKeyDown={(e) => {
            // Enter opens the first hit also where none was marked yet.
            const [first] = found
            if (e.key !== 'Enter' || !first || box.getSelectedOptionIndex() >= 0) return
            e.preventDefault()
            open(`${first.kind} ${first.id}`)
          }}
        />
      </Combobox.Target>
      <Combobox.Dropdown hidden={asked === ''}>
        <Combobox.Options labelledBy={undefined} aria-label="Found">
          {found.length === 0 && (
            <Combobox.Empty>Nothing under that name, mark, number, telephone or address.</Combobox.Empty>
          )}
          {(['job', 'clock', 'owner'] as const).map((kind) => {
            const these = found.filter((f) => f.kind === kind)
            if (these.length === 0) return null
            return (
              <Combobox.Group key={kind} label={KINDS[kind]}>
                {these.map((f) => (
                  <Combobox.Option key={f.id} value={`${f.kind} ${f.id}`}>
                    <strong>{f.title}</strong>
                    <span className={styles.detail}>
                      {f.detail}
                      {f.open ? ', here now' : ''}
                    </span>
                  </Combobox.Option>
                ))}
              </Combobox.Group>
            )
          })}
        </Combobox.Options>
      </Combobox.Dropdown>
    </Combobox>
  )
}
