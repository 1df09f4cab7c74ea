import { newEvent, type NowMark } from '@treadle/contract'
import type { Owed } from '@treadle/core'
import { ActionIcon, Menu } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { IconCheck } from '@tabler/icons-react'
import { v7 as uuid } from 'uuid'
import { type Change, sayNotKept, useChange, useSettings } from '../data/queries.ts'
import styles from './Bench.module.css'
import { laterTimes, mayTick } from './nowWords.ts'

/** Done, later, or not needed; what was said can be taken back at once. */
export function NowMenu({ jobId, clock, owed, at }: { jobId: string; clock: string; owed: Owed; at: Date }) {
  const change = useChange()
  const { data: settings } = useSettings()
  const path = `/jobs/${jobId}/now`
  const say = (state: NowMark['state'], untilS: number | null, said: string) => {
    const { kind, subject, dueS } = owed
    const body: NowMark = { kind, subject, state, dueS, untilS }
    const undo: Change = { method: 'DELETE', path: `${path}/${kind}?subject=${encodeURIComponent(subject)}` }
    change.mutate(
      { method: 'PUT', path, body },
      {
        onError: sayNotKept,
        onSuccess: () =>
          notifications.show({
            id: `${jobId}${kind}${subject}`,
            message: (
              <>
                {said}: {owed.title}.{' '}
                <button type="button" className={styles.undo} onClick={() => change.mutate(undo)}>
                  Undo
                </button>
              </>
            ),
          }),
      },
    )
  }
  const done = () => {
    // Winding is an event of the rate book, so ticking it off writes one; the list then reckons the next.
    if (owed.kind !== 'wind') {
      say('done', null, 'Done')
      return
    }
    const id = uuid()
    const row = `/jobs/${jobId}/events/${id}`
    const body = newEvent(id, 'winding', new Date().toISOString())
    change.mutate(
      { method: 'PUT', path: row, body },
      { onError: sayNotKept, onSuccess: () => notifications.show({ message: `Wound: ${clock}.` }) },
    )
  }
  return (
    <Menu position="bottom-end">
      <Menu.Target>
        <ActionIcon
          variant="subtle"
          size="xl"
          className={styles.menu}
          aria-label={`${owed.title}, ${clock}: done, later, not needed`}
        >
          <IconCheck size={20} />
        </ActionIcon>
      </Menu.Target>
      <Menu.Dropdown>
        {mayTick(owed) && <Menu.Item onClick={done}>Done</Menu.Item>}
        {laterTimes(at, settings?.timeZone ?? 'UTC').map(({ title, untilS }) => (
          <Menu.Item key={title} onClick={() => say('later', untilS, 'Put off')}>
            Later: {title}
          </Menu.Item>
        ))}
        <Menu.Item onClick={() => say('not-needed', null, 'Not needed')}>Not needed</Menu.Item>
      </Menu.Dropdown>
    </Menu>
  )
}
