import { spawnSync } from 'node:child_process'
import { closeSync, openSync, readdirSync, readFileSync, readSync, statSync } from 'node:fs'
import { join } from 'node:path'
import sharp from 'sharp'
import type { GreyFrame } from '@treadle/core'
import { ensureFfmpeg } from '../lib/ffmpeg.mjs'

/** A film that can't be read; the message is one plain sentence. */
export class FilmError extends Error {}

/** No more than this is looked at, and no larger pictures: a swing is told by seconds, and by hundreds of pixels. */
const MOST_FRAMES = 1800
const WIDEST = 640
const RATE_FILES = ['rate', 'rate.txt', 'fps', 'fps.txt']

/**
 * The frames of a film, grey, none wider than 640 pixels: a folder of PNG frames, a YUV4MPEG2 file, or any kind that
 * ffmpeg opens.
 *
 * @param fps - frames a second; needed for a folder unless it holds a file `rate` or `fps` that says so
 */
export async function readFilm(path: string, fps?: number): Promise<GreyFrame[]> {
  if (statSync(path).isDirectory()) return readFolder(path, fps ?? rateIn(path))
  if (beginsWith(path, 'YUV4MPEG2')) return readY4m(readFileSync(path), fps)
  return readByFfmpeg(path, fps)
}

function rateIn(folder: string): number {
  const name = RATE_FILES.find((file) => readdirSync(folder).includes(file))
  const rate = name === undefined ? Number.NaN : Number(readFileSync(join(folder, name), 'utf8').trim())
  if (!(rate > 0)) throw new FilmError(`--fps is missing: a folder of frames does not say how many there are a second`)
  return rate
}

async function readFolder(folder: string, fps: number): Promise<GreyFrame[]> {
  const names = readdirSync(folder)
    .filter((name) => name.toLowerCase().endsWith('.png'))
    .sort(new Intl.Collator('en', { numeric: true }).compare)
    .slice(0, MOST_FRAMES)
  if (names.length === 0) throw new FilmError('there are no PNG frames in it')
  return Promise.all(
    names.map(async (name, i) => {
      try {
        const { data, info } = await sharp(join(folder, name))
          .resize({ width: WIDEST, withoutEnlargement: true })
          .greyscale()
          .raw()
          .toBuffer({ resolveWithObject: true })
        const { width, height, channels } = info
        const grey =
          channels === 1
            ? new Uint8Array(data)
            : Uint8Array.from({ length: width * height }, (_, k) => data[k * channels] ?? 0)
        return { width, height, grey, atS: i / fps }
      } catch {
        throw new FilmError(`${name} is no readable PNG`)
      }
    }),
  )
}

function beginsWith(path: string, text: string): boolean {
  const file = openSync(path, 'r')
  try {
    const head = Buffer.alloc(text.length)
    readSync(file, head, 0, head.length, 0)
    return head.toString('latin1') === text
  } finally {
    closeSync(file)
  }
}

/** Bytes of a frame's colours after its W × H of light, by the file's colour space. */
const COLOURS: Record<string, (w: number, h: number) => number> = {
  '420': (w, h) => 2 * Math.ceil(w / 2) * Math.ceil(h / 2),
  '422': (w, h) => 2 * Math.ceil(w / 2) * h,
  '444': (w, h) => 2 * w * h,
  mono: () => 0,
}

function readY4m(bytes: Buffer, fps?: number): GreyFrame[] {
  const line = (from: number) => bytes.subarray(from, bytes.indexOf(10, from)).toString('latin1')
  const header = line(0)
  const told = new Map(
    header
      .split(' ')
      .slice(1)
      .map((word) => [word.charAt(0), word.slice(1)]),
  )
  const [width, height] = [Number(told.get('W')), Number(told.get('H'))]
  const [top, bottom] = (told.get('F') ?? '30:1').split(':').map(Number)
  const rate = fps ?? (top ?? 30) / (bottom ?? 1)
  const space = Object.keys(COLOURS).find((name) => (told.get('C') ?? '420').startsWith(name))
  const colours = space === undefined ? undefined : COLOURS[space]
  if (!(width > 0 && height > 0 && rate > 0) || !colours || told.get('C')?.includes('p1'))
    throw new FilmError(`its header can't be read here: ${header.slice(0, 60)}`)
  const frames: GreyFrame[] = []
  let at = header.length + 1
  while (at < bytes.length && frames.length < MOST_FRAMES) {
    const mark = line(at)
    if (!mark.startsWith('FRAME')) throw new FilmError(`it is broken after ${frames.length} frames`)
    const from = at + mark.length + 1
    if (from + width * height > bytes.length) break
    frames.push({ width, height, grey: bytes.subarray(from, from + width * height), atS: frames.length / rate })
    at = from + width * height + colours(width, height)
  }
  return frames
}

function readByFfmpeg(path: string, fps?: number): GreyFrame[] {
  const ffmpeg = ensureFfmpeg()
  const probe = spawnSync(ffmpeg, ['-hide_banner', '-i', path], { encoding: 'utf8' }).stderr
  const size = /Video:.*?,\s(\d{2,5})x(\d{2,5})/.exec(probe)
  const told = /,\s([\d.]+) fps/.exec(probe)
  if (!size || !told) throw new FilmError('it is no film that can be opened')
  const scale = Math.min(1, WIDEST / Number(size[1]))
  const even = (px: number) => 2 * Math.round((px * scale) / 2)
  const [width, height] = [even(Number(size[1])), even(Number(size[2]))]
  // Frames as they stand in the film, none doubled or left out to keep a rate.
  const run = spawnSync(
    ffmpeg,
    [
      '-v',
      'error',
      '-i',
      path,
      '-frames:v',
      String(MOST_FRAMES),
      '-fps_mode',
      'passthrough',
      '-vf',
      `scale=${width}:${height}`,
      '-f',
      'rawvideo',
      '-pix_fmt',
      'gray',
      '-',
    ],
    { maxBuffer: MOST_FRAMES * width * height + 1024 },
  )
  if (run.status !== 0) throw new FilmError(`ffmpeg can't read it: ${run.stderr.toString().trim().slice(0, 120)}`)
  const rate = fps ?? exactRate(Number(told[1]))
  return Array.from({ length: Math.floor(run.stdout.length / (width * height)) }, (_, i) => ({
    width,
    height,
    grey: run.stdout.subarray(i * width * height, (i + 1) * width * height),
    atS: i / rate,
  }))
}

/** 29.97 and 23.98 are shown rounded: what they stand for is 30,000/1001 and 24,000/1001. */
function exactRate(shown: number): number {
  const nearest = [24_000 / 1001, 30_000 / 1001, 60_000 / 1001, 120_000 / 1001].find(
    (rate) => Math.abs(rate - shown) < 0.006,
  )
  return nearest ?? shown
}
