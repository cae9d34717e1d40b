import { fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import { userEvent } from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import { newItem, type QuestionSet } from '@wickerframe/core'
import { exampleTemplate } from '@wickerframe/core/testing'
import { openDraft } from '../../../testing/keptDraft.testing.ts'
import { useDraftStore } from '../draftStore.ts'
import { assessmentOf, questionsOfPart } from './assessmentOf.ts'
import { QuestionsEditor } from './QuestionsEditor.tsx'

const Shown = () => {
  const { draft, upper } = useDraftStore()
  const part = assessmentOf(draft, 'test')
  return part && draft ? (
    <QuestionsEditor
      part={part}
      template={draft}
      above={questionsOfPart(upper, 'test')}
      sources={
        { targets: [], assets: [], fields: [], put: () => undefined } as unknown as Parameters<
          typeof QuestionsEditor
        >[0]['sources']
      }
    />
  ) : null
}
let opened = 0
const open = (questions?: QuestionSet) => {
  const draft = exampleTemplate()
  const week = draft.parts[1]
  if (week?.kind === 'module')
    week.items.push({
      ...newItem('assessment', 'test', 'Test'),
      settings: { points: 10 },
      ...(questions ? { questions } : {}),
    })
  const { onServer } = openDraft({ ...draft, key: `questions-${++opened}` })
  render(<Shown />)
  return { user: userEvent.setup(), kept: () => assessmentOf(onServer(), 'test') }
}
const three: QuestionSet = {
  list: [
    {
      key: 'q-1',
      body: {
        kind: 'one-answer',
        text: '<p>Which?</p>',
        points: 4,
        choices: [
          { text: 'red', right: true },
          { text: 'green', right: false },
        ],
        shuffled: true,
      },
    },
    { key: 'q-2', body: { kind: 'true-or-false', text: '<p>So?</p>', points: 4, right: false } },
    { key: 'q-3', left: 'sample', body: { kind: 'essay', text: '', points: 2 } },
  ],
}
const question = (number: number) =>
  screen.getByRole('group', { name: new RegExp(`^Question ${number}`) })

describe('the questions of an assessment', () => {
  it('teach how to begin where there are none', () => {
    open()
    expect(screen.queryByText(/None yet\. Write the first one/)).not.toBeNull()
    expect(screen.queryByText('0 questions, 0 points; the assessment carries 10')).not.toBeNull()
  })

  it('are read with what is right, what they are worth, and what is wrong with them', () => {
    open(three)
    expect(screen.queryByText('3 questions, 10 points')).not.toBeNull()
    expect(within(question(1)).getByText('red').parentElement?.textContent).toContain('right')
    expect(within(question(1)).getByText('green').parentElement?.textContent).not.toContain('right')
    expect(within(question(3)).queryByText('Nothing is asked yet.')).not.toBeNull()
    expect(within(question(3)).queryByText(/It is a sample/)).not.toBeNull()
  })

  it('are moved, taken out and brought back by keys on the question', async () => {
    const { kept } = open(three)
    const keys = () => kept()?.questions?.list.map(({ key }) => key)
    question(1).focus()
    fireEvent.keyDown(question(1), { key: 'ArrowDown', altKey: true })
    await waitFor(() => expect(keys()).toEqual(['q-2', 'q-1', 'q-3']))
    fireEvent.keyDown(question(3), { key: 'Delete' })
    await waitFor(() => expect(keys()).toEqual(['q-2', 'q-1']))
    await waitFor(() => expect(document.activeElement).toBe(question(2)))
    fireEvent.keyDown(question(2), { key: 'z', ctrlKey: true })
    await waitFor(() => expect(keys()).toEqual(['q-2', 'q-1', 'q-3']))
    fireEvent.keyDown(question(2), { key: 'z', ctrlKey: true, shiftKey: true })
    await waitFor(() => expect(keys()).toEqual(['q-2', 'q-1']))
  })

  it('have answers written by Enter and Backspace, and a star marks the right one', async () => {
    const { user, kept } = open(three)
    await user.click(within(question(1)).getByRole('button', { name: 'edit' }))
    await user.click(screen.getByLabelText('Answer 2 of question 1'))
    await user.keyboard('{Enter}white{Enter}')
    await user.keyboard('*')
    await user.keyboard('blue{Enter}{Backspace}')
    expect(document.activeElement).toBe(screen.getByLabelText('Answer 4 of question 1'))
    await user.keyboard('{Escape}')
    await waitFor(() =>
      expect(kept()?.questions?.list[0]?.body).toMatchObject({
        choices: [
          { text: 'red', right: false },
          { text: 'green', right: false },
          { text: 'white', right: false },
          { text: 'blue', right: true },
        ],
      }),
    )
  })

  it('keep what is asked when they become another kind', async () => {
    const { user, kept } = open(three)
    await user.click(within(question(1)).getByRole('button', { name: 'edit' }))
    await user.selectOptions(screen.getByLabelText('Kind of question 1'), 'several-answers')
    await user.click(screen.getByLabelText('Answer 2 of question 1 is right'))
    await user.click(within(question(1)).getByRole('button', { name: 'close' }))
    await waitFor(() =>
      expect(kept()?.questions?.list[0]?.body).toEqual({
        kind: 'several-answers',
        text: '<p>Which?</p>',
        points: 4,
        choices: [
          { text: 'red', right: true },
          { text: 'green', right: true },
        ],
        shuffled: true,
      }),
    )
  })

  it('come from a list, shown as they are read before they are taken', async () => {
    const { user, kept } = open(three)
    await user.click(screen.getByRole('button', { name: 'Take questions from a list …' }))
    fireEvent.change(screen.getByLabelText('The list'), {
      target: {
        value: 'Week 1\n1. Name it. (3 points)\nAnswer: tide\n2. Which?\na) this\nb) that',
      },
    })
    const read = screen.getByRole('region', { name: 'As they are read' })
    await waitFor(() => expect(read.textContent).toContain('short answer, 3 points'))
    expect(read.textContent).toContain('Line 1 stands before the first question')
    expect(read.textContent).toContain('No answer is marked as right.')
    await user.click(screen.getByRole('button', { name: 'Put in 2 questions' }))
    await waitFor(() => expect(kept()?.questions?.list).toHaveLength(5))
    const keys = kept()?.questions?.list.map(({ key }) => key) ?? []
    expect(new Set(keys).size).toBe(5)
  })

  it('are asked of the instructor, so many and about what', async () => {
    const { user, kept } = open()
    await user.click(
      screen.getByRole('checkbox', { name: 'the instructor is asked to write some' }),
    )
    const about = screen.getByLabelText('about, for instance: your syllabus')
    await user.type(about, 'your syllabus')
    fireEvent.blur(about)
    await waitFor(() =>
      expect(kept()?.questions).toEqual({
        list: [],
        asked: { atLeast: 5, about: 'your syllabus' },
      }),
    )
    await user.selectOptions(screen.getByLabelText('Right answers are shown'), 'after-closing')
    await waitFor(() => expect(kept()?.settings.answersShown).toBe('after-closing'))
    await user.click(
      screen.getByRole('checkbox', { name: 'the instructor is asked to write some' }),
    )
    await waitFor(() => expect(kept()).not.toHaveProperty('questions'))
  })
})
