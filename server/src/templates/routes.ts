import { type templateRoutes } from '@wickerframe/contract'
import type { HandlersOf } from '../http/handler.ts'
import { compareTemplates, policyProblems, Template } from '@wickerframe/core'
import type { Pool } from 'mysql2/promise'
import { addComment, closeComment, listComments } from './comments.ts'
import type { Person } from '../people/people.ts'
import {
  addTemplate,
  editDraft,
  findDraft,
  findDraftRevision,
  findVersion,
  letContribute,
  letLookAfter,
  listTemplates,
  findDraftToRelease,
  releaseDraft,
  retireVersion,
  takeOverUpper,
  useVersion,
} from './templates.ts'
import { mustBeLetIn } from '../http/letIn.ts'
import { mustLookAfter } from '../courses/departments.ts'
import { HttpProblem, notFound } from '../http/problem.ts'

const unusable = (
  problems: readonly { path: string; found: string; expected: string; code: string }[],
): HttpProblem => {
  const first = problems[0]
  return new HttpProblem(
    400,
    'unusable-input',
    `at ${first?.path || '/'}: found ${first?.found}; expected ${first?.expected}`,
    { problems: problems.slice(0, 50) },
  )
}
const weakens = (
  problems: readonly { path: string; found: string; expected: string; code: string }[],
): HttpProblem =>
  new HttpProblem(
    409,
    'weakens',
    `a layer adds to what stands above and weakens nothing of it: ${problems[0]?.expected} (at ${problems[0]?.path})`,
    { problems: problems.slice(0, 50) },
  )

/** A version by its number, or the draft. */
const stateOf = async (
  pool: Pool,
  key: string,
  which: number | 'draft',
  person: Person,
): Promise<Template> => {
  if (which === 'draft') {
    const draft = await findDraft(pool, key, person)
    if (!draft) throw notFound('template')
    return draft.draft
  }
  const version = await findVersion(pool, key, which)
  if (!version) throw notFound('version')
  return version.document
}

