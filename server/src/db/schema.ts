export * from './schema/workshop.ts'
export * from './schema/arriveAndStrip.ts'
export * from './schema/mend.ts'
