import { fileTypeFromFile } from 'file-type'
import { readFile } from 'node:fs/promises'
import pLimit from 'p-limit'
import sharp from 'sharp'
import { Refused } from '../http/refusals.ts'
import { BrokenPicture, withoutData } from './withoutData.ts'

const SCREEN_PIXELS = 1600
const THUMB_PIXELS = 320
const MOST_PIXELS = 80_000_000
const KINDS = ['image/jpeg', 'image/png', 'image/webp'] as const
export type PictureKind = (typeof KINDS)[number]

/** A photo of dozens of millions of points takes a hundred megabytes while it is worked on: two at a time, others wait. */
const atWork = pLimit(2)
// What was worked on is not kept in memory for a next time that seldom comes.
sharp.cache(false)

export interface Pictures {
  kind: PictureKind
  width: number
  height: number
  original: Buffer
  screen: Buffer
  thumb: Buffer
}

/**
 * Makes the three pictures that are kept of a photo: as it was taken, for the screen, for lists; the latter two upright.
 * `use` keeps them before another photo’s turn comes: however many are sent at once, two are in hand.
 */
export function withPictures<T>(path: string, keepData: boolean, use: (pictures: Pictures) => Promise<T>): Promise<T> {
  return atWork(async () => use(await picturesOf(path, keepData)))
}

async function picturesOf(path: string, keepData: boolean): Promise<Pictures> {
  const kind = await pictureKind(path)
  if (kind === null) throw new Refused('not-photo')
  try {
    const screen = await shrunk(path, SCREEN_PIXELS, 82)
    const thumb = await shrunk(screen.data, THUMB_PIXELS, 80)
    const original = keepData ? await readFile(path) : await bare(path, kind)
    const { width, height } = screen.info
    return { kind, width, height, original, screen: screen.data, thumb: thumb.data }
  } catch (error) {
    if (error instanceof Refused) throw error
    throw new Refused('broken-photo')
  }
}

/** The kind of picture that the bytes of a file begin as; null: none that is kept. */
async function pictureKind(path: string): Promise<PictureKind | null> {
  const kind = (await fileTypeFromFile(path))?.mime
  return KINDS.find((known) => known === kind) ?? null
}

/**
 * What a file is by its bytes, all of it decoded: the kind of picture; null where it is none, or a broken one. `bare` asks
 * for its bytes without what its camera wrote into it.
 */
export function wholePicture(path: string): Promise<{ kind: PictureKind; bare: () => Promise<Buffer> } | null> {
  return atWork(async () => {
    const kind = await pictureKind(path)
    if (kind === null) return null
    try {
      await shrunk(path, THUMB_PIXELS, 80)
      return { kind, bare: () => atWork(() => bare(path, kind)) }
    } catch {
      return null
    }
  })
}

/** rotate() without an angle turns it upright as its camera noted; nothing of the camera's is carried over. */
function shrunk(source: string | Buffer, pixels: number, quality: number) {
  return sharp(source, { limitInputPixels: MOST_PIXELS, sequentialRead: true })
    .rotate()
    .resize(pixels, pixels, { fit: 'inside', withoutEnlargement: true })
    .webp({ quality })
    .toBuffer({ resolveWithObject: true })
}

async function bare(path: string, kind: PictureKind): Promise<Buffer> {
  const { orientation = 1 } = await sharp(path, { limitInputPixels: MOST_PIXELS }).metadata()
  // A PNG that is to be turned is turned: it loses nothing by being written anew.
  if (kind === 'image/png' && orientation > 1)
    return sharp(path, { limitInputPixels: MOST_PIXELS }).rotate().png().toBuffer()
  try {
    return withoutData(await readFile(path), kind, orientation)
  } catch (error) {
    if (error instanceof BrokenPicture) throw new Refused('broken-photo')
    throw error
  }
}
