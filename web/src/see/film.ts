import { practiceNowS } from '../hear/pickup.ts'
import { practiceFrame, type GreyFrame, type PracticeClock } from '@treadle/core'

/** Why there is no picture, and what to do about it. */
export class FilmError extends Error {}

/** A picture, and when it was taken by the computer’s clock, ms. */
export type Take = (frame: GreyFrame, takenMs: number) => void

/** A source of pictures, each drawn where it is shown and handed on as grey. */
export interface Film {
  readonly kind: 'camera' | 'file' | 'practice'
  /** Rejects with FilmError. */
  start: (canvas: HTMLCanvasElement, take: Take) => Promise<void>
  stop: () => void
}

/** No wider than this: a swing is told by a few hundred pixels, and each is looked at in every frame. */
const WIDEST = 360
const PRACTICE_FPS = 30

/** A camera, or a film file, which the browser plays without sound. */
export class VideoFilm implements Film {
  readonly kind: 'camera' | 'file'
  readonly #video = document.createElement('video')
  #stream: MediaStream | null = null
  #stopped = false

  constructor(readonly file: File | null) {
    this.kind = file ? 'file' : 'camera'
    this.#video.muted = true
    this.#video.playsInline = true
  }

  async start(canvas: HTMLCanvasElement, take: Take): Promise<void> {
    if (this.file) {
      this.#video.src = URL.createObjectURL(this.file)
      this.#video.loop = true
    } else this.#video.srcObject = await this.#openCamera()
    try {
      await this.#video.play()
    } catch {
      throw new FilmError(
        this.file ? `${this.file.name} can’t be played here: try an MP4 or WebM film.` : 'The camera gives no picture.',
      )
    }
    const next = () => {
      if (this.#stopped) return
      this.#video.requestVideoFrameCallback((now, { mediaTime, captureTime }) => {
        if (this.#stopped) return
        take(this.#grey(canvas, mediaTime), performance.timeOrigin + (captureTime ?? now))
        next()
      })
    }
    next()
  }

  stop(): void {
    this.#stopped = true
    this.#video.pause()
    for (const track of this.#stream?.getTracks() ?? []) track.stop()
    if (this.file) URL.revokeObjectURL(this.#video.src)
  }

  async #openCamera(): Promise<MediaStream> {
    const devices = navigator.mediaDevices as MediaDevices | undefined
    if (!devices?.getUserMedia)
      throw new FilmError(
        'The browser gives no camera to this page. Open it at http://127.0.0.1 or over https, or use a film.',
      )
    try {
      this.#stream = await devices.getUserMedia({
        video: { facingMode: 'environment', width: { ideal: 640 }, frameRate: { ideal: 60 } },
      })
      return this.#stream
    } catch (error) {
      const refused = (error as DOMException).name === 'NotAllowedError'
      throw new FilmError(
        refused
          ? 'The browser may not use the camera. Allow it for this page and press again, or use a film.'
          : 'There is no camera to open. Plug one in and press again, or use a film.',
      )
    }
  }

  #grey(canvas: HTMLCanvasElement, atS: number): GreyFrame {
    const scale = Math.min(1, WIDEST / this.#video.videoWidth)
    const width = Math.round(this.#video.videoWidth * scale)
    const height = Math.round(this.#video.videoHeight * scale)
    if (canvas.width !== width || canvas.height !== height) Object.assign(canvas, { width, height })
    const context = canvas.getContext('2d', { willReadFrequently: true })
    if (!context) throw new FilmError('This browser can’t show the picture.')
    context.drawImage(this.#video, 0, 0, width, height)
    const { data } = context.getImageData(0, 0, width, height)
    // Rec. 601 luma.
    const grey = Uint8Array.from(
      { length: width * height },
      (_, i) => 0.299 * (data[4 * i] ?? 0) + 0.587 * (data[4 * i + 1] ?? 0) + 0.114 * (data[4 * i + 2] ?? 0),
    )
    return { width, height, grey, atS }
  }
}

/** The practice clock's pendulum, drawn as a camera would see it; it swings as its sound does, or as a hand leads it. */
export class PracticeFilm implements Film {
  readonly kind = 'practice'
  #timer = 0
  #heldDeg: number | null = null

  constructor(readonly clock: PracticeClock) {}

  /** A hand leads it to this angle, degrees from plumb, + right; null: it swings. */
  hold(deg: number | null): void {
    this.#heldDeg = deg
  }

  start(canvas: HTMLCanvasElement, take: Take): Promise<void> {
    this.#timer = window.setInterval(() => {
      // Taken before it is drawn: a busy computer draws slowly.
      const takenMs = Date.now()
      const frame = practiceFrame(this.clock, practiceNowS(), this.#heldDeg)
      const { width, height, grey } = frame
      if (canvas.width !== width || canvas.height !== height) Object.assign(canvas, { width, height })
      const shown = new ImageData(width, height)
      grey.forEach((v, i) => shown.data.set([v, v, v, 255], 4 * i))
      canvas.getContext('2d')?.putImageData(shown, 0, 0)
      take(frame, takenMs)
    }, 1000 / PRACTICE_FPS)
    return Promise.resolve()
  }

  stop(): void {
    window.clearInterval(this.#timer)
  }
}
