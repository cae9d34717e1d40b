import { render, screen, within } from '@testing-library/react'
import { userEvent } from '@testing-library/user-event'
import { useState } from 'react'
import { describe, expect, it } from 'vitest'
import { usualSentences, templateFromSentences, type Template } from '@wickerframe/core'
import { NavigationEntries } from './NavigationEntries.tsx'

const template = (): Template => {
  const made = templateFromSentences(usualSentences())
  if (!made.ok) throw new Error(JSON.stringify(made.problems))
  return made.value
}

/** The entries with a template that takes each edit. */
const Edited = ({ start, told }: { start: Template; told: unknown[][] }) => {
  const [now, setNow] = useState(start)
  return (
    <NavigationEntries
      template={now}
      set={(field, was, value) => {
        told.push([field, was, value])
        const [, key, name] = field
        if (value === null && name === undefined) return
        setNow({
          ...now,
          navigation:
            name === undefined
              ? [...now.navigation, value as Template['navigation'][number]]
              : now.navigation.map((entry) =>
                  entry.key === key ? { ...entry, [name]: value ?? undefined } : entry,
                ),
        })
      }}
    />
  )
}
const shown = (start: Template = template()) => {
  const told: unknown[][] = []
  render(<Edited start={start} told={told} />)
  return told
}
const typing = () => screen.getByRole('combobox', { name: /leads to: a part/ })
const options = () =>
  within(screen.getByRole('listbox', { name: 'Places' }))
    .getAllByRole('option')
    .map(({ textContent }) => textContent)

describe('the navigation of a template', () => {
  it('says where each entry leads, also to a part that is no longer there', () => {
    const start = template()
    start.navigation.push({
      key: 'old',
      label: 'Old',
      hidden: false,
      strength: 'may',
      to: 'part:gone',
    })
    shown(start)
    expect(screen.queryByRole('button', { name: '“Home” leads to the home page' })).not.toBeNull()
    expect(
      screen.queryByRole('button', { name: '“Old” leads to a part that is not there any more' }),
    ).not.toBeNull()
  })
  it('finds a place, a part or an address by what is typed, by keyboard alone, and comes back to the entry', async () => {
    const user = userEvent.setup()
    const told = shown()
    await user.click(screen.getByRole('button', { name: /“Home” leads/ }))
    const field = typing()
    expect(document.activeElement).toBe(field)
    await user.type(field, 'grad')
    expect(options()).toContain('the grades')
    await user.keyboard('{Enter}')
    expect(told).toEqual([[['navigation', 'home', 'to'], 'place:home', 'place:grades']])
    const button = screen.getByRole('button', { name: '“Home” leads to the grades' })
    expect(document.activeElement).toBe(button)
    await user.keyboard('{Enter}')
    await user.type(typing(), 'charts.example/tides{Enter}')
    expect(told.at(-1)).toEqual([
      ['navigation', 'home', 'to'],
      'place:grades',
      'https://charts.example/tides',
    ])
    await user.keyboard('{Enter}')
    const [part] = template().parts
    await user.type(typing(), part?.name.slice(0, 6) ?? '')
    expect(options()).toContain(part?.name)
    await user.keyboard('{Escape}')
    expect(document.activeElement).toBe(
      screen.getByRole('button', { name: /“Home” leads to https/ }),
    )
  })
  it('offers no mail and nothing that runs', async () => {
    const user = userEvent.setup()
    shown()
    await user.click(screen.getByRole('button', { name: /“Home” leads/ }))
    await user.type(typing(), 'me@college.example')
    expect(screen.queryByRole('listbox', { name: 'Places' })?.children).toHaveLength(0)
    await user.clear(typing())
    await user.type(typing(), 'javascript:alert(1)')
    expect(screen.queryByRole('listbox', { name: 'Places' })?.children).toHaveLength(0)
  })
  it('goes back to what the platform has under the name', async () => {
    const user = userEvent.setup()
    const told = shown()
    await user.click(screen.getByRole('button', { name: /“Home” leads/ }))
    await user.click(screen.getByRole('option', { name: 'what the platform has under that name' }))
    expect(told).toEqual([[['navigation', 'home', 'to'], 'place:home', null]])
  })
  it('has the name of a new entry selected', async () => {
    const user = userEvent.setup()
    shown()
    await user.click(screen.getByRole('button', { name: 'Add an entry' }))
    const name = screen.getByDisplayValue('New entry')
    expect(document.activeElement).toBe(name)
    await user.keyboard('Help')
    expect(screen.queryByDisplayValue('Help')).not.toBeNull()
  })
})
