import { fireEvent, render, screen, waitFor } from '@testing-library/react'
import { userEvent } from '@testing-library/user-event'
import { describe, expect, it, vi } from 'vitest'
import { letIn } from '@wickerframe/core'
import { saidBy, withWords } from './formulaNode.ts'
import { RichText } from './RichText.tsx'

const horizon =
  '<math alttext="D is about twice the root of h"><semantics><mrow><mi>D</mi><mo>≈</mo><mn>2</mn><msqrt><mi>h</mi></msqrt></mrow><annotation encoding="application/x-tex">D \\approx 2\\sqrt{h}</annotation></semantics></math>'

const open = async (html: string) => {
  const onDone = vi.fn<(html: string) => void>()
  render(
    <RichText html={html} label="Fixed text" sources={{ parts: [], assets: [] }} onDone={onDone} />,
  )
  const text = await screen.findByRole('textbox', { name: 'Fixed text' })
  fireEvent.focus(text)
  return { user: userEvent.setup(), onDone }
}
const written = async (onDone: { mock: { lastCall?: [string] } }) => {
  await waitFor(() => expect(onDone.mock.lastCall).toBeDefined())
  return onDone.mock.lastCall?.[0] ?? ''
}

describe('a formula in a text', () => {
  it('is typed, shown as it will look, and put in once it is said how it is read aloud', async () => {
    const { user, onDone } = await open('<p>How far? </p>')
    await user.click(screen.getByRole('button', { name: 'formula' }))
    const typing = screen.getByLabelText('The formula, in TeX')
    expect(document.activeElement).toBe(typing)
    await user.click(typing)
    await user.paste('D \\approx 2')
    await user.click(screen.getByRole('button', { name: 'root' }))
    await user.keyboard('h')
    await waitFor(() => expect(screen.getByLabelText('As it will look').textContent).toBe('D≈2h'))
    const put = screen.getByRole<HTMLButtonElement>('button', { name: 'Put formula in' })
    expect(put.disabled).toBe(true)
    await user.type(screen.getByLabelText('How it is read aloud'), 'D is about twice the root of h')
    await user.click(put)
    const html = await written(onDone)
    expect(html).toContain(horizon)
    expect(letIn(html)).toEqual({ html, refused: [] })
  })
  it('that cannot be set is told, with what was typed left as it stands', async () => {
    const { user } = await open('<p>How far?</p>')
    await user.click(screen.getByRole('button', { name: 'formula' }))
    await user.click(screen.getByLabelText('The formula, in TeX'))
    await user.paste('\\frac{1}{')
    await user.type(screen.getByLabelText('How it is read aloud'), 'half')
    expect((await screen.findByRole('alert')).textContent).toMatch(/^This cannot be set: /)
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Put formula in' }).disabled).toBe(
      true,
    )
    expect(screen.getByLabelText<HTMLInputElement>('The formula, in TeX').value).toBe('\\frac{1}{')
  })
  it('stays as it is written while the words around it are edited', async () => {
    const { user, onDone } = await open(`<p>See ${horizon} far</p>`)
    await user.click(screen.getByRole('button', { name: 'numbered list' }))
    expect(await written(onDone)).toBe(`<ol><li><p>See ${horizon} far</p></li></ol>`)
  })
})

describe('what a formula says', () => {
  it('is read, and written anew with other words, in its line or on one of its own', () => {
    expect(saidBy(horizon)).toEqual({
      tex: 'D \\approx 2\\sqrt{h}',
      words: 'D is about twice the root of h',
      isAlone: false,
    })
    const other = withWords(horizon, 'D “almost” <2 roots>', true)
    expect(saidBy(other)).toMatchObject({ words: 'D “almost” <2 roots>', isAlone: true })
    expect(letIn(other)).toEqual({ html: other, refused: [] })
    expect(withWords(other, 'D is about twice the root of h', false)).toBe(horizon)
  })
  it('of one that was pasted without what was typed is its words alone', () => {
    expect(saidBy('<math><mi>h</mi></math>')).toEqual({ tex: null, words: '', isAlone: false })
    expect(withWords('<p>no formula</p>', 'x', false)).toBe('')
    expect(withWords('<math><mi onclick="x()">h</mi></math>', 'h', false)).toBe(
      '<math alttext="h"><mi>h</mi></math>',
    )
  })
})
