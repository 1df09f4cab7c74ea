import { PracticeSound, StampedSound, type PracticeClock, type Receiver } from '@treadle/core'
import captureUrl from './capture.worklet.ts?worker&url'

/** What comes of a pickup: sound, stretches that were lost, and an end that nobody asked for. */
export interface PickupReceiver extends Receiver {
  ended(): void
}

/** A source of live sound: microphone or practice clock. */
export interface Pickup {
  readonly kind: 'microphone' | 'practice'
  /** Begins; gives the sample rate once it is known, and its sound to its receiver. Rejects with PickupError. */
  start(to: PickupReceiver): Promise<number>
  stop(): void
}

/** Why there is no sound, and what to do about it. */
export class PickupError extends Error {}

/** Blocks of 10 ms that may wait while the page is busy: ten seconds. */
const QUEUED_BLOCKS = 1000

/** A microphone, untouched: no echo cancelling, no noise suppression, no gain control, which all spoil a tick. */
export class MicrophonePickup implements Pickup {
  readonly kind = 'microphone'
  #stream: MediaStream | undefined
  #context: AudioContext | undefined
  #stopped = false

  async start(to: PickupReceiver): Promise<number> {
    this.#stream = await openMicrophone()
    const track = this.#stream.getAudioTracks()[0]
    if (!track) throw new PickupError('The microphone gives no sound. Plug it in again, then press once more.')
    // The track's own samples, exactly as captured, where the browser gives them; the audio graph may slip by 10 ms.
    const Processor = (window as { MediaStreamTrackProcessor?: TrackProcessor }).MediaStreamTrackProcessor
    return Processor
      ? this.#readTrack(new Processor({ track, maxBufferSize: QUEUED_BLOCKS }), to)
      : this.#readGraph(this.#stream, track, to)
  }

  stop(): void {
    this.#stopped = true
    for (const track of this.#stream?.getTracks() ?? []) track.stop()
    void this.#context?.close()
  }

  #readTrack(processor: { readable: ReadableStream<AudioDataLike> }, to: PickupReceiver): Promise<number> {
    const reader = processor.readable.getReader()
    let stamped: StampedSound | undefined
    return new Promise((resolve) => {
      const pump = async () => {
        for (;;) {
          const { value, done } = await reader.read()
          if (done || this.#stopped) return
          const samples = new Float32Array(value.numberOfFrames)
          value.copyTo(samples, { planeIndex: 0, format: 'f32-planar' })
          resolve(value.sampleRate)
          stamped ??= new StampedSound(value.sampleRate, to)
          stamped.push(samples, value.timestamp / 1e6)
          value.close()
        }
      }
      // The stream ends with its track, pulled out or taken away by the browser; what was not read by then is gone.
      const over = () => {
        if (!this.#stopped) to.ended()
      }
      pump().then(over, over)
    })
  }

  async #readGraph(stream: MediaStream, track: MediaStreamTrack, to: PickupReceiver): Promise<number> {
    this.#context = new AudioContext({ latencyHint: 'playback' })
    await this.#context.audioWorklet.addModule(captureUrl)
    const node = new AudioWorkletNode(this.#context, 'treadle-capture', { numberOfOutputs: 0 })
    node.port.onmessage = ({ data }: MessageEvent<Float32Array>) => to.sound(data)
    // Pulled out, or taken away by the browser; stopping it ourselves raises no such event.
    track.addEventListener('ended', () => to.ended())
    this.#context.createMediaStreamSource(stream).connect(node)
    await this.#context.resume()
    return this.#context.sampleRate
  }
}

interface AudioDataLike {
  numberOfFrames: number
  sampleRate: number
  /** µs */
  timestamp: number
  copyTo(to: Float32Array, how: { planeIndex: number; format: 'f32-planar' }): void
  close(): void
}

type TrackProcessor = new (init: { track: MediaStreamTrack; maxBufferSize: number }) => {
  readable: ReadableStream<AudioDataLike>
}

async function openMicrophone(): Promise<MediaStream> {
  // Missing outside of localhost and https, whatever the types say.
  const devices = navigator.mediaDevices as MediaDevices | undefined
  if (!devices?.getUserMedia)
    throw new PickupError(
      'The browser gives no microphone to this page. Open it at http://127.0.0.1 or over https, or use a sound file.',
    )
  try {
    return await devices.getUserMedia({
      audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false, channelCount: 1 },
    })
  } catch (error) {
    throw new PickupError(refusal((error as DOMException).name))
  }
}

function refusal(name: string): string {
  if (name === 'NotAllowedError')
    return 'The browser may not use the microphone. Click the microphone or lock beside the address, allow it for this page, and press again; or use a sound file.'
  if (name === 'NotFoundError') return 'No microphone is plugged in. Plug one in and press again, or use a sound file.'
  if (name === 'NotReadableError') return 'Another program holds the microphone. Close that one and press again.'
  return `The microphone can’t be opened (${name}). Try another, or use a sound file.`
}

/** How long the practice clock has been going, s: what is heard of it and what is seen are one clock. */
export function practiceNowS(): number {
  return performance.now() / 1000
}

const PRACTICE_RATE = 22_050
const PRACTICE_EVERY_MS = 100

/** The practice clock in real time, heard aloud if wanted. */
export class PracticePickup implements Pickup {
  readonly kind = 'practice'
  #timer = 0
  #context: AudioContext | undefined
  #sound: PracticeSound | undefined

