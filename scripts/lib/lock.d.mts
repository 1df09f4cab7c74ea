export function hold(
  name: string,
  how?: { patienceMs?: number; say?: (words: string) => void; what?: string },
): Promise<() => void>
