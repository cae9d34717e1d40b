import { compareTemplates, policyProblems, Template } from '@wickerframe/core'
import {
  CloseComment,
  DraftEdits,
  LetContribute,
  NewComment,
  Release,
  RetireVersion,
  TakeOver,
  UseVersion,
} from '@wickerframe/contract'
import type { Pool } from 'mysql2/promise'
import { addComment, closeComment, listComments } from '../../repositories/comments.ts'
import type { Person } from '../../repositories/people.ts'
import {
  addTemplate,
  editDraft,
  findDraft,
  findDraftRevision,
  findVersion,
  letContribute,
  listTemplates,
  releaseDraft,
  retireVersion,
  takeOverUpper,
  useVersion,
} from '../../repositories/templates.ts'
import { bodyOf, numberIn, parameter, type Handler } from '../handler.ts'
import { mustBeLetIn } from '../letIn.ts'
import { HttpProblem, notFound } from '../problem.ts'

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

export const getTemplates: Handler = async ({ pool, person }) => listTemplates(pool, person)

export const postTemplate: Handler = async ({ request, pool, person }) => {
  const template = bodyOf(Template, request)
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
}

export const getTemplate: Handler = async ({ request, pool, person }) => {
  const draft = await findDraft(pool, parameter(request, 'key'), person)
  if (!draft) throw notFound('template')
  return draft
}

export const getDraftRevision: Handler = async ({ request, pool }) => {
  const revision = await findDraftRevision(pool, parameter(request, 'key'))
  if (revision === null) throw notFound('template')
  return { revision }
}

export const getVersion: Handler = async ({ request, pool }) => {
  const version = await findVersion(
    pool,
    parameter(request, 'key'),
    numberIn(request, 'number', 'version'),
  )
  if (!version) throw notFound('version')
  return version.document
}

/** A version by its number, or the draft. */
const stateOf = async (
  pool: Pool,
  key: string,
  which: unknown,
  person: Person,
): Promise<Template> => {
  if (which === 'draft') {
    const draft = await findDraft(pool, key, person)
    if (!draft) throw notFound('template')
    return draft.draft
  }
  const number = Number(which)
  const version =
    Number.isSafeInteger(number) && number > 0 ? await findVersion(pool, key, number) : null
  if (!version) throw notFound('version')
  return version.document
}

export const getComparison: Handler = async ({ request, pool, person }) => {
  const key = parameter(request, 'key')
  return compareTemplates(
    await stateOf(pool, key, request.query['from'], person),
    await stateOf(pool, key, request.query['to'] ?? 'draft', person),
  )
}

export const postEdits: Handler = async ({ request, pool, person }) => {
  const { edits } = bodyOf(DraftEdits, request)
  const outcome = await editDraft(pool, parameter(request, 'key'), edits, person)
  switch (outcome.state) {
    case 'saved':
      return { revision: outcome.revision, draft: outcome.draft }
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
}

export const postTakeOver: Handler = async ({ request, pool, person }) => {
  const { revision, version, dry } = bodyOf(TakeOver, request)
  const outcome = await takeOverUpper(
    pool,
    parameter(request, 'key'),
    revision,
    version,
    dry,
    person,
  )
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
}

export const postRelease: Handler = async ({ request, pool, person }) => {
  const { revision, note } = bodyOf(Release, request)
  const outcome = await releaseDraft(pool, parameter(request, 'key'), revision, note, person)
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
    case 'errors':
      throw new HttpProblem(
        409,
        'proofreading',
        `proofreading found ${outcome.remarks.length === 1 ? 'an error' : `${outcome.remarks.length} errors`}, the first: ${outcome.remarks[0]?.message}`,
        { remarks: outcome.remarks },
      )
  }
}

export const postUse: Handler = async ({ request, pool, person }) => {
  const { uses } = bodyOf(UseVersion, request)
  if (
    !(await useVersion(
      pool,
      parameter(request, 'key'),
      numberIn(request, 'number', 'version'),
      uses,
      person.email,
    ))
  )
    throw new HttpProblem(
      409,
      'retired',
      'there is no such version, or it is retired; bring it back first',
    )
  return {}
}

export const postRetire: Handler = async ({ request, pool, person }) => {
  const { retired } = bodyOf(RetireVersion, request)
  if (
    !(await retireVersion(
      pool,
      parameter(request, 'key'),
      numberIn(request, 'number', 'version'),
      retired,
      person.email,
    ))
  )
    throw notFound('version')
  return {}
}

export const postContributor: Handler = async ({ request, pool, person }) => {
  const { email, may } = bodyOf(LetContribute, request)
  if (!(await letContribute(pool, parameter(request, 'key'), email, may, person.email)))
    throw new HttpProblem(
      404,
      'not-found',
      `there is no such template, or no contributor with the e-mail address ${email}`,
    )
  return {}
}

export const getComments: Handler = async ({ request, pool }) =>
  listComments(pool, parameter(request, 'key'))

export const postComment: Handler = async ({ request, pool, person }) => {
  const id = await addComment(
    pool,
    parameter(request, 'key'),
    bodyOf(NewComment, request),
    person.name,
  )
  if (id === null) throw notFound('template, or comment to answer')
  return { id }
}

export const postCloseComment: Handler = async ({ request, pool, person }) => {
  const { closed } = bodyOf(CloseComment, request)
  if (
    !(await closeComment(
      pool,
      parameter(request, 'key'),
      numberIn(request, 'id', 'comment'),
      closed,
      person.name,
    ))
  )
    throw notFound('comment')
  return {}
}
