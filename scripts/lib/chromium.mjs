import { existsSync } from 'node:fs'
import { installDebian } from './debian.mjs'

const WITHOUT_WINDOWS = '/usr/bin/chromium-headless-shell'
const WHOLE = '/usr/bin/chromium'

/**
 * Debian's own Chromium, the one that has no windows: it opens a page in half the time. Installed when it is missing;
 * where that can't be done, one with windows serves as well.
 */
export function ensureChromium() {
  const given = process.env.CHROMIUM_PATH
  if (given !== undefined) return given
  if (existsSync(WITHOUT_WINDOWS)) return WITHOUT_WINDOWS
  try {
    installDebian(['chromium-headless-shell'], 'Chromium drives the pages in the tests')
    return WITHOUT_WINDOWS
  } catch (error) {
    if (existsSync(WHOLE)) return WHOLE
    throw error
  }
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
  // Letters stand where a screen with a window would have them.
  '--font-render-hinting=none',
  '--use-fake-ui-for-media-stream',
  '--use-fake-device-for-media-stream',
]