  constructor(
    readonly clock: PracticeClock,
    readonly aloud: boolean,
  ) {}

  /** Its case is leant over to the right, degrees. */
  lean(deg: number): void {
    this.#sound?.lean(deg)
  }

  /** A hand leads its pendulum to this angle, degrees from plumb, + right; null: it swings. */
  hold(deg: number | null): void {
    this.#sound?.hold(deg)
  }

  start(to: PickupReceiver): Promise<number> {
    // Its loudspeaker is opened first, and the time taken once: what that takes would set what is heard apart from what
    // is seen.
    if (this.aloud) this.#context = new AudioContext()
    const startS = practiceNowS()
    const sound = new PracticeSound(this.clock, PRACTICE_RATE, startS)
    this.#sound = sound
    let made = 0
    let playAt = (this.#context?.currentTime ?? 0) + 0.15
    this.#timer = window.setInterval(() => {
      const wanted = Math.floor((practiceNowS() - startS) * PRACTICE_RATE)
      if (wanted <= made) return
      const samples = sound.next(wanted - made)
      made = wanted
      if (this.#context) playAt = play(this.#context, samples, playAt)
      to.sound(samples)
    }, PRACTICE_EVERY_MS)
    return Promise.resolve(PRACTICE_RATE)
  }

  stop(): void {
    window.clearInterval(this.#timer)
    void this.#context?.close()
  }
}

function play(context: AudioContext, samples: Float32Array, at: number): number {
  const buffer = context.createBuffer(1, samples.length, PRACTICE_RATE)
  buffer.getChannelData(0).set(samples)
  const source = context.createBufferSource()
  source.buffer = buffer
  source.connect(context.destination)
  const from = Math.max(at, context.currentTime)
  source.start(from)
  return from + samples.length / PRACTICE_RATE
}

/** Sound of a file that is no WAV, by the browser's own decoder. */
export async function decodeByBrowser(bytes: ArrayBuffer): Promise<{ samples: Float32Array; sampleRate: number }> {
  const context = new OfflineAudioContext(1, 1, 48_000)
  try {
    const sound = await context.decodeAudioData(bytes)
    return { samples: sound.getChannelData(0).slice(), sampleRate: sound.sampleRate }
  } catch {
    throw new PickupError(
      'This file can’t be read as sound, neither as WAV nor by the browser. Save it as WAV and try again.',
    )
  }
}
