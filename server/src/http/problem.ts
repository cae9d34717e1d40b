import type { ApiProblem } from '@wickerframe/contract'

/** A refusal that a handler throws and the server answers, as RFC 9457 has it. It never carries a stack or SQL. */
export class HttpProblem extends Error {
  readonly body: ApiProblem
  /** Told as `Retry-After`. */
  readonly afterSeconds: number | null
  constructor(
    status: number,
    code: string,
    detail: string,
    more: Pick<ApiProblem, 'problems' | 'clash' | 'edit' | 'remarks'> = {},
    afterSeconds: number | null = null,
  ) {
    super(detail)
    this.afterSeconds = afterSeconds
    this.body = {
      type: `urn:wickerframe:problem:${code}`,
      title: code.replaceAll('-', ' '),
      status,
      detail,
      ...more,
    }
  }
}

export const notFound = (what: string): HttpProblem =>
  new HttpProblem(404, 'not-found', `there is no such ${what}, or it is not yours to see`)
