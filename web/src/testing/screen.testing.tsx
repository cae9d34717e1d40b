import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render } from '@testing-library/react'
import { userEvent } from '@testing-library/user-event'
import type { ReactNode } from 'react'
import { BrowserRouter, Route, Routes } from 'react-router'

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
  window.history.replaceState(null, '', address)
  const rendered = render(
    <QueryClientProvider client={client}>
      <BrowserRouter>
        <Routes>
          <Route path={path} element={screen} />
          <Route path="*" element={<p>another screen</p>} />
        </Routes>
      </BrowserRouter>
    </QueryClientProvider>,
  )
  return {
    ...rendered,
    user: userEvent.setup(),
    client,
    address: () => `${window.location.pathname}${window.location.search}`,
  }
}
