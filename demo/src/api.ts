import type { AddressInfo } from 'node:net'
import type { Server } from 'node:http'
import { v5 } from 'uuid'

const NAMESPACE = '5f1c2a52-7d0e-4f57-9b54-2f0f5ed1b0aa'

/** The demo's ids are made from names, so that a load broken off can be taken up again. */
export function demoId(name: string): string {
  return v5(name, NAMESPACE)
}

/** The public API of a workshop whose present moment the demo sets. */
export class DemoApi {
  now = new Date()
  who = 'Ida Vos'
  readonly #base: string

  constructor(server: Server) {
    this.#base = `http://127.0.0.1:${(server.address() as AddressInfo).port}/api`
  }

  at(moment: Date, who = this.who): this {
    this.now = moment
    this.who = who
    return this
  }

  async send(method: string, path: string, body: unknown): Promise<unknown> {
    return this.#request(method, path, 'application/json', JSON.stringify(body))
  }

  async sendBytes(path: string, type: string, bytes: Uint8Array<ArrayBuffer>): Promise<unknown> {
    return this.#request('PUT', path, type, bytes)
  }

  async get<T>(path: string): Promise<T> {
    return (await fetch(`${this.#base}${path}`)).json() as Promise<T>
  }

  async #request(method: string, path: string, type: string, body: string | Uint8Array<ArrayBuffer>): Promise<unknown> {
    const answer = await fetch(`${this.#base}${path}`, {
      method,
      headers: { 'Content-Type': type, 'X-Bench': encodeURIComponent(this.who) },
      body,
    })
    const text = await answer.text()
    // 409: a load broken off before had written this row already.
    if (!answer.ok && answer.status !== 409) throw new Error(`${method} ${path}: ${answer.status} ${text}`)
    return text === '' ? null : (JSON.parse(text) as unknown)
  }
}
