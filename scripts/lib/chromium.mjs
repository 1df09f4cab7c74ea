import { existsSync } from 'node:fs'
import { installDebian } from './debian.mjs'

/** Debian's own Chromium, installed when it is missing. */
export function ensureChromium() {
  const path = process.env.CHROMIUM_PATH ?? '/usr/bin/chromium'
  if (!existsSync(path)) installDebian(['chromium'], 'Chromium drives the pages in the tests')
  return path
}

/** What headless Chromium needs as root, without a network of its own, and without a real microphone. */
export const CHROMIUM_FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--use-fake-ui-for-media-stream',
  '--use-fake-device-for-media-stream',
]
