import { runCommand } from './lib/command.mjs'

await runCommand('swing')
