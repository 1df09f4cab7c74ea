/**
 * Goes from one figure to the next on the page, in its order; past the last to nowhere, so that the pedal is heard.
 * Says whether there was somewhere to go: inside a dialog or a form with one figure there is not.
 */
export function onward(from: HTMLElement): boolean {
  const room = from.closest<HTMLElement>('[role="dialog"], form') ?? document.getElementById('main')
  const figures = [...(room?.querySelectorAll<HTMLInputElement>('input[data-figure]:not(:disabled)') ?? [])].filter(
    (field) => field.checkVisibility(),
  )
  const next = figures[figures.findIndex((field) => field === from) + 1]
  if (next) next.focus()
  else if (from.closest('form')) return false
  else document.getElementById('main')?.focus({ preventScroll: true })
  return true
}
