import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render } from '@testing-library/react'
import { userEvent } from '@testing-library/user-event'
import type { ReactNode } from 'react'
import { MemoryRouter, Route, Routes, useLocation } from 'react-router'

const Address = ({ told }: { told: (address: string) => void }) => {
  const { pathname, search } = useLocation()
  told(`${pathname}${search}`)
  return null
}

/**
 * Shows a screen, or a part of one, at an address, as the application would.
 * @param path its pattern, where the address has parameters
 */
export const show = (
  screen: ReactNode,
  { address = '/', path = '*' }: { address?: string; path?: string } = {},
) => {
  const client = new QueryClient({
    defaultOptions: { queries: { retry: false, staleTime: Infinity }, mutations: { retry: false } },
  })
  let now = address
  const rendered = render(
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={[address]}>
        <Routes>
          <Route path={path} element={screen} />
          <Route path="*" element={<p>another screen</p>} />
        </Routes>
        <Address
          told={(next) => {
            now = next
          }}
        />
      </MemoryRouter>
    </QueryClientProvider>,
  )
  return { ...rendered, user: userEvent.setup(), client, address: () => now }
}
