export { connect, type Connection, type Database } from './db/connect.ts'
export { migrate, migrateAt } from './db/migrate.ts'
export { makeApp } from './http/app.ts'