export const templateHandlers: HandlersOf<typeof templateRoutes> = {
  listTemplates: async ({ pool, person }) => listTemplates(pool, person),
  addTemplate: async ({ pool, person, body }) => {
    const template = body
    mustBeLetIn(template)
    const problems = policyProblems(template)
    if (problems.length > 0) throw unusable(problems)
    const outcome = await addTemplate(pool, template, person.email)
    switch (outcome.state) {
      case 'added':
        return { key: template.key }
      case 'taken':
        throw new HttpProblem(
          409,
          'taken',
          `there is a template with the key ${template.key} already; give this one another key`,
        )
      case 'no-upper':
        throw new HttpProblem(
          409,
          'no-upper',
          `it is built on version ${template.extends?.version} of ${template.extends?.template}, which is not here; bring that in and release it first`,
        )
      case 'weakens':
        throw weakens(outcome.problems)
    }
  },
  readDraft: async ({ pool, person, at }) => {
    const draft = await findDraft(pool, at.template, person)
    if (!draft) throw notFound('template')
    return draft
  },
  readVersion: async ({ pool, at }) => {
    const version = await findVersion(pool, at.template, at.version)
    if (!version) throw notFound('version')
    return version.document
  },
  editDraft: async ({ pool, person, at, body }) => {
    const { edits } = body
    const outcome = await editDraft(pool, at.template, edits, person)
    switch (outcome.state) {
      case 'saved':
        return {
          revision: outcome.revision,
          savedAt: outcome.savedAt,
          changesSinceRelease: outcome.changesSinceRelease,
          draft: outcome.draft,
        }
      case 'missing':
        throw notFound('template')
      case 'not-allowed-to':
        throw new HttpProblem(403, 'not-allowed', 'this template is not one you contribute to')
      case 'bad-policy':
        throw unusable(outcome.problems)
      case 'weakens':
        throw weakens(outcome.problems)
      case 'refused': {
        const { problem, at } = outcome
        if (problem.code === 'clash')
          throw new HttpProblem(
            409,
            'clash',
            `${problem.where} was changed by somebody else meanwhile`,
            { clash: problem, edit: at },
          )
        if (problem.code === 'gone')
          throw new HttpProblem(409, 'gone', `${problem.where} is not in the draft any more`, {
            edit: at,
          })
        throw new HttpProblem(
          400,
          'unusable-input',
          `${problem.where}: ${problem.problems[0]?.expected ?? 'not allowed'}`,
          { problems: problem.problems, edit: at },
        )
      }
    }
  },
  draftRevision: async ({ pool, at }) => {
    const revision = await findDraftRevision(pool, at.template)
    if (revision === null) throw notFound('template')
    return { revision }
  },
  compareVersions: async ({ pool, person, at, query }) => {
    const key = at.template
    return compareTemplates(
      await stateOf(pool, key, query.from, person),
      await stateOf(pool, key, query.to, person),
    )
  },
  takeOver: async ({ pool, person, at, body }) => {
    const { revision, version, dry } = body
    const outcome = await takeOverUpper(pool, at.template, revision, version, dry, person)
    switch (outcome.state) {
      case 'taken-over':
        return outcome.answer
      case 'missing':
        throw notFound('template')
      case 'not-allowed-to':
        throw new HttpProblem(403, 'not-allowed', 'this template is not one you contribute to')
      case 'no-layer':
        throw new HttpProblem(409, 'no-layer', 'this template is built on no other')
      case 'no-version':
        throw notFound('version of the layer above')
      case 'stale':
        throw new HttpProblem(
          409,
          'stale',
          'the draft was changed since you looked at it; look again before you take anything over',
        )
      case 'unusable':
        throw unusable(outcome.problems)
    }
  },
  useVersion: async ({ pool, person, at, body }) => {
    const { uses } = body
    mustLookAfter(
      person,
      uses.map(({ department }) => department),
    )
    if (!(await useVersion(pool, at.template, at.version, uses, person.email)))
      throw new HttpProblem(
        409,
        'retired',
        'there is no such version, or it is retired; bring it back first',
      )
    return {}
  },
  retireVersion: async ({ pool, person, at, body }) => {
    const { retired } = body
    if (!(await retireVersion(pool, at.template, at.version, retired, person.email)))
      throw notFound('version')
    return {}
  },
  letLookAfter: async ({ pool, person, at, body }) => {
    const { email, may } = body
    if (!(await letLookAfter(pool, at.template, email, may, person.email)))
      throw new HttpProblem(
        404,
        'not-found',
        `there is no such template, or no designer with the e-mail address ${email}`,
      )
    return {}
  },
  letContribute: async ({ pool, person, at, body }) => {
    const { email, may } = body
    if (!(await letContribute(pool, at.template, email, may, person.email)))
      throw new HttpProblem(
        404,
        'not-found',
        `there is no such template, or no contributor with the e-mail address ${email}`,
      )
    return {}
  },
  listComments: async ({ pool, at }) => listComments(pool, at.template),
  addComment: async ({ pool, person, at, body }) => {
    const id = await addComment(pool, at.template, body, person.name)
    if (id === null) throw notFound('template, or comment to answer')
    return { id }
  },
  closeComment: async ({ pool, person, at, body }) => {
    const { closed } = body
    if (!(await closeComment(pool, at.template, at.comment, closed, person.name)))
      throw notFound('comment')
    return {}
  },
  releaseDraft: async ({ pool, person, at, body, platformUrl, publicUrl }) => {
    const { revision, note } = body
    const draft = await findDraftToRelease(pool, at.template)
    const own = [platformUrl, publicUrl].map((url) => new URL(url).hostname)
    const wrong = draft?.template.frameHosts?.find((host) => own.includes(host))
    if (wrong !== undefined && draft?.revision === revision)
      throw new HttpProblem(
        409,
        'own-host',
        `what is shown within pages from ${wrong} could act there in the name of whoever reads: it is where the platform, or Wickerframe, itself is. Take it out under “The course”`,
      )
    const outcome = await releaseDraft(pool, at.template, revision, note, person)
    switch (outcome.state) {
      case 'released':
        return { version: outcome.version }
      case 'missing':
        throw notFound('template')
      case 'stale':
        throw new HttpProblem(
          409,
          'stale',
          'the draft was changed since you looked at it; look again before you release',
        )
      case 'nothing-new':
        throw new HttpProblem(
          409,
          'nothing-new',
          `the draft is the same as version ${outcome.version}`,
        )
      case 'files-not-kept':
        throw new HttpProblem(
          409,
          'files-not-kept',
          `the bytes of ${outcome.names.map((name) => `“${name}”`).join(', ')} are not here, as happens where a template came from elsewhere; bring each in again under Shared pieces`,
        )
      case 'errors':
        throw new HttpProblem(
          409,
          'proofreading',
          `proofreading found ${outcome.remarks.length === 1 ? 'an error' : `${outcome.remarks.length} errors`}, the first: ${outcome.remarks[0]?.message}`,
          { remarks: outcome.remarks },
        )
    }
  },
}
