let context: AudioContext | undefined

const TONES = { done: [880, 0.05], back: [440, 0.09], flag: [660, 0.12], none: [220, 0.06], call: [990, 1.2] } as const

/** A short sound, so that a foot knows it was heard while the eyes are on the work. */
export function chirp(kind: keyof typeof TONES): void {
  try {
    context ??= new AudioContext()
    const [hz, seconds] = TONES[kind]
    const tone = context.createOscillator()
    const gain = context.createGain()
    tone.frequency.value = hz
    gain.gain.setValueAtTime(0.08, context.currentTime)
    gain.gain.exponentialRampToValueAtTime(0.0001, context.currentTime + seconds)
    tone.connect(gain).connect(context.destination)
    tone.start()
    tone.stop(context.currentTime + seconds)
  } catch {
    // No sound device: the bar's own words say it too.
  }
}
