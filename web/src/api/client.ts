/** The typed client of the API, and its one way of failing. */
import createClient from 'openapi-fetch'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type Problem = Schemas['ProblemOut']

/** Headers of every request. */
export const requestHeaders = new Map<string, string>()

/** Headers are set in here and not by a middleware, which would wait: a reading leaves before anything is drawn anew. */
export const client = createClient<paths>({
  baseUrl: window.location.origin,
  fetch: (request) => {
    for (const [name, value] of requestHeaders) request.headers.set(name, value)
    return fetch(request)
  },
})

/** This window's id: kept while it is open, also when it is loaded again. */
const WINDOW_KEY = 'tabrel.window'
const windowId = sessionStorage.getItem(WINDOW_KEY) ?? newWindow()

function newWindow(): string {
  const id = Array.from(crypto.getRandomValues(new Uint32Array(3)), (part) => part.toString(36)).join('-')
  sessionStorage.setItem(WINDOW_KEY, id)
  return id
}

requestHeaders.set('Tabrel-Window', windowId)

/** An answer of the server that says what is wrong and where. */
export class ProblemError extends Error {
  readonly where: string
  readonly missing: readonly string[]
  /** Of the answer; 0 where none came. */
  readonly status: number

  constructor(problem: Pick<Problem, 'detail' | 'where' | 'missing'>, status = 0) {
    super(problem.detail)
    this.where = problem.where
    this.missing = problem.missing
    this.status = status
  }
}

interface Answer<T> {
  data?: T
  error?: unknown
  response: Response
}

/** Return the data of an answer, or throw what the server said. */
export async function unwrap<T>(pending: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>
  try {
    answer = await pending
  } catch (error) {
    if (error instanceof ProblemError) throw error // refused before it was asked for
    throw new ProblemError({
      detail: 'The server does not answer: see whether Tabrel is still running, then try again.',
      where: '',
      missing: [],
    })
  }
  if (answer.data !== undefined) return answer.data
  if (answer.response.status === 204) return undefined as T
  const body = answer.error as Partial<Problem> | undefined
  const { status } = answer.response
  const problem = {
    detail: body?.detail ?? `The server answered ${status} without a reason: try again.`,
    where: body?.where ?? '',
    missing: body?.missing ?? [],
  }
  throw new ProblemError(problem, status)
}
