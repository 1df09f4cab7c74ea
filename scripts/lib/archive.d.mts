import type { ClientBase } from 'pg'

export declare function writeArchive(client: ClientBase, file: string): Promise<void>
export declare function readArchive(client: ClientBase, file: string): Promise<number>
