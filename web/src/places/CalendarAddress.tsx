import { Button, Fieldset, Group, TextInput } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useQuery } from '@tanstack/react-query'
import { CopyIt } from '../parts/CopyIt.tsx'
import { request } from '../data/api.ts'
import { sentenceOf, useChange, useSettings } from '../data/queries.ts'

/** The secret address at which a calendar follows what the workshop owes; changed, the old one is dead. */
export function CalendarAddress() {
  const { data: settings } = useSettings()
  const { data } = useQuery({ queryKey: ['calendar'], queryFn: () => request<{ secret: string }>('GET', '/calendar') })
  const change = useChange('calendar')
  const address = data ? `${settings?.shopAddress || window.location.origin}/api/calendar/${data.secret}/now.ics` : ''
  return (
    <Fieldset legend="Now, as a calendar">
      <p>
        Subscribe to this address in a calendar, and it follows what is owed. Who has the address can read it: change it
        when it has gone astray.
      </p>
      <TextInput
        aria-label="Address of the calendar"
        value={address}
        readOnly
        mt="sm"
        onFocus={(e) => e.currentTarget.select()}
      />
      <Group mt="sm">
        <CopyIt value={address} variant="default" />
        <Button
          variant="subtle"
          onClick={() =>
            change.mutate(
              { method: 'POST', path: '/calendar/renew', body: {} },
              {
                onSuccess: () => notifications.show({ message: 'The old address is dead; give out the new one.' }),
                onError: (error) =>
                  notifications.show({ color: 'red', title: 'Not changed', message: sentenceOf(error) }),
              },
            )
          }
        >
          Change the address
        </Button>
      </Group>
    </Fieldset>
  )
}
