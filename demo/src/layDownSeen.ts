import { demoId, type DemoApi } from './api.ts'
import { countTrain, observe } from './arrivals.ts'
import { putRow } from './history.ts'
import { dialPicture } from './pictures.ts'

/** What was seen, asked and counted on the clocks as they came, and the state of one. */
export async function layDownSeen(
  api: DemoApi,
  ago: (days: number) => Date,
  jobs: Record<'bracket' | 'cafe' | 'ferry' | 'regulator' | 'school', string>,
): Promise<void> {
  api.at(ago(5.9), 'Ida Vos')
  await observe(api, jobs.school, 'hands', { answer: 'sound' })
  await observe(api, jobs.school, 'dial', { answer: 'watch', note: 'Repainted once; flaking at IX.' })
  await observe(api, jobs.school, 'case', { answer: 'sound' })
  await observe(api, jobs.school, 'arc', { figure: 5, second: 2 })
  await observe(api, jobs.school, 'drive', { answer: 'turns', figure: 7, second: 2.5 })
  await observe(api, jobs.school, 'ask tiltCures', { answer: 'yes' })
  const pair = { cannonPinion: 12, minuteWheel: 36, minutePinion: 10, hourWheel: 40 }
  await countTrain(
    api,
    jobs.school,
    [
      ['Great', null, 84],
      ['Centre', 7, 84],
      ['Third', 7, 80],
      ['Escape', 8, 30],
    ],
    { greatTurns: 16, motion: pair, faultPeriodS: 30 },
  )
  await countTrain(api.at(ago(19)), jobs.ferry, [
    ['Great', null, 72],
    ['Centre', 6, 72],
    ['Third', 8, null],
    ['Escape', 8, 30],
  ])
  await observe(api, jobs.ferry, 'drive', { answer: 'kg', figure: 2.2, second: 2.6, note: 'The keys weigh 0.4 kg.' })
  await observe(api, jobs.ferry, 'ask worseCold', { answer: 'unknown' })

  const photoId = demoId('photo bracket')
  await api
    .at(ago(32.8), 'Ida Vos')
    .sendBytes(`/jobs/${jobs.bracket}/photos/${photoId}?caption=As+it+came+in`, 'image/jpeg', await dialPicture(5))
  const seen: [kind: string, name: string, part: string, note: string, x: number, y: number][] = [
    ['part', 'Minute hand', 'old-replacement', 'Longer than the hour ring asks for.', 0.56, 0.36],
    ['part', 'Chapter ring', 'original', '', 0.3, 0.3],
    ['plugged-hole', 'Winding hole at 9, plugged', 'later', 'Was there an alarm once?', 0.42, 0.54],
    ['mark', 'A gull among the leaves of the back plate', 'original', 'No name.', 0.62, 0.7],
  ]
  for (const [kind, name, part, note, x, y] of seen)
    await putRow(api, jobs.bracket, 'conditions', `condition ${name}`, { kind, name, class: part, note, photoId, x, y })
  await putRow(api.at(ago(20)), jobs.cafe, 'causes', 'cause cafe', {
    cause: 'worn-holes',
    note: 'The escape arbor’s back hole; full of people, the floor moves and the arc is too small to bear it.',
  })
  await countTrain(api.at(ago(95)), jobs.regulator, [
    ['Great', null, 144],
    ['Centre', 12, 80],
    ['Third', 10, 75],
    ['Escape', 10, 30],
  ])
}
