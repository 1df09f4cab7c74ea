/** A picture whose bytes are not as its kind's are; it is refused rather than kept with what may hide in it. */
export class BrokenPicture extends Error {}

/**
 * A picture without what its camera wrote into it: no place, no time, no serial number, no words, no second picture
 * behind the first. The picture itself stays as it is, byte by byte, with its colours' profile and which way is up.
 *
 * @param orientation - 1 to 8 as Exif has it; 1 is upright
 * @throws BrokenPicture
 * @see ITU T.81 annex B (JPEG), RFC 9649 (WebP), PNG third edition §5; Exif 2.3 §4.6.4, tag 274
 */
export function withoutData(bytes: Buffer, kind: string, orientation = 1): Buffer {
  if (kind === 'image/jpeg') return jpegWithout(bytes, orientation)
  if (kind === 'image/webp') return webpWithout(bytes, orientation)
  return pngWithout(bytes)
}

const EOI = 0xd9
const SOS = 0xda
const hasNoLength = (marker: number) => marker === 0x01 || (marker >= 0xd0 && marker <= 0xd8)

/** Segments that draw the picture, JFIF's and Adobe's own, and the colours' profile stay; the rest, and all after the end, goes. */
function jpegWithout(bytes: Buffer, orientation: number): Buffer {
  if (bytes[0] !== 0xff || bytes[1] !== 0xd8) throw new BrokenPicture('It does not begin as a JPEG.')
  const kept: Buffer[] = [bytes.subarray(0, 2)]
  if (orientation > 1) kept.push(exifSegment(orientation))
  for (let at = 2; at < bytes.length;) {
    if (bytes[at] !== 0xff) throw new BrokenPicture('A segment of the JPEG does not begin where it should.')
    const marker = bytes[at + 1] ?? 0
    if (marker === 0xff) {
      at++
      continue
    }
    if (marker === EOI) {
      kept.push(bytes.subarray(at, at + 2))
      return Buffer.concat(kept)
    }
    if (hasNoLength(marker)) {
      kept.push(bytes.subarray(at, at + 2))
      at += 2
      continue
    }
    if (at + 4 > bytes.length) throw new BrokenPicture('The JPEG is cut short.')
    const end = at + 2 + bytes.readUInt16BE(at + 2)
    if (end > bytes.length || end < at + 4) throw new BrokenPicture('The JPEG is cut short.')
    const next = marker === SOS ? endOfScan(bytes, end) : end
    if (draws(marker, bytes.subarray(at + 4, end))) kept.push(bytes.subarray(at, next))
    at = next
  }
  throw new BrokenPicture('The JPEG is cut short.')
}

function draws(marker: number, body: Buffer): boolean {
  if (marker === 0xfe) return false
  if (marker < 0xe0 || marker > 0xef) return true
  const begins = (words: string) => body.subarray(0, words.length).toString('latin1') === words
  return (
    (marker === 0xe0 && begins('JFIF\0')) ||
    (marker === 0xe2 && begins('ICC_PROFILE\0')) ||
    (marker === 0xee && begins('Adobe'))
  )
}

/** Where the next real marker stands after a scan's data: not a stuffed 0xff, nor a restart. */
function endOfScan(bytes: Buffer, from: number): number {
  for (let at = from; ; at += 2) {
    at = bytes.indexOf(0xff, at)
    if (at < 0 || at + 1 >= bytes.length) throw new BrokenPicture('The JPEG is cut short.')
    const marker = bytes[at + 1] ?? 0
    if (marker === 0xff) at--
    else if (marker !== 0 && !(marker >= 0xd0 && marker <= 0xd7)) return at
  }
}

/** TIFF's head and one entry: which way is up. */
function orientationOnly(orientation: number): Buffer {
  const tiff = Buffer.alloc(26)
  tiff.write('MM\0*', 0, 'latin1')
  tiff.writeUInt32BE(8, 4)
  tiff.writeUInt16BE(1, 8)
  tiff.writeUInt16BE(0x0112, 10)
  tiff.writeUInt16BE(3, 12)
  tiff.writeUInt32BE(1, 14)
  tiff.writeUInt16BE(orientation, 18)
  return tiff
}

function exifSegment(orientation: number): Buffer {
  const body = Buffer.concat([Buffer.from('Exif\0\0', 'latin1'), orientationOnly(orientation)])
  const head = Buffer.from([0xff, 0xe1, 0, 0])
  head.writeUInt16BE(body.length + 2, 2)
  return Buffer.concat([head, body])
}

const WEBP_DATA = new Set(['EXIF', 'XMP '])
const WEBP_PICTURE = new Set(['VP8X', 'VP8 ', 'VP8L', 'ALPH', 'ANIM', 'ANMF', 'ICCP'])
const EXIF_FLAG = 0x08
const XMP_FLAG = 0x04

function webpWithout(bytes: Buffer, orientation: number): Buffer {
  if (bytes.length < 12 || bytes.toString('latin1', 8, 12) !== 'WEBP') throw new BrokenPicture('It is no WebP.')
  const kept: Buffer[] = []
  let extended = false
  const end = Math.min(bytes.length, 8 + bytes.readUInt32LE(4))
  for (let at = 12; at + 8 <= end;) {
    const name = bytes.toString('latin1', at, at + 4)
    const size = bytes.readUInt32LE(at + 4)
    const next = at + 8 + size + (size % 2)
    if (at + 8 + size > end) throw new BrokenPicture('The WebP is cut short.')
    if (WEBP_PICTURE.has(name)) {
      const chunk = Buffer.from(bytes.subarray(at, Math.min(next, end)))
      if (name === 'VP8X') {
        extended = true
        chunk[8] = ((chunk[8] ?? 0) & ~(EXIF_FLAG | XMP_FLAG)) | (orientation > 1 ? EXIF_FLAG : 0)
      }
      kept.push(chunk)
    } else if (!WEBP_DATA.has(name) && kept.length === 0)
      throw new BrokenPicture('The WebP begins with something else.')
    at = next
  }
  if (extended && orientation > 1) {
    const tiff = orientationOnly(orientation)
    const head = Buffer.alloc(8)
    head.write('EXIF', 0, 'latin1')
    head.writeUInt32LE(tiff.length, 4)
    kept.push(head, tiff)
  }
  const body = Buffer.concat(kept)
  const head = Buffer.from(bytes.subarray(0, 12))
  head.writeUInt32LE(4 + body.length, 4)
  return Buffer.concat([head, body])
}

const PNG_HEAD = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])
const PNG_PICTURE = new Set(
  'IHDR PLTE IDAT IEND tRNS gAMA cHRM sRGB iCCP cICP sBIT bKGD pHYs acTL fcTL fdAT'.split(' '),
)

function pngWithout(bytes: Buffer): Buffer {
  if (!bytes.subarray(0, 8).equals(PNG_HEAD)) throw new BrokenPicture('It does not begin as a PNG.')
  const kept: Buffer[] = [PNG_HEAD]
  for (let at = 8; at + 12 <= bytes.length;) {
    const next = at + 12 + bytes.readUInt32BE(at)
    const name = bytes.toString('latin1', at + 4, at + 8)
    if (next > bytes.length) break
    if (PNG_PICTURE.has(name)) kept.push(bytes.subarray(at, next))
    if (name === 'IEND') return Buffer.concat(kept)
    at = next
  }
  throw new BrokenPicture('The PNG is cut short.')
}
