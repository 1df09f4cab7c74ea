/** A chunk's name tells what is in it: what several pages share is named by the two folders, or packages, it has most of. */
export function chunkName({ name, moduleIds }: { name: string; moduleIds: string[] }): string {
  if (!name.startsWith('shared')) return name
  const counts = new Map<string, number>()
  for (const id of moduleIds) {
    const of = homeOf(id)
    counts.set(of, (counts.get(of) ?? 0) + 1)
  }
  const most = [...counts].sort((a, b) => b[1] - a[1]).slice(0, 2)
  return `shared-${most.map(([of]) => of).join('-and-')}`
}

/** core-plate, web-parts, or a package's name. */
function homeOf(id: string): string {
  const packaged = /.*[\\/]node_modules[\\/](?:@[^\\/]+[\\/])?([^\\/]+)/.exec(id)?.[1]
  if (packaged !== undefined) return packaged
  const [, room = 'page', folder = ''] =
    /[\\/](core|reckon|contract|web)[\\/]src[\\/](?:surfaces[\\/])?([^\\/.]+)/.exec(id) ?? []
  return folder === '' ? room : `${room}-${folder}`
}
