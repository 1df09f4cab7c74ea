import { relations } from 'drizzle-orm'
import { conditions, confirmedCauses, observations } from './arrival.ts'
import { listenings, rateEvents, readings } from './beatAndRate.ts'
import { bushings, reservations } from './bushings.ts'
import { clocks, owners, trainSheets } from './clocks.ts'
import { estimates } from './estimates.ts'
import { invoices } from './invoices.ts'
import { photos } from './files.ts'
import { arborTests, holes, pivots } from './holes.ts'
import { gateOverrides, jobs, nowMarks, powerOffs } from './jobs.ts'
import { plateMaps } from './plates.ts'
import { depthTrials, escapementSheets, madeParts, springSheets, suspensions, wheelSheets } from './wheels.ts'
import { dryRuns, oilSheets, strikeCounts, witnesses } from './set.ts'
import { footings, watches } from './watch.ts'
import { pendulums, runDowns, thermometers } from './pendulum.ts'
import { cleanParts, stripMarks, stripSteps, timers } from './strip.ts'

// What hangs on what, so that a whole job is read in one statement.

export const clockRelations = relations(clocks, ({ one, many }) => ({
  owner: one(owners, { fields: [clocks.ownerId], references: [owners.id] }),
  plateMap: one(plateMaps, { fields: [clocks.id], references: [plateMaps.clockId] }),
  trainSheets: many(trainSheets),
}))

export const trainSheetRelations = relations(trainSheets, ({ one }) => ({
  clock: one(clocks, { fields: [trainSheets.clockId], references: [clocks.id] }),
}))

export const jobRelations = relations(jobs, ({ one, many }) => ({
  clock: one(clocks, { fields: [jobs.clockId], references: [clocks.id] }),
  powerOffs: many(powerOffs),
  overrides: many(gateOverrides),
  holes: many(holes),
  arborTests: many(arborTests),
  pivots: many(pivots),
  bushings: many(bushings),
  reservations: many(reservations),
  wheels: many(wheelSheets),
  springs: many(springSheets),
  suspensions: many(suspensions),
  escapements: many(escapementSheets),
  depths: many(depthTrials),
  madeParts: many(madeParts),
  dryRuns: many(dryRuns),
  oilSheets: many(oilSheets),
  witnesses: many(witnesses),
  strikeCounts: many(strikeCounts),
  watches: many(watches),
  footings: many(footings),
  pendulums: many(pendulums),
  runDowns: many(runDowns),
  thermometers: many(thermometers),
  listenings: many(listenings),
  readings: many(readings),
  events: many(rateEvents),
  estimates: many(estimates),
  invoices: many(invoices),
  stripMarks: many(stripMarks),
  stripSteps: many(stripSteps),
  cleanParts: many(cleanParts),
  timers: many(timers),
  nowMarks: many(nowMarks),
  photos: many(photos),
  observations: many(observations),
  conditions: many(conditions),
  confirmedCauses: many(confirmedCauses),
}))

