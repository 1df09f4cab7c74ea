import { notifications } from '@mantine/notifications'
import { useEffect, useRef } from 'react'
import { useRunning } from '../../data/queries.ts'
import { chirp } from '../../pedal/chirp.ts'

/** Asks once whether the browser may call out; without its leave the page calls by itself. */
export async function callsAllowed(): Promise<boolean> {
  if (!('Notification' in window)) return false
  if (Notification.permission === 'default') await Notification.requestPermission()
  return Notification.permission === 'granted'
}

const MOST_DELAY_MS = 2_000_000_000

/** Calls out when a bath ends, on whatever page one is: by sound, on the page, and through the browser where it may. */
export function useTimerCalls(): void {
  const { data } = useRunning()
  const called = useRef(new Set<string>())
  useEffect(() => {
    const waiting = (data ?? [])
      .filter((bath) => !called.current.has(bath.id))
      .map((bath) =>
        window.setTimeout(
          () => {
            called.current.add(bath.id)
            const said = `${bath.clock}: ${bath.title}`
            chirp('call')
            notifications.show({
              id: bath.id,
              title: 'Take it out',
              message: said,
              color: 'red',
              autoClose: false,
            })
            if ('Notification' in window && Notification.permission === 'granted')
              new Notification('Take it out', { body: said, tag: bath.id })
          },
          Math.min(MOST_DELAY_MS, Math.max(0, Date.parse(bath.endsAt) - Date.now())),
        ),
      )
    return () => waiting.forEach((timer) => window.clearTimeout(timer))
  }, [data])
}
