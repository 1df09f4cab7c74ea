import { describe, expect, test } from 'vitest'
import { ask as run, refused } from './ask.ts'

describe('calculations of arrival and strip', () => {
  test.each<[string, object, string]>([
    ['spring.energy', { widthMm: 19, thicknessMm: 0.4, lengthMm: 1700, barrelInsideMm: 44 }, 'arborMm'],
    ['spring.energy', { widthMm: 19, thicknessMm: 0.4, lengthMm: 9000, barrelInsideMm: 44, arborMm: 14 }, 'lengthMm'],
    ['train.missing', { wheels: [64, 60], pinions: [8, 8], escapeTeeth: 30, beatsPerHour: 3600 }, 'wheels'],
    ['train.duration', { greatWheelTeeth: 96, centrePinionLeaves: 8, turns: -1 }, 'turns'],
    ['train.motion', { cannonPinion: 12, minuteWheel: 36, minutePinion: 10, hourWheel: 40.5 }, 'hourWheel'],
    ['train.directions', { meshes: 3, first: 'left' }, 'first'],
    ['drive.margin', { fittedKg: 4, leastKg: 0 }, 'leastKg'],
    ['trouble.next', { observations: { evenBeat: 'maybe' } }, 'observations.evenBeat'],
    ['trouble.next', { observations: { smell: 'yes' } }, 'observations.smell'],
    ['bath.check', { bath: 'lemonade', parts: [] }, 'bath'],
    ['bath.check', { bath: 'spirit', parts: [{ name: 'x' }] }, 'parts[0].material'],
    ['estimate.total', { lines: [{ quantity: 1, unitPrice: 'x' }], taxPercent: '20' }, 'lines[0].unitPrice'],
    ['estimate.total', { lines: [{ quantity: true, unitPrice: '1' }], taxPercent: '20' }, 'lines[0].quantity'],
  ])('%s with %j names %s', (name, input, field) => {
    expect(refused(name, input)).toBe(field)
  })

  test('“don’t know” to all is the same as asking nothing', () => {
    const unknown = { movedLately: 'unknown', evenBeat: 'unknown', worseCold: 'unknown', yearsSinceOil: null }
    expect(run('trouble.next', { observations: unknown })).toEqual(run('trouble.next', { observations: {} }))
  })
})
