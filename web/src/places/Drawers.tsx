import type { Settings } from '@treadle/contract'
import { Button, Group, NumberInput } from '@mantine/core'
import { useState } from 'react'
import { useChange, useSettings } from '../app/queries.ts'
import { Loaded } from '../parts/Loading.tsx'
import styles from './Drawers.module.css'

/** What the shop has to work with. The cutters, by their measured size: the bushing plan picks among them. */
export function Drawers() {
  return <Loaded query={useSettings()}>{(settings) => <Cutters settings={settings} />}</Loaded>
}

function Cutters({ settings }: { settings: Settings }) {
  const change = useChange('settings')
  const [size, setSize] = useState<number | string>('')
  const [wrong, setWrong] = useState<string | null>(null)
  const sorted = [...settings.cuttersMm].sort((a, b) => a - b)
  const put = (cuttersMm: number[]) =>
    change.mutate({ method: 'PUT', path: '/settings', body: { ...settings, cuttersMm } })
  const add = () => {
    const value = Number(size)
    if (size === '' || !(value >= 0.3 && value <= 30)) setWrong('Size must be from 0.3 to 30 mm, as measured.')
    else if (sorted.includes(value)) setWrong(`There is a cutter of ${value} mm already.`)
    else {
      put([...sorted, value].sort((a, b) => a - b))
      setSize('')
      setWrong(null)
    }
  }
  return (
    <>
      <h1>Drawers</h1>
      <h2 className={styles.title}>Cutters</h2>
      <p className="quiet">
        By their measured size, not by what is stamped on them. The bushing plan takes the smallest that cleans up the
        hole and leaves the wall.
      </p>
      <ul className={styles.cutters}>
        {sorted.map((mm) => (
          <li key={mm}>
            <svg viewBox="0 0 70 70" width="70" height="70" aria-hidden="true">
              <circle
                cx="35"
                cy="35"
                r={Math.min(33, 6 * mm)}
                fill="none"
                stroke="var(--brass-line)"
                strokeWidth="2"
                strokeDasharray="6 4"
              />
            </svg>
            <b>{mm.toFixed(2)} mm</b>
            <Button
              variant="subtle"
              size="compact-md"
              aria-label={`Take the ${mm} mm cutter out of the drawer`}
              onClick={() => put(sorted.filter((c) => c !== mm))}
            >
              take out
            </Button>
          </li>
        ))}
        {sorted.length === 0 && (
          <li className="quiet">No cutter is in the drawer: put one in, and plans can name it.</li>
        )}
      </ul>
      <form
        onSubmit={(e) => {
          e.preventDefault()
          add()
        }}
      >
        <Group align="end">
          <NumberInput
            label="Put in a cutter, mm"
            hideControls
            w="12rem"
            value={size}
            error={wrong}
            onChange={(v) => {
              setSize(v)
              setWrong(null)
            }}
          />
          <Button type="submit" variant="default">
            Put it in
          </Button>
        </Group>
      </form>
    </>
  )
}
