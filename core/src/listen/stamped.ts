/** What comes of stamped blocks: sound, and stretches of it that never came. */
export interface Receiver {
  sound(samples: Float32Array): void
  lost(seconds: number): void
}

interface Block {
  samples: Float32Array
  stampS: number
}

/** A stamp may be so much late without anything having been lost. */
const JITTER_S = 0.005
/** So much sound is waited for before a stretch is called lost: a late stamp is followed by punctual ones sooner. */
const WAIT_S = 0.25
/** The punctual stamps of so long say where the sound's own time stands: two clocks drift apart slowly. */
const MEMORY_S = 2
/** What is lost at once is no longer than this: a computer that slept has not listened. */
const LONGEST_S = 60

/**
 * Puts a recorder's blocks end to end by their time stamps.
 *
 * A busy computer stamps blocks late, and lets blocks fall. Late stamps are followed by punctual ones and say nothing;
 * a block that fell leaves every later stamp later by its length. So sound is called lost only when no stamp of the
 * next quarter second goes back to the old time, and then by the least that these stamps are late. Filled in with
 * silence, it leaves later beats where they were, to within the stamps' jitter.
 */
export class StampedSound {
  readonly #sampleRate: number
  readonly #to: Receiver
  /** seconds of sound handed on, what was lost included */
  #atS = 0
  /** how far stamps stand ahead of the sound handed on, for the last blocks */
  #ahead: { atS: number; byS: number }[] = []
  #waiting: Block[] = []

  constructor(sampleRate: number, to: Receiver) {
    this.#sampleRate = sampleRate
    this.#to = to
  }

  /** @param stampS - seconds, of any beginning, at which the block's first sample was caught */
  push(samples: Float32Array, stampS: number): void {
    this.#waiting.push({ samples, stampS })
    while (this.#waiting.length > 0) {
      const lateS = this.#lateness()
      const least = Math.min(...lateS)
      if (least <= JITTER_S) this.#handOn(lateS.findIndex((late) => late <= JITTER_S) + 1)
      else if (this.#waitingS() >= WAIT_S) this.#lose(least)
      else return
    }
  }

  #waitingS(): number {
    return this.#waiting.reduce((sum, { samples }) => sum + samples.length / this.#sampleRate, 0)
  }

  /** Seconds by which each waiting block is late against the punctual ones before it. */
  #lateness(): number[] {
    const punctual = Math.min(...this.#ahead.map((a) => a.byS))
    let atS = this.#atS
    return this.#waiting.map(({ samples, stampS }) => {
      const late = this.#ahead.length === 0 ? 0 : stampS - atS - punctual
      atS += samples.length / this.#sampleRate
      return late
    })
  }

  #handOn(blocks: number): void {
    for (const { samples, stampS } of this.#waiting.splice(0, blocks)) {
      this.#ahead.push({ atS: this.#atS, byS: stampS - this.#atS })
      this.#atS += samples.length / this.#sampleRate
      this.#to.sound(samples)
    }
    while ((this.#ahead[0]?.atS ?? this.#atS) < this.#atS - MEMORY_S) this.#ahead.shift()
  }

  #lose(seconds: number): void {
    const told = Math.min(seconds, LONGEST_S)
    this.#to.lost(told)
    this.#atS += told
    // What was longer is not told, and begins a new time.
    if (told < seconds) this.#ahead = []
  }
}
