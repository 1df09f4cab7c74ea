import { useState, type ReactNode } from 'react'

/** What is folded away until it is asked for, and only then made: a page of many fields stays quick under the hand. */
export function Fold({ title, children }: { title: ReactNode; children: ReactNode }) {
  const [open, setOpen] = useState(false)
  return (
    <details onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary>{title}</summary>
      {open && children}
    </details>
  )
}
