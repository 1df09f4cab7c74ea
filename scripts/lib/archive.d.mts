import type { ClientBase } from 'pg'
export const TABLES: string[]
export function writeArchive(client: ClientBase, file: string): Promise<number>
export function readArchive(client: ClientBase, file: string, how?: { older?: boolean }): Promise<number>
