/**
 * What can be taken back, by the job and surface where the press was made: a hold of the foot never takes back what was
 * done to another clock.
 */
export class TakeBacks {
  readonly #made = new Map<string, (() => void)[]>()

  /** @param where - the address of the surface, without what stands after it */
  add(where: string, undo: () => void): void {
    this.#made.set(where, [...(this.#made.get(where) ?? []), undo])
  }

  /** What takes back the last press made there, which is then forgotten; none where nothing is left. */
  last(where: string): (() => void) | undefined {
    return this.#made.get(where)?.pop()
  }
}
