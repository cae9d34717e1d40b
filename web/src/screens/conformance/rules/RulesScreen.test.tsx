import { screen, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { RuleUse } from '@wickerframe/contract'
import { emptyTemplate, rulesDocument, type Template } from '@wickerframe/core'
import { templateDraft, templateSummary } from '../../../testing/answers.testing.ts'
import { people } from '../../../testing/people.testing.ts'
import { show } from '../../../testing/screen.testing.tsx'
import { Refusal, serve, type Answers } from '../../../testing/server.testing.ts'
import { parametersOf, typedOf, valueOf } from './parameters.ts'
import { RulesScreen } from './RulesScreen.tsx'

const use = (id: string, more: Partial<RuleUse> = {}): RuleUse => ({
  id,
  group: 'structure',
  title: `Rule ${id}`,
  why: `Because of ${id}`,
  strength: 'must',
  parameters: {},
  found: 0,
  courses: 0,
  planned: 0,
  otherwise: 0,
  waived: 0,
  answered: 0,
  open: 0,
  openLong: 0,
  ...more,
})
const most = { type: 'integer', minimum: 1, default: 30, description: 'Items in one module' }
const draftWith = (policies: Template['policies']) =>
  templateDraft({ ...emptyTemplate('harbour', 'Harbour Standard'), policies }, { draftRevision: 7 })
const showRules = (
  rules: RuleUse[],
  { policies = [], ...more }: Answers & { policies?: Template['policies'] } = {},
  me = people.designer,
) => {
  const draft = draftWith(policies)
  const asked = serve({
    ruleUse: rules,
    listTemplates: [templateSummary('harbour')],
    readDraft: draft,
    editDraft: {
      revision: 8,
      savedAt: '2026-09-16T12:00:00Z',
      changesSinceRelease: 1,
      draft: draft.draft,
    },
    ...more,
  })
  return {
    ...show(<RulesScreen me={me} />, { address: '/conformance/rules', path: '/conformance/rules' }),
    asked,
  }
}
const open = async (rule: RuleUse, more: Parameters<typeof showRules>[1] = {}) => {
  const shown = showRules([rule], more)
  await shown.user.click(await screen.findByRole('button', { name: /^Set “/ }))
  const dialog = within(await screen.findByRole('dialog'))
  await dialog.findByLabelText('It is')
  return { ...shown, dialog }
}
const press = 'Set it, and see what it would change'

describe('how the rules fared', () => {
  it('shows the first of them with their counts, and all where that is asked', async () => {
    const { user } = showRules([
      use('first', { found: 9, waived: 3, openLong: 2, open: 4, planned: 1, otherwise: 2 }),
      ...Array.from({ length: 15 }, (_, i) => use(`more-${i}`)),
    ])
    const row = (await screen.findByRole('rowheader', { name: /^Rule first/ })).closest('tr')
    expect(
      [...(row?.querySelectorAll('td') ?? [])].slice(0, 7).map((td) => td.textContent),
    ).toEqual(['9', '1', '2', '3', '–', '4', '2'])
    expect(screen.queryByRole('rowheader', { name: /^Rule more-14/ })).toBeNull()
    await user.click(screen.getByRole('button', { name: 'show all 16 rules' }))
    expect(screen.getByRole('rowheader', { name: /^Rule more-14/ })).toBeTruthy()
  })
  it('lets nobody set a rule who may not edit every draft', async () => {
    showRules([use('first')], {}, people.reviewer)
    await screen.findByRole('rowheader', { name: /^Rule first/ })
    expect(screen.queryByRole('button', { name: /^Set “/ })).toBeNull()
  })
})

describe('setting a rule otherwise', () => {
  it('lowers it in the draft of a template, and leads to what that would change', async () => {
    const others = [{ rule: 'another', off: true, parameters: {} }]
    const { asked, dialog, user, address } = await open(use('first'), { policies: others })
    await user.selectOptions(dialog.getByLabelText('It is'), 'a should')
    await user.click(dialog.getByRole('button', { name: press }))
    expect(await screen.findByText('another screen')).toBeTruthy()
    expect(address()).toBe('/templates/harbour?release=asked')
    expect(asked.find(({ route }) => route === 'editDraft')?.body).toEqual({
      revision: 7,
      edits: [
        {
          edit: 'set-field',
          part: null,
          field: ['policies'],
          was: others,
          value: [...others, { rule: 'first', off: false, strength: 'should', parameters: {} }],
        },
      ],
    })
  })
  it('begins with how the draft has it, and sets only what differs from the rule’s own', async () => {
    const { asked, dialog, user } = await open(use('first', { parameters: { most } }), {
      policies: [
        { rule: 'first', off: false, strength: 'may', parameters: { most: 12, older: 'kept' } },
      ],
    })
    expect(dialog.getByLabelText<HTMLSelectElement>('It is').value).toBe('may')
    const field = dialog.getByLabelText<HTMLInputElement>('Items in one module')
    expect(field.value).toBe('12')
    await user.clear(field)
    await user.type(field, '30')
    await user.click(dialog.getByRole('button', { name: press }))
    await screen.findByText('another screen')
    expect(asked.find(({ route }) => route === 'editDraft')?.body).toMatchObject({
      edits: [
        { value: [{ rule: 'first', off: false, strength: 'may', parameters: { older: 'kept' } }] },
      ],
    })
  })
  it('shows why it was refused, and keeps what was chosen', async () => {
    const { dialog, user } = await open(use('first'), {
      editDraft: () => {
        throw new Refusal(409, 'somebody else edited it')
      },
    })
    await user.selectOptions(dialog.getByLabelText('It is'), 'not asked at all')
    await user.click(dialog.getByRole('button', { name: press }))
    expect(await dialog.findByText(/somebody else edited it/)).toBeTruthy()
    expect(dialog.getByLabelText<HTMLSelectElement>('It is').value).toBe('off')
  })
})

describe('a parameter of a rule', () => {
  it('of every rule there is, is one that a form can set, or is left out', () => {
    for (const rule of rulesDocument().rules)
      for (const one of parametersOf(rule))
        expect(valueOf(one, typedOf(one, one.initial))).toEqual(one.initial)
  })
  it.each([
    ['number', '12', 12],
    ['number', ' ', undefined],
    ['flag', 'true', true],
    ['flag', 'false', false],
    ['choice', 'either', 'either'],
    ['lines', ' one \n\ntwo', ['one', 'two']],
    ['lines', '', []],
  ] as const)('of kind %s, typed as “%s”, is %j', (kind, typed, value) => {
    expect(
      valueOf({ name: 'it', about: '', kind, choices: [], initial: undefined }, typed),
    ).toEqual(value)
  })
})
