import { CALCULATIONS } from '@treadle/reckon'
import { expect, test } from 'vitest'
import { choicesToPick, examplesTyped, inputOf } from '../src/places/reckoner/typed.ts'

const of = (name: string) => CALCULATIONS.find((c) => c.name === name)!

test.each(CALCULATIONS.map((c) => [c.name, c] as const))('%s opens with its own example, and answers it', (_, c) => {
  const input = inputOf(c, examplesTyped(c))
  const examples = Object.entries(c.fields).flatMap(([name, f]) => (f.example === undefined ? [] : [[name, f.example]]))
  expect(input).toEqual(Object.fromEntries(examples))
  expect(() => c.reckon(input)).not.toThrow()
})

test('yes and no are picked, and a choice that may be left out can be', () => {
  const hands = of('hands.plan')
  expect(choicesToPick(hands.fields.backAllowed!)?.map((c) => c.value)).toEqual(['', 'no', 'yes'])
  expect(choicesToPick(hands.fields.halves!)?.map((c) => c.value)).toEqual(['', 'none', 'one', 'hour'])
  expect(choicesToPick(of('strike.blows').fields.halves!)?.map((c) => c.value)).toEqual(['none', 'one', 'hour'])
  expect(choicesToPick(hands.fields.shows!)).toBeNull()
  const typed = { ...examplesTyped(hands), backAllowed: 'yes', halves: '' }
  expect(inputOf(hands, typed)).toMatchObject({ backAllowed: true, quarters: false })
  expect(inputOf(hands, typed)).not.toHaveProperty('halves')
})

test('a figure may have a comma; a list its brackets or none; what is neither is left to be refused', () => {
  const hands = of('hands.plan')
  expect(inputOf(hands, { secondsPerBlow: '1,5' })).toEqual({ secondsPerBlow: 1.5 })
  expect(inputOf(hands, { secondsPerBlow: 'slow' })).toEqual({ secondsPerBlow: 'slow' })
  const train = of('train.beats')
  expect(inputOf(train, { wheels: '64, 60' })).toEqual({ wheels: [64, 60] })
  expect(inputOf(train, { wheels: '[64, 60' })).toEqual({ wheels: '[64, 60' })
})
