import type { ArchiveProgress } from '@treadle/contract'

/** How far the reading of an archive has come, told as it goes; and whether it is to stop. */
export class Progress {
  readonly #tell: (progress: ArchiveProgress) => void
  readonly signal: AbortSignal
  #now: ArchiveProgress = { step: 'read', done: 0, of: 0 }

  constructor(tell: (progress: ArchiveProgress) => void, signal: AbortSignal) {
    this.#tell = tell
    this.signal = signal
  }

  begin(step: ArchiveProgress['step'], of: number): void {
    this.#now = { step, done: 0, of }
    this.#tell(this.#now)
  }

  /** @throws whatever the signal was stopped with */
  by(more: number): void {
    this.signal.throwIfAborted()
    this.#now = { ...this.#now, done: this.#now.done + more }
    this.#tell(this.#now)
  }
}
