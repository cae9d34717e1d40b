import { fireEvent, render, screen, waitFor } from '@testing-library/react'
import { userEvent } from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import { everyItem, newItem, type ItemKind } from '@wickerframe/core'
import { exampleTemplate } from '@wickerframe/core/testing'
import { openDraft } from '../../testing/keptDraft.testing.ts'
import { useDraftStore } from './draftStore.ts'
import { PartSettings } from './PartSettings.tsx'

const Shown = () => {
  const { draft } = useDraftStore()
  const part = draft && everyItem(draft).find(({ key }) => key === 'lab')
  return part ? (
    <PartSettings
      part={part}
      template={draft}
      expected={null}
      timeZone="America/Halifax"
      onOpen={() => undefined}
    />
  ) : null
}
let opened = 0
const open = (kind: ItemKind) => {
  const draft = exampleTemplate()
  const week = draft.parts[1]
  if (week?.kind === 'module') week.items.push(newItem(kind, 'lab', 'Lab {number}'))
  const { onServer } = openDraft({ ...draft, key: `settings-${++opened}` })
  render(<Shown />)
  const settings = () => everyItem(onServer()).find(({ key }) => key === 'lab')?.settings
  return { user: userEvent.setup(), settings }
}

describe('the settings of a part', () => {
  it('of an event ask how long it lasts and where it is held, and nothing of work', async () => {
    const { user, settings } = open('event')
    expect(screen.queryByLabelText('Points')).toBeNull()
    expect(screen.queryByLabelText('Attempts')).toBeNull()
    const minutes = screen.getByLabelText('Minutes it lasts')
    await user.type(minutes, '90')
    fireEvent.blur(minutes)
    const where = screen.getByLabelText('Where it is held')
    await user.type(where, 'Simulator, east wing')
    fireEvent.blur(where)
    await waitFor(() =>
      expect(settings()).toMatchObject({ minutes: 90, where: 'Simulator, east wing' }),
    )
    expect(screen.queryByText('90 minutes, Simulator, east wing')).not.toBeNull()
    await user.clear(where)
    fireEvent.blur(where)
    await waitFor(() => expect(settings()).not.toHaveProperty('where'))
  })
  it('of work ask for points, attempts and minutes allowed', () => {
    open('assessment')
    for (const label of ['Points', 'Attempts', 'Minutes allowed'])
      expect(screen.queryByLabelText(label)).not.toBeNull()
    expect(screen.queryByLabelText('Where it is held')).toBeNull()
  })
})
