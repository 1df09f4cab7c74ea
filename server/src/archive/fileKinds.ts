import { unreadable } from './zip.ts'

/** How the bytes of each kind begin. */
const BEGINS: Record<string, (head: Buffer) => boolean> = {
  jpg: (head) => head[0] === 0xff && head[1] === 0xd8 && head[2] === 0xff,
  png: (head) => head.subarray(0, 8).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])),
  webp: (head) => head.toString('latin1', 0, 4) === 'RIFF' && head.toString('latin1', 8, 12) === 'WEBP',
  wav: (head) => head.toString('latin1', 0, 4) === 'RIFF' && head.toString('latin1', 8, 12) === 'WAVE',
}

/**
 * Refuses a file that does not begin as its name says: what is served as a picture is one.
 *
 * @param head - its first bytes, at least twelve
 */
export function requireKind(name: string, head: Buffer): void {
  const ending = name.split('.').at(-1) ?? ''
  if (!BEGINS[ending]?.(head)) throw unreadable(`${name} is not what its name says.`)
}
