import { bundle } from './bundle.mjs'

/** Runs a command written in TypeScript in this process, bundled when its sources have changed. */
export async function runCommand(name) {
  const { main } = await import(await bundle(`scripts/commands/${name}.ts`, name))
  process.exitCode = await main(process.argv.slice(2))
}
