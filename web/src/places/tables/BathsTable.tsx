import type { TableValues } from '@treadle/contract'
import { BATH_KINDS, type Bath } from '@treadle/core'
import { Button, Group, NativeSelect, Textarea } from '@mantine/core'
import { v7 as uuid } from 'uuid'
import { Cell, NumberCell } from './Cell.tsx'
import styles from './Tables.module.css'

type Values = TableValues<'baths'>

export function BathsTable({ values, onChange }: { values: Values; onChange: (values: Values) => void }) {
  const set = (key: string, part: Partial<Bath>) =>
    onChange({ baths: values.baths.map((b) => (b.key === key ? { ...b, ...part } : b)) })
  return (
    <>
      {values.baths.map((bath) => (
        <fieldset key={bath.key} className={styles.bath}>
          <legend>{bath.title}</legend>
          <Group align="end">
            <Cell
              label={`Name of ${bath.title}`}
              value={bath.title}
              onChange={(title) => set(bath.key, { title })}
              wide
            />
            <NativeSelect
              label="Kind"
              size="sm"
              value={bath.kind}
              data={[...BATH_KINDS]}
              onChange={(e) => set(bath.key, { kind: e.currentTarget.value as Bath['kind'] })}
            />
            <NumberCell
              label={`Minutes of ${bath.title}`}
              value={bath.minutes}
              onChange={(minutes) => set(bath.key, { minutes })}
            />
            <span className={styles.unit}>minutes</span>
          </Group>
          {bath.then.map((step, i) => (
            <Group key={i} mt="xs">
              <span>then at once</span>
              <Cell
                label={`Then, step ${i + 1} of ${bath.title}`}
                value={step.title}
                wide
                onChange={(title) => set(bath.key, { then: bath.then.map((t, n) => (n === i ? { ...t, title } : t)) })}
              />
              <NumberCell
                label={`Minutes of step ${i + 1} of ${bath.title}`}
                value={step.minutes}
                onChange={(minutes) =>
                  set(bath.key, { then: bath.then.map((t, n) => (n === i ? { ...t, minutes } : t)) })
                }
              />
              <Button
                variant="subtle"
                size="compact-md"
                aria-label={`Take out step ${i + 1} of ${bath.title}`}
                onClick={() => set(bath.key, { then: bath.then.filter((_, n) => n !== i) })}
              >
                Take out
              </Button>
            </Group>
          ))}
          <Textarea
            label="Caution"
            autosize
            value={bath.caution}
            mt="xs"
            maw="46rem"
            onChange={(e) => set(bath.key, { caution: e.currentTarget.value })}
          />
          <Group mt="xs">
            <Button
              variant="subtle"
              size="sm"
              disabled={bath.then.length >= 5}
              onClick={() => set(bath.key, { then: [...bath.then, { title: 'Rinse', minutes: 5 }] })}
            >
              One more step after it
            </Button>
            <Button
              variant="subtle"
              size="sm"
              disabled={values.baths.length < 2}
              onClick={() => onChange({ baths: values.baths.filter((b) => b.key !== bath.key) })}
            >
              Take out this bath
            </Button>
          </Group>
        </fieldset>
      ))}
      <Button
        variant="default"
        onClick={() =>
          onChange({
            baths: [
              ...values.baths,
              { key: uuid(), title: 'Another bath', kind: 'non-ammoniated', minutes: 10, then: [], caution: '' },
            ],
          })
        }
      >
        One more bath
      </Button>
    </>
  )
}
