import type { ClientBase } from 'pg'
export function withClient<T>(connectionString: string, work: (client: ClientBase) => Promise<T>): Promise<T>
export function triedAgain<T>(work: () => Promise<T>, how?: { pauseMs?: number }): Promise<T>
