import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { expect, test } from 'vitest'

const WEB = join(import.meta.dirname, '../src')
const LIBRARY = join(import.meta.dirname, '../../node_modules/@mantine')

const sources = (folder: string) => readdirSync(folder, { recursive: true, encoding: 'utf8' })
const COMPONENTS = new Map(
  ['core', 'dates', 'notifications'].flatMap((part) => {
    const folder = join(LIBRARY, part, 'esm')
    return sources(folder).flatMap((file) => {
      const name = /(\w+)\.mjs$/.exec(file)?.[1]
      return name === undefined ? [] : [[name, join(folder, file)] as const]
    })
  }),
)

/** The names that a text asks for of the library. */
function asked(text: string): string[] {
  return [...text.matchAll(/import \{([^}]*)\} from ['"]@mantine\/(?:core|dates|notifications)['"]/g)].flatMap(
    ([, list = '']) =>
      list.split(',').flatMap((name) => (name.includes('type ') ? [] : [name.trim().split(' ')[0] ?? ''])),
  )
}

/** The styles that a component's own file asks for, and those of all that it is made of. */
function stylesOf(file: string | undefined, seen: Set<string>, styles: Set<string>): void {
  if (file === undefined || seen.has(file) || !existsSync(file)) return
  seen.add(file)
  const text = readFileSync(file, 'utf8')
  for (const [, path = ''] of text.matchAll(/from "(\.[^"]+)"/g)) {
    const style = /([\w-]+)\.module\.mjs$/.exec(path)?.[1]
    if (style === undefined) stylesOf(join(dirname(file), path), seen, styles)
    else styles.add(style)
  }
  for (const name of asked(text)) stylesOf(COMPONENTS.get(name), seen, styles)
}

test('the pages bring the styles of every component of the library that they use, and of no other', () => {
  const styles = new Set<string>()
  const seen = new Set<string>()
  for (const file of sources(WEB).filter((name) => /\.tsx?$/.test(name)))
    for (const name of asked(readFileSync(join(WEB, file), 'utf8'))) stylesOf(COMPONENTS.get(name), seen, styles)
  expect(styles.size).toBeGreaterThan(15)
  const own = [...styles].filter((name) => existsSync(join(LIBRARY, `core/styles/${name}.css`)))
  const text = readFileSync(join(WEB, 'app/components.css'), 'utf8')
  const brought = [...text.matchAll(/core\/styles\/(\w+)\.css/g)].map((m) => m[1] ?? '').filter((n) => /^[A-Z]/.test(n))
  expect(brought.toSorted()).toEqual(own.toSorted())
})
