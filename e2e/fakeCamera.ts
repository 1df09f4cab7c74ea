import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { madeFilm, type MadeFilm } from '../core/test/madeFilm.ts'

const FOLDER = join(import.meta.dirname, '..', 'test-results')

/** A made film of a swinging pendulum, which the browser’s fake camera reads again and again: the flag that says so. */
export function fakeCamera(name: string, film: MadeFilm & { fps: number }): string {
  mkdirSync(FOLDER, { recursive: true })
  const path = join(FOLDER, `${name}.y4m`)
  const parts = [Buffer.from(`YUV4MPEG2 W320 H240 F${film.fps}:1 Ip A1:1 C420jpeg\n`)]
  for (const { grey } of madeFilm({ rod: 2.5, noise: 2, ...film }))
    parts.push(Buffer.from('FRAME\n'), Buffer.from(grey), Buffer.alloc((320 * 240) / 2, 128))
  writeFileSync(path, Buffer.concat(parts))
  return `--use-file-for-fake-video-capture=${path}`
}
