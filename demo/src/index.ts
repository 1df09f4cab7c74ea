export { loadDemo } from './load.ts'
export { migrateAt } from '@treadle/server'
