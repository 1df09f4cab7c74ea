import { POWER_TITLES, type Train } from '@treadle/contract'
import { POWERS, TRAIN_NAMES } from '@treadle/core'
import { Checkbox, Group, NativeSelect } from '@mantine/core'

/** Which trains a clock has, and what drives each; what is known of a spring stays with its train. */
export function TrainPowers({ trains, onChange }: { trains: Train[]; onChange: (trains: Train[]) => void }) {
  const put = (name: Train['train'], train: Train | null) =>
    onChange(TRAIN_NAMES.flatMap((n) => (n === name ? (train ? [train] : []) : trains.filter((t) => t.train === n))))
  return (
    <div role="group" aria-label="What drives each train">
      {TRAIN_NAMES.map((name) => {
        const has = trains.find((t) => t.train === name)
        return (
          <Group key={name} gap="sm" my={6}>
            <Checkbox
              label={`${name[0]?.toUpperCase()}${name.slice(1)} train`}
              checked={has !== undefined}
              onChange={(e) => put(name, e.currentTarget.checked ? { train: name, power: 'spring' } : null)}
              w="8.5rem"
            />
            {has && (
              <NativeSelect
                aria-label={`Power of the ${name} train`}
                size="sm"
                value={has.power}
                onChange={(e) => put(name, { ...has, power: e.currentTarget.value as Train['power'] })}
                data={POWERS.map((p) => ({ value: p, label: POWER_TITLES[p] }))}
              />
            )}
          </Group>
        )
      })}
    </div>
  )
}
