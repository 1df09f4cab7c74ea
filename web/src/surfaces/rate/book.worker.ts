import { expectedAfter, rateBook, type Expected, type RateBook, type RateBookInput } from '@treadle/core'
import { answering } from '../../parts/answering.ts'

export interface BookAsked {
  input: RateBookInput
}

export interface BookFound {
  book: RateBook
  expected: Expected | null
}

/** A thin shell over the core’s rate book: two hundred readings are weighed over many guesses, and no press waits for it. */
answering(({ input }: BookAsked): BookFound => ({ book: rateBook(input), expected: expectedAfter(input) }))
