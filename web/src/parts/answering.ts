/** In a worker: answers each question with what is reckoned of it. */
export function answering<Q, A>(reckon: (question: Q) => A): void {
  self.onmessage = ({ data }: MessageEvent<Q>) => self.postMessage(reckon(data))
}
