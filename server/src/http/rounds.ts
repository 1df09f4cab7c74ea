/**
 * Answers, as JSON, that many ask for at once: whoever asks while one is reckoned shares the next one with all others
 * who wait. None gets an answer that was begun before it asked, so a change of one's own is always in it.
 */
export function inNextRound<A>(
  reckon: (key: string, asked: A) => Promise<object>,
): (key: string, asked: A) => Promise<string> {
  const rounds = new Map<string, { running: Promise<unknown>; next: Promise<string> | null }>()
  const begin = (key: string, asked: A): Promise<string> => {
    const answer = reckon(key, asked).then((value) => JSON.stringify(value))
    const round = { running: answer, next: null }
    rounds.set(key, round)
    const over = () => {
      if (rounds.get(key) === round && round.next === null) rounds.delete(key)
    }
    answer.then(over, over)
    return answer
  }
  return (key, asked) => {
    const round = rounds.get(key)
    if (!round) return begin(key, asked)
    round.next ??= round.running.then(
      () => begin(key, asked),
      () => begin(key, asked),
    )
    return round.next
  }
}
