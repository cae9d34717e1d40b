import { DropdownMenu } from 'radix-ui'
import { useEffect, useRef, useState } from 'react'
import { Link, NavLink, Outlet, useLocation, useNavigate } from 'react-router'
import { instructionalWeeks } from '@wickerframe/core'
import type { Me } from '@wickerframe/contract'
import { may, rolesInWords } from '@wickerframe/contract/capabilities'
import { screens } from '../screens/screens.tsx'
import { useTerms } from '../api/queries.ts'
import { FindOrDo, type Place } from './findOrDo/FindOrDo.tsx'
import { useUnder } from './findOrDo/useUnder.ts'
import { Connection } from './Connection.tsx'
import { Failure } from './Failure.tsx'
import { signOut } from './signOut.ts'

/** What stands in the navigation of somebody, and in the menu that bears their name. */
const placesFor = (me: Me) =>
  screens.flatMap(({ path, name, needs, ofPerson = false }) =>
    name !== undefined && may(me, needs) ? [{ to: path, name, ofPerson }] : [],
  )

const TermNow = ({ today }: { today: string }) => {
  const terms = useTerms()
  const term =
    terms.data?.find(({ firstDay, lastDay }) => firstDay <= today && today <= lastDay) ??
    terms.data?.[0]
  if (!term) return null
  const weeks = instructionalWeeks({ term })
  const week = weeks.find((week) => week.first <= today && today <= week.last)
  return (
    <p className="border border-line bg-sheet px-2 py-1">
      <span className="font-semibold">{term.title}</span>{' '}
      <span className="text-ink-3">{week ? `week ${week.number} of ${weeks.length}` : today}</span>
    </p>
  )
}

/** What is about the person: where administrators read what was done, and signing out, here or on every device. */
const PersonMenu = ({ me, onSignOut }: { me: Me; onSignOut: (everywhere: boolean) => void }) => {
  const navigate = useNavigate()
  const entries: { text: string; does: () => void }[] = [
    ...placesFor(me)
      .filter((place) => place.ofPerson)
      .map(({ name, to }) => ({ text: name, does: () => void navigate(to) })),
    { text: 'Sign out on this device', does: () => onSignOut(false) },
    { text: 'Sign out on all devices', does: () => onSignOut(true) },
  ]
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        title={`${me.name}, ${rolesInWords(me.roles)}`}
        className="flex items-baseline gap-1.5 border border-transparent px-1 py-1 data-[state=open]:border-line"
      >
        {me.name}
        <span className="sr-only">, {rolesInWords(me.roles)}: sign out and more</span>
        <span aria-hidden="true" className="text-[11px] text-ink-3">
          ▾
        </span>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          className="z-10 border border-line-strong bg-sheet py-1"
        >
          {entries.map(({ text, does }) => (
            <DropdownMenu.Item
              key={text}
              className="cursor-pointer px-3 py-1.5 data-highlighted:bg-tide-soft"
              onSelect={does}
            >
              {text}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}

export const Shell = ({ me }: { me: Me }) => {
  const navigate = useNavigate()
  const location = useLocation()
  const findOrDo = useUnder()
  const { open: openBox } = findOrDo
  const places = placesFor(me)
  const shown = places.filter((place) => !place.ofPerson)
  const shownPath = useRef(location.pathname)

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing =
        event.target instanceof HTMLElement &&
        (event.target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName))
      if (typing || event.ctrlKey || event.metaKey || event.altKey) return
      if (event.key === '/' || event.key === '?') {
        event.preventDefault()
        openBox()
      }
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [openBox])
  // After moving to another screen, a screen reader goes on from its title.
  useEffect(() => {
    if (shownPath.current === location.pathname) return
    shownPath.current = location.pathname
    document.querySelector<HTMLElement>('#main h1')?.focus({ preventScroll: true })
  }, [location.pathname])

  const [stillIn, setStillIn] = useState<string | null>(null)
  const leave = async (everywhere: boolean) =>
    setStillIn(await signOut(everywhere, () => window.location.assign('/')))
  const anywhere: Place[] = [
    ...places.map(({ to, name }) => ({ name, does: () => void navigate(to) })),
    { name: 'Sign out on this device', does: () => void leave(false) },
    { name: 'Sign out on all devices', does: () => void leave(true) },
  ]
  return (
    <>
      <a href="#main" className="sr-only focus:not-sr-only focus:absolute focus:bg-sheet focus:p-2">
        To the content
      </a>
      <header className="bg-paper print:hidden">
        <div className="mx-auto flex max-w-[1400px] flex-wrap items-center gap-x-4 gap-y-1 px-6 py-2">
          <Link to="/" className="flex items-center gap-2 font-serif text-[19px] font-semibold">
            <img
              src="/mark.svg"
              alt=""
              width="22"
              height="22"
              className="rounded-xs bg-[#fbf8f1]"
            />{' '}
            Wickerframe
          </Link>
          <nav aria-label="Main">
            <ul className="flex flex-wrap">
              {shown.map((place) => (
                <li key={place.to}>
                  <NavLink
                    to={place.to}
                    className={({ isActive }) =>
                      `block border-b-2 px-2 py-1.5 ${isActive ? 'border-tide font-semibold' : 'border-transparent text-ink-2'}`
                    }
                  >
                    {place.name}
                  </NavLink>
                </li>
              ))}
            </ul>
          </nav>
          <div className="ml-auto flex flex-wrap items-center gap-3">
            <button
              type="button"
              onClick={findOrDo.open}
              className="flex w-36 justify-between whitespace-nowrap border border-line-strong bg-sheet px-2 py-1 text-ink-3"
            >
              Find or do … <kbd className="border border-line px-1 font-mono text-[11px]">/</kbd>
            </button>
            <TermNow today={me.today} />
            <PersonMenu me={me} onSignOut={(everywhere) => void leave(everywhere)} />
          </div>
        </div>
        <div className="woven-edge" />
        <Connection />
        {stillIn !== null && (
          <p role="alert" className="mx-auto max-w-[1400px] bg-rust-soft px-6 py-2">
            You are still signed in. {stillIn}
          </p>
        )}
      </header>
      <Failure key={location.pathname}>
        <Outlet />
      </Failure>
      <FindOrDo over={findOrDo.over} onClose={findOrDo.close} places={anywhere} />
    </>
  )
}
