import { Button } from '@mantine/core'
import { flushSync } from 'react-dom'
import { DRAWER_FORM } from './DrawerForm.tsx'

/** Opens a row's form, and leads to it: on a phone it stands below what is seen. */
export function ChangeRow({ what, onEdit }: { what: string; onEdit: () => void }) {
  const lead = () => {
    flushSync(onEdit)
    document.querySelector<HTMLElement>(`#${DRAWER_FORM} :is(input, select, textarea)`)?.focus()
  }
  return (
    <Button variant="subtle" size="compact-md" onClick={lead} aria-label={`Change ${what}`}>
      Change
    </Button>
  )
}
