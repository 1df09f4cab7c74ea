export { loadDemo } from './load.ts'
