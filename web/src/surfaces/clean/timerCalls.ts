import { notifications } from '@mantine/notifications'
import { useEffect, useRef } from 'react'
import { useBench } from '../../app/queries.ts'
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
  const { data } = useBench()
  const called = useRef(new Set<string>())
  useEffect(() => {
    const baths = (data?.tags ?? []).flatMap(({ clock, owed }) =>
      owed.filter((o) => o.kind === 'bath' && o.dueS !== null).map((o) => ({ ...o, clock: clock.name })),
    )
    const waiting = baths
      .filter((b) => !called.current.has(b.subject))
      .map((bath) =>
        window.setTimeout(
          () => {
            called.current.add(bath.subject)
            const said = `${bath.clock}: ${bath.title.replace(/^Take it out: /, '')}`
            chirp('call')
            notifications.show({
              id: bath.subject,
              title: 'Take it out',
              message: said,
              color: 'red',
              autoClose: false,
            })
            if ('Notification' in window && Notification.permission === 'granted')
              new Notification('Take it out', { body: said, tag: bath.subject })
          },
          Math.min(MOST_DELAY_MS, Math.max(0, (bath.dueS ?? 0) * 1000 - Date.now())),
        ),
      )
    return () => waiting.forEach((timer) => window.clearTimeout(timer))
  }, [data])
}
