import { existsSync } from 'node:fs'
import { must } from './run.mjs'

/** Installs Debian packages, with sudo unless we are root. */
export function installDebian(packages, why) {
  if (!existsSync('/usr/bin/apt-get'))
    throw new Error(`${why} is missing and this is not Debian: install ${packages.join(' ')} by hand.`)
  console.error(`Installing ${packages.join(', ')} from Debian’s packages: ${why}…`)
  const root = process.getuid?.() === 0
  const apt = (...args) => {
    const command = ['env', 'DEBIAN_FRONTEND=noninteractive', 'apt-get', '-y', '-q', ...args]
    if (!root) command.unshift('sudo')
    must(command[0], command.slice(1))
  }
  apt('update')
  apt('install', '--no-install-recommends', ...packages)
}
