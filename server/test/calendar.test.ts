import { describe, expect, test } from 'vitest'
import type { Owed } from '@treadle/core'
import { calendarOf } from '../src/now/calendar.ts'

/** Reads an iCalendar as RFC 5545 has it: folded lines joined, escapes undone, events as names and values. */
function read(text: string): { head: Record<string, string>; events: Record<string, string>[] } {
  expect(text.endsWith('END:VCALENDAR')).toBe(true)
  for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75)
  const lines = text.replace(/\r\n[ \t]/g, '').split('\r\n')
  const events: Record<string, string>[] = []
  const head: Record<string, string> = {}
  let event: Record<string, string> | null = null
  let inAlarm = false
  for (const line of lines) {
    const [, name = '', value = ''] = /^([^:;]+)[^:]*:(.*)$/.exec(line) ?? []
    if (line === 'BEGIN:VEVENT') event = {}
    else if (line === 'END:VEVENT' && event) {
      events.push(event)
      event = null
    } else if (line === 'BEGIN:VALARM') inAlarm = true
    else if (line === 'END:VALARM') inAlarm = false
    else if (event) event[inAlarm ? `ALARM-${name}` : name] = unescaped(value)
    else head[name] = unescaped(value)
  }
  return { head, events }
}

function unescaped(value: string): string {
  return value.replace(/\\([\\;,n])/g, (_, c: string) => (c === 'n' ? '\n' : c))
}

const owed = (part: Partial<Owed>): Owed => ({
  kind: 'promise',
  subject: '',
  dueS: Date.UTC(2026, 11, 24, 17) / 1000,
  weight: 'watch',
  title: 'Promised within three days',
  why: 'The day it was promised for.',
  ...part,
})
const tag = (things: Owed[]) => ({
  job: { id: '01a20785-1b0b-7624-ae14-949793c6b388', number: 12 },
  clock: { name: 'Tall; pine, clock' },
  owner: { name: 'Miss Å. Tarn' },
  owed: things,
})

describe('the calendar', () => {
  test('names the workshop, and has one event for each thing with a time', () => {
    const { head, events } = read(
      calendarOf('Shop, above the slip', [tag([owed({}), owed({ kind: 'beat', dueS: null })])]),
    )
    expect(head.VERSION).toBe('2.0')
    expect(head['X-WR-CALNAME']).toBe('Shop, above the slip: Now')
    expect(events).toHaveLength(1)
    expect(events[0]).toMatchObject({
      DTSTART: '20261224T170000Z',
      DTEND: '20261224T171500Z',
      SUMMARY: 'Promised within three days: Tall; pine, clock',
      DESCRIPTION: 'The day it was promised for. Miss Å. Tarn, job 12.',
    })
  })

  test('calls a quarter of an hour before', () => {
    const { events } = read(calendarOf('Shop', [tag([owed({})])]))
    expect(events[0]).toMatchObject({ 'ALARM-ACTION': 'DISPLAY', 'ALARM-TRIGGER': '-PT15M' })
  })

  test('keeps the same event under the same name, so that a subscription follows it', () => {
    const uid = (dueS: number) => read(calendarOf('Shop', [tag([owed({ dueS })])])).events[0]?.UID
    expect(uid(1_800_000_000)).toBe(uid(1_800_090_000))
    const two = read(
      calendarOf('Shop', [tag([owed({ kind: 'bath', subject: 'a' }), owed({ kind: 'bath', subject: 'b' })])]),
    )
    expect(new Set(two.events.map((e) => e.UID)).size).toBe(2)
  })

  test('long names are folded, not cut', () => {
    const name = 'The clock of the '.repeat(12).trim()
    const { events } = read(calendarOf('Shop', [{ ...tag([owed({})]), clock: { name } }]))
    expect(events[0]?.SUMMARY).toBe(`Promised within three days: ${name}`)
  })

  test('nothing owed is an empty calendar, not a broken one', () => {
    expect(read(calendarOf('Shop', [])).events).toEqual([])
  })
})
