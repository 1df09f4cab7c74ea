import type { FieldProblem } from '@treadle/contract'

/**
 * Everything that is refused: its name, the HTTP status it is answered with, and what a person is told.
 */
const REFUSALS = {
  'bad-address': [400, 'The address has a character that can’t be.'],
  'bad-fields': [400, 'Some of what was typed can’t be right.'],
  'bad-request': [400, 'The request can’t be understood.'],
  'bad-value': [400, 'Some of what was sent is a value that can’t be kept.'],
  dropped: [400, 'The connection was dropped before all had come.'],
  'name-bad-character': [400, 'The name of whoever is at the bench has a character that can’t be kept.'],
  'name-unreadable': [400, 'The name of whoever is at the bench can’t be read.'],
  'no-body': [400, 'The request has no JSON body.'],
  'not-json': [400, 'The request is not valid JSON.'],
  'wrong-origin': [403, 'A page from elsewhere may not change this workshop’s book.'],
  'no-picture-of-donor': [404, 'There is no picture of it.'],
  'no-plates-yet': [404, 'The plates of this clock are not set out yet.'],
  'no-sound-of-listening': [404, 'No sound was kept of that listening.'],
  'no-sound-of-mark': [404, 'No sound was kept of that.'],
  'no-such-calendar': [404, 'There is no such calendar; its address may have been changed.'],
  'no-such-clock': [404, 'There is no such clock.'],
  'no-such-donor': [404, 'There is no such part in the ledger.'],
  'no-such-file': [404, 'There is no such file.'],
  'no-such-id': [404, 'There is no such thing here.'],
  'no-such-job': [404, 'There is no such job.'],
  'no-such-list': [404, 'There is no such list.'],
  'no-such-listening': [404, 'There is no such listening.'],
  'no-such-mark': [404, 'The watch has marked no such thing.'],
  'no-such-owner': [404, 'There is no such owner.'],
  'no-such-part': [404, 'There is no such part.'],
  'no-such-part-drawing': [404, 'A part is drawn as .svg or .dxf.'],
  'no-such-photo': [404, 'There is no such photo.'],
  'no-such-plate-drawing': [404, 'A plate is drawn as front or back, .svg or .dxf.'],
  'no-such-row': [404, 'There is no such row here.'],
  'no-such-table': [404, 'There is no such table.'],
  'no-such-watch': [404, 'There is no such watch.'],
  'no-such-watch-of-clock': [404, 'There is no such watch of this clock.'],
  'not-found': [404, 'There is nothing at that address.'],
  'owner-gone': [404, 'There is no such owner; they may have been made one with another.'],
  'taken-back': [404, 'That is no longer there: somebody took it back.'],
  'file-too-slow': [408, 'What was sent came too slowly, or stopped. Send it once more.'],
  'too-slow': [408, 'What was sent came too slowly, or stopped. It is tried again.'],
  'changed-meanwhile': [409, 'Something of it was changed here while it was read. Look at it once more.'],
  closed: [409, 'This job is closed; reopen it to change it.'],
  'in-a-clock': [409, 'It stays: there is some of it in clocks.'],
  'in-a-plan': [409, 'A hole’s plan uses this; set its count to 0 instead.'],
  'in-a-spring-sheet': [409, 'A mainspring’s sheet names this; set its count to 0 instead.'],
  'in-a-wheel-sheet': [409, 'A wheel’s sheet names this; set how many there are to 0 instead.'],
  'in-use': [409, 'Something else still needs this, so it stays.'],
  'list-promised': [409, 'Some of what this list brought is promised to jobs since.'],
  'list-used': [409, 'Some of what this list brought was changed or promised since.'],
  'no-donor-left': [409, 'The ledger has none of these left: another clock took it.'],
  'no-strike': [409, 'How it strikes is not written down: say so under Strike, then its hours can be read.'],
  'none-left': [409, 'The drawer has no more of these to give.'],
  'other-watch': [409, 'Another watch has marked that already.'],
  'power-stands': [409, 'The plates are parted; that confirmation stands.'],
  promised: [409, 'Jobs have some of these; set its count to 0 instead.'],
  readable: [409, 'It can be read by now: somebody saw to it.'],
  stale: [409, 'Somebody changed this meanwhile.'],
  taken: [409, 'There is one of these already.'],
  'taking-in': [409, 'Another archive is being taken in. Wait for that, and send this one again.'],
  'file-too-large': [413, 'That file is too large.'],
  'too-large': [413, 'That is more than can be taken in at once.'],
  'broken-photo': [415, 'That picture is broken and can’t be read.'],
  'broken-sound': [415, 'That sound is broken and can’t be read.'],
  'not-photo': [415, 'A photo must be a JPEG, PNG or WebP picture; this is none of them.'],
  'not-sound': [415, 'A sound is kept as WAV (audio/wav).'],
  'wrong-host': [421, 'This workshop does not answer to that name.'],
  accepted: [422, 'The owner accepted this revision, so it stays. Make a new one.'],
  archive: [422, 'That archive can’t be taken in.'],
  gate: [422, 'That may not be done yet.'],
  'may-not-close': [422, 'This job may not be closed yet.'],
  parted: [422, 'Its plates were parted, so it can’t be called off. Assemble it and hand it back.'],
  sizes: [422, 'It can’t be drawn with these sizes.'],
  'too-many': [429, 'That is more than can be taken in within a minute. Wait a little, and send the rest.'],
  stopped: [499, 'It was stopped; nothing of it came in.'],
  broken: [500, 'Something went wrong in the workshop’s server. Nothing was changed.'],
  'database-away': [503, 'The database does not answer. What you typed is kept; it is tried again.'],
  'database-busy': [503, 'The database is busy. What you typed is kept; it is tried again.'],
  'disk-full': [507, 'The disk is full: this is not kept.'],
  'disk-nearly-full': [507, 'The disk is nearly full, so no more pictures and sounds are kept.'],
} as const satisfies Record<string, readonly [status: number, sentence: string]>

export type RefusalName = keyof typeof REFUSALS
interface More {
  /** the status, where another's error is told on: what a parser of bodies would answer */
  status?: number
  /** the sentence, where this time it says more than the usual one */
  title?: string
  detail?: string
  errors?: FieldProblem[]
  /** what stands instead */
  current?: unknown
}

/** A request that is refused: a status and a sentence a person can act on. */
export class Refused extends Error {
  readonly status: number
  readonly title: string
  readonly rest: Omit<More, 'title' | 'status'>

  constructor(
    readonly code: RefusalName,
    more: More = {},
  ) {
    const { title = REFUSALS[code][1], status = REFUSALS[code][0], ...rest } = more
    super(title)
    this.status = status
    this.title = title
    this.rest = rest
  }
}