export const powerOffRelations = relations(powerOffs, ({ one }) => ({
  job: one(jobs, { fields: [powerOffs.jobId], references: [jobs.id] }),
}))
export const gateOverrideRelations = relations(gateOverrides, ({ one }) => ({
  job: one(jobs, { fields: [gateOverrides.jobId], references: [jobs.id] }),
}))
export const holeRelations = relations(holes, ({ one }) => ({
  job: one(jobs, { fields: [holes.jobId], references: [jobs.id] }),
}))
export const arborTestRelations = relations(arborTests, ({ one }) => ({
  job: one(jobs, { fields: [arborTests.jobId], references: [jobs.id] }),
}))
export const pivotRelations = relations(pivots, ({ one }) => ({
  job: one(jobs, { fields: [pivots.jobId], references: [jobs.id] }),
}))
export const bushingRelations = relations(bushings, ({ one }) => ({
  job: one(jobs, { fields: [bushings.jobId], references: [jobs.id] }),
}))
export const reservationRelations = relations(reservations, ({ one }) => ({
  job: one(jobs, { fields: [reservations.jobId], references: [jobs.id] }),
}))
export const listeningRelations = relations(listenings, ({ one }) => ({
  job: one(jobs, { fields: [listenings.jobId], references: [jobs.id] }),
}))
export const readingRelations = relations(readings, ({ one }) => ({
  job: one(jobs, { fields: [readings.jobId], references: [jobs.id] }),
}))
export const rateEventRelations = relations(rateEvents, ({ one }) => ({
  job: one(jobs, { fields: [rateEvents.jobId], references: [jobs.id] }),
}))
export const estimateRelations = relations(estimates, ({ one }) => ({
  job: one(jobs, { fields: [estimates.jobId], references: [jobs.id] }),
}))
export const invoiceRelations = relations(invoices, ({ one }) => ({
  job: one(jobs, { fields: [invoices.jobId], references: [jobs.id] }),
}))
export const stripMarkRelations = relations(stripMarks, ({ one }) => ({
  job: one(jobs, { fields: [stripMarks.jobId], references: [jobs.id] }),
}))
export const stripStepRelations = relations(stripSteps, ({ one }) => ({
  job: one(jobs, { fields: [stripSteps.jobId], references: [jobs.id] }),
}))
export const cleanPartRelations = relations(cleanParts, ({ one }) => ({
  job: one(jobs, { fields: [cleanParts.jobId], references: [jobs.id] }),
}))
export const timerRelations = relations(timers, ({ one }) => ({
  job: one(jobs, { fields: [timers.jobId], references: [jobs.id] }),
}))
export const nowMarkRelations = relations(nowMarks, ({ one }) => ({
  job: one(jobs, { fields: [nowMarks.jobId], references: [jobs.id] }),
}))
export const photoRelations = relations(photos, ({ one }) => ({
  job: one(jobs, { fields: [photos.jobId], references: [jobs.id] }),
}))
export const observationRelations = relations(observations, ({ one }) => ({
  job: one(jobs, { fields: [observations.jobId], references: [jobs.id] }),
}))
export const conditionRelations = relations(conditions, ({ one }) => ({
  job: one(jobs, { fields: [conditions.jobId], references: [jobs.id] }),
}))
export const confirmedCauseRelations = relations(confirmedCauses, ({ one }) => ({
  job: one(jobs, { fields: [confirmedCauses.jobId], references: [jobs.id] }),
}))
export const wheelSheetRelations = relations(wheelSheets, ({ one }) => ({
  job: one(jobs, { fields: [wheelSheets.jobId], references: [jobs.id] }),
}))
export const springSheetRelations = relations(springSheets, ({ one }) => ({
  job: one(jobs, { fields: [springSheets.jobId], references: [jobs.id] }),
}))
export const suspensionRelations = relations(suspensions, ({ one }) => ({
  job: one(jobs, { fields: [suspensions.jobId], references: [jobs.id] }),
}))
export const escapementSheetRelations = relations(escapementSheets, ({ one }) => ({
  job: one(jobs, { fields: [escapementSheets.jobId], references: [jobs.id] }),
}))
export const depthTrialRelations = relations(depthTrials, ({ one }) => ({
  job: one(jobs, { fields: [depthTrials.jobId], references: [jobs.id] }),
}))
export const madePartRelations = relations(madeParts, ({ one }) => ({
  job: one(jobs, { fields: [madeParts.jobId], references: [jobs.id] }),
}))
export const dryRunRelations = relations(dryRuns, ({ one }) => ({
  job: one(jobs, { fields: [dryRuns.jobId], references: [jobs.id] }),
}))
export const oilSheetRelations = relations(oilSheets, ({ one }) => ({
  job: one(jobs, { fields: [oilSheets.jobId], references: [jobs.id] }),
}))
export const witnessRelations = relations(witnesses, ({ one }) => ({
  job: one(jobs, { fields: [witnesses.jobId], references: [jobs.id] }),
}))
export const watchRelations = relations(watches, ({ one }) => ({
  job: one(jobs, { fields: [watches.jobId], references: [jobs.id] }),
}))
export const footingRelations = relations(footings, ({ one }) => ({
  job: one(jobs, { fields: [footings.jobId], references: [jobs.id] }),
}))
export const pendulumRelations = relations(pendulums, ({ one }) => ({
  job: one(jobs, { fields: [pendulums.jobId], references: [jobs.id] }),
}))
export const runDownRelations = relations(runDowns, ({ one }) => ({
  job: one(jobs, { fields: [runDowns.jobId], references: [jobs.id] }),
}))
export const thermometerRelations = relations(thermometers, ({ one }) => ({
  job: one(jobs, { fields: [thermometers.jobId], references: [jobs.id] }),
}))
export const strikeCountRelations = relations(strikeCounts, ({ one }) => ({
  job: one(jobs, { fields: [strikeCounts.jobId], references: [jobs.id] }),
}))
