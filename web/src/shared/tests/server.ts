import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { RouterLinkStub } from '@vue/test-utils'
import { vi } from 'vitest'
import type { Problem } from '@/shared/api/client'

export type Call = { method: string; path: string; key: string | null; body: unknown }

/** A refusal as the API tells it. */
export const refused = (code: string, init: Partial<Problem> = {}): Problem => ({
  type: 'about:blank',
  title: 'Not recorded',
  status: 422,
  code,
  detail: code,
  fields: [],
  changes: [],
  ...init,
})

const isProblem = (answer: unknown): answer is Problem =>
  typeof answer === 'object' && answer !== null && 'code' in answer && 'detail' in answer

/**
 * A server that answers each path of the test kitchen with what it is given, and remembers what it was
 * asked. A path it was given nothing for fails; `null` is no answer at all.
 */
export function server(answers: Record<string, unknown>): Call[] {
  const calls: Call[] = []
  vi.stubGlobal('fetch', async (asked: Request | string, init?: RequestInit) => {
    const request = asked instanceof Request ? asked : new Request(new URL(asked, location.origin), init)
    const url = new URL(request.url)
    const path = decodeURIComponent(url.pathname.replace('/api/kitchens/test', '') + url.search)
    const text = await request.text()
    calls.push({
      method: request.method,
      path,
      key: request.headers.get('Idempotency-Key'),
      body: text.startsWith('{') ? JSON.parse(text) : text || null,
    })
    const answer = answers[`${request.method} ${path}`]
    if (answer === null) throw new TypeError('no network')
    if (answer === undefined) return Response.json({}, { status: 500 })
    return Response.json(answer, { status: isProblem(answer) ? answer.status : 200 })
  })
  return calls
}

/** What a place needs around it: links that lead nowhere, and queries that nobody asked before. */
export const around = () => ({
  components: { RouterLink: RouterLinkStub },
  plugins: [
    [
      VueQueryPlugin,
      {
        queryClient: new QueryClient({
          defaultOptions: { queries: { retry: false, networkMode: 'always' } },
        }),
      },
    ],
  ] as never,
})

export const plain = (text: string): string => text.replace(/\s+/g, ' ').trim()
