import { policyProblems, Template } from '@wickerframe/core'
import { DraftEdits, Release } from '@wickerframe/contract'
import { addTemplate, editDraft, findDraft, findVersion, listTemplates, releaseDraft } from '../../repositories/templates.ts'
import { bodyOf, numberIn, parameter, type Handler } from '../handler.ts'
import { HttpProblem, notFound } from '../problem.ts'

export const getTemplates: Handler = async ({ pool, person }) => listTemplates(pool, person)

export const postTemplate: Handler = async ({ request, pool, person }) => {
  const template = bodyOf(Template, request)
  const problems = policyProblems(template)
  if (problems.length > 0) throw new HttpProblem(400, 'unusable-input', `at ${problems[0]?.path}: found ${problems[0]?.found}; expected ${problems[0]?.expected}`, { problems })
  if ((await addTemplate(pool, template, person.email)) === 'taken') throw new HttpProblem(409, 'taken', `there is a template with the key ${template.key} already; give this one another key`)
  return { key: template.key }
}

export const getTemplate: Handler = async ({ request, pool, person }) => {
  const draft = await findDraft(pool, parameter(request, 'key'), person)
  if (!draft) throw notFound('template')
  return draft
}

export const getVersion: Handler = async ({ request, pool }) => {
  const version = await findVersion(pool, parameter(request, 'key'), numberIn(request, 'number', 'version'))
  if (!version) throw notFound('version')
  return version.document
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
      throw new HttpProblem(400, 'unusable-input', `at ${outcome.problems[0]?.path}: ${outcome.problems[0]?.expected}`, { problems: outcome.problems })
    case 'refused': {
      const { problem } = outcome
      if (problem.code === 'clash') throw new HttpProblem(409, 'clash', `${problem.where} was changed by somebody else meanwhile`, { clash: problem })
      if (problem.code === 'gone') throw new HttpProblem(409, 'gone', `${problem.where} is not in the draft any more`)
      throw new HttpProblem(400, 'unusable-input', `${problem.where}: ${problem.problems[0]?.expected ?? 'not allowed'}`, { problems: problem.problems })
    }
  }
}

export const postRelease: Handler = async ({ request, pool, person }) => {
  const { revision, note } = bodyOf(Release, request)
  const outcome = await releaseDraft(pool, parameter(request, 'key'), revision, note, person)
  if (outcome.state === 'missing') throw notFound('template')
  if (outcome.state === 'stale') throw new HttpProblem(409, 'stale', 'the draft was changed since you looked at it; look again before you release')
  if (outcome.state === 'nothing-new') throw new HttpProblem(409, 'nothing-new', `the draft is the same as version ${outcome.version}`)
  return { version: outcome.version }
}
