import createClient, { type Middleware } from 'openapi-fetch'
import { cookHeader } from './owner'
import { patientFetch } from './patience'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type Problem = Schemas['Problem']
export type Batch = Schemas['BatchOut']
export type Column = Schemas['ColumnOut']
export type Entry = Schemas['LogOut']
export type Content = Schemas['EntryIn']['content']
export type Preview = Schemas['PreviewOut']
export type Recorded = Schemas['RecordedOut']
export type BrieflyRecorded = Schemas['BrieflyRecordedOut']
export type Verdict = Schemas['VerdictOut']
export type Judged = Schemas['JudgedOut']
export type Forecast = Schemas['ForecastOut']
export type Shop = Schemas['ShopOut']
export type Settings = Schemas['SettingsIn']
export type Policy = Schemas['PolicyIn']
export type Summary = Schemas['SummaryOut']
export type Pieces = Schemas['PiecesOut']
export type PieceFacts = Schemas['PieceFactsOut']
export type Task = Schemas['PlannedOut']
export type Cures = Schemas['CuresOut']
export type PieceFire = Schemas['PieceFireOut']

/** A refusal or a lost answer, always as a problem document. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail)
  }
}

export const noConnection: Problem = {
  type: 'about:blank',
  title: 'No connection',
  status: 0,
  code: 'no_connection',
  detail: 'No answer came back. What you typed is kept; trying again is safe and records it only once.',
  fields: [],
  changes: [],
}

export function csrfToken(): string {
  return /(?:^|;\s*)csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? ''
}

const withToken: Middleware = {
  onRequest({ request }) {
    if (request.method !== 'GET') {
      request.headers.set('X-CSRFToken', csrfToken())
      for (const [name, value] of Object.entries(cookHeader())) request.headers.set(name, value)
    }
    return request
  },
}

export const api = createClient<paths>({ baseUrl: '', fetch: (request) => patientFetch(request) })
api.use(withToken)

/** Codes after which the same request may be sent again as it is. */
export const retriable = new Set([
  'no_connection',
  'database_away',
  'busy',
  'server_error',
  'signed_out',
  'stale_page',
])

/** Whether a read that failed `times` times is asked once more by itself: where too many asked at once. */
export const asksAgain = (times: number, error: unknown): boolean =>
  times < 3 && error instanceof ProblemError && error.problem.code === 'busy'

const listeners = new Set<() => void>()

/** Call `listener` whenever an answer says that the session ran out. */
export function onSignedOut(listener: () => void): void {
  listeners.add(listener)
}

/** Tell all who listen that the session ran out. */
export const signedOut = (): void => listeners.forEach((listener) => listener())

/** The data of an answer; whatever went wrong instead is thrown as a ProblemError. */
export async function take<T>(
  answer: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  let got
  try {
    got = await answer
  } catch {
    throw new ProblemError(noConnection)
  }
  if (got.data !== undefined) return got.data
  const problem = asProblem(got.error, got.response.status)
  if (problem.code === 'signed_out') signedOut()
  throw new ProblemError(problem)
}

/** Runs what asks the server; where that is refused or gets no answer, the problem in place of a throw. */
export async function refusal(asking: () => Promise<void>): Promise<Problem | null> {
  try {
    await asking()
    return null
  } catch (error) {
    if (error instanceof ProblemError) return error.problem
    throw error
  }
}

/** Any refusal as a problem document; what is none counts as no answer. */
export function asProblem(error: unknown, status: number): Problem {
  if (typeof error === 'object' && error !== null && 'code' in error && 'detail' in error) {
    return error as Problem
  }
  return { ...noConnection, status }
}
