const NAME = 'treadle-at-the-bench'
const ID = 'treadle-at-the-bench-id'

/** Who is at this bench: kept on the device, since each bench has its own. */
export function benchName(): string {
  return localStorage.getItem(NAME) ?? ''
}

/** As the workshop knows them; empty on a device that has only a name from before. */
export function benchId(): string {
  return localStorage.getItem(ID) ?? ''
}

export function setBench({ id, name }: { id: string; name: string }): void {
  localStorage.setItem(NAME, name)
  localStorage.setItem(ID, id)
  window.dispatchEvent(new Event('treadle-bench'))
}
