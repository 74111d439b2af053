import { vi } from 'vitest'

export type Reply = { status?: number; body: unknown } | Error
export interface Asked {
  readonly method: string
  readonly path: string
  readonly body: unknown
}

/** A server that answers by a function, and a list of what was asked of it. */
export function answering(answer: (asked: Asked) => Reply | Promise<Reply>) {
  const all: Asked[] = []
  vi.stubGlobal('fetch', async (request: Request) => {
    const { pathname, search } = new URL(request.url)
    const text = await request.text()
    const asked = {
      method: request.method,
      path: pathname + search,
      body: request.headers.get('Content-Type') === 'application/json' ? (JSON.parse(text) as unknown) : text,
    }
    all.push(asked)
    const reply = await answer(asked)
    if (reply instanceof Error) throw reply
    return new Response(JSON.stringify(reply.body), { status: reply.status ?? 200 })
  })
  return all
}

/** A server that gives these answers in order. */
export const serve = (...replies: Reply[]) =>
  answering(() => replies.shift() ?? new Error('nothing left to answer'))
