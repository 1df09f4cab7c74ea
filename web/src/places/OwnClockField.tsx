import { SECONDS_PER_PPM } from '@treadle/core'
import { Button, Group } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { request } from '../data/api.ts'
import {
  forgetOwnClock,
  keepOwnClock,
  startComparing,
  stopComparing,
  useComparing,
  useOwnClock,
} from '../hear/ownClockHost.ts'
import { KnownClock } from './KnownClock.tsx'
import { whenShort } from '../parts/say.ts'

interface ComputerClock {
  synchronised: boolean | null
}

/** So well a comparison should be known before it is kept, ppm: half a second a day. */
const WORTH_KEEPING = 6

/** This device's sound card against the computer's clock: compared in the background, kept for this device. */
export function OwnClockField() {
  const comparing = useComparing()
  const kept = useOwnClock()
  const { data: computer } = useQuery({
    queryKey: ['computer-clock'],
    queryFn: () => request<ComputerClock>('GET', '/computer-clock'),
  })
  const { told } = comparing
  return (
    <div>
      <p>
        {kept
          ? `This device’s sound card runs ${fast(kept.ppm)}, ± ${kept.standardError.toFixed(1)} ppm (± ${(SECONDS_PER_PPM * kept.standardError).toFixed(1)} s a day), compared ${whenShort(kept.at)}. It goes before the figure above.`
          : 'This device’s sound card has not been compared with its clock: it may be off by several seconds a day.'}
      </p>
      {comparing.on && (
        <p role="status">
          {told
            ? `After ${Math.round(comparing.seconds)} s: ${fast(told.ppm)}, ± ${told.standardError.toFixed(1)} ppm, which is ± ${(SECONDS_PER_PPM * told.standardError).toFixed(1)} s a day. The longer the better; other pages may be used meanwhile.`
            : `Comparing, ${Math.round(comparing.seconds)} s. It says something after a minute.`}
        </p>
      )}
      {comparing.sentence !== '' && <p role="alert">{comparing.sentence}</p>}
      {computer && (
        <p className="quiet">
          {computer.synchronised === true
            ? 'The workshop’s computer keeps its clock by network time.'
            : computer.synchronised === false
              ? 'The workshop’s computer does not keep its clock by network time now: what is compared is only as good as that clock.'
              : 'Whether the workshop’s computer keeps its clock by network time can’t be asked here.'}
        </p>
      )}
      <Group>
        <Button variant="default" onClick={comparing.on ? () => stopComparing() : startComparing}>
          {comparing.on ? 'Stop comparing' : 'Compare with the computer’s clock'}
        </Button>
        {told && (
          <Button
            variant={told.standardError <= WORTH_KEEPING ? 'filled' : 'default'}
            onClick={() => {
              keepOwnClock(told)
              stopComparing()
            }}
          >
            Keep it for this device
          </Button>
        )}
        {kept && !comparing.on && (
          <Button variant="subtle" onClick={forgetOwnClock}>
            Forget it
          </Button>
        )}
      </Group>
      <KnownClock />
    </div>
  )
}

function fast(ppm: number): string {
  return `${Math.abs(ppm).toFixed(1)} ppm ${ppm >= 0 ? 'fast' : 'slow'}`
}
