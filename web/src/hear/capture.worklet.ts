/** Hands every block of the microphone to the page: the path for browsers without track processing. */
class Capture extends AudioWorkletProcessor {
  #held: Float32Array[] = []

  process(inputs: Float32Array[][]): boolean {
    const channel = inputs[0]?.[0]
    if (channel) this.#held.push(channel.slice())
    if (this.#held.length >= 32) {
      const block = new Float32Array(this.#held.reduce((sum, b) => sum + b.length, 0))
      let at = 0
      for (const part of this.#held) {
        block.set(part, at)
        at += part.length
      }
      this.#held = []
      this.port.postMessage(block, [block.buffer])
    }
    return true
  }
}

registerProcessor('treadle-capture', Capture)
