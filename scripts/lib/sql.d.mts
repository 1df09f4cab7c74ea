export function sql(name: string, numbers?: Record<string, number>): string
