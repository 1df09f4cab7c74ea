import { existsSync } from 'node:fs'
import { installDebian } from './debian.mjs'

const PATH = '/usr/bin/ffmpeg'

/** Debian's ffmpeg, installed when it is missing: it opens films of every common kind. */
export function ensureFfmpeg() {
  if (!existsSync(PATH)) installDebian(['ffmpeg'], 'ffmpeg opens films')
  return PATH
}
