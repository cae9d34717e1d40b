import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode, useState } from 'react'
import { createRoot } from 'react-dom/client'
import { ApiError, call } from './api/client.ts'
import { useMe } from './api/queries.ts'
import { Button, Problem, Waiting } from './controls/controls.tsx'
import { screenOnDemand } from './shell/onDemand.tsx'
import { useTheme } from './shell/useTheme.ts'
import { SignIn } from './shell/SignIn.tsx'
import './styles.css'

// Signing in needs nothing of what comes after it; a one-time link is followed once.
const Welcome = screenOnDemand(async () => (await import('./shell/Welcome.tsx')).Welcome)
const SignedIn = screenOnDemand(async () => (await import('./shell/SignedIn.tsx')).SignedIn)

const client = new QueryClient({
  defaultOptions: {
    // Asked for also while the browser thinks itself offline: then it fails, and says so, and does not wait for ever.
    mutations: { networkMode: 'always' },
    queries: {
      networkMode: 'always',
      retry: (count, cause) =>
        count < 2 &&
        !(cause instanceof ApiError && cause.body.status >= 400 && cause.body.status < 500),
      staleTime: 2000,
    },
  },
})

// The workbench opened by its address: its code and its draft are asked for at once, not one after the other.
const opened = /^\/templates\/([a-z0-9-]+)$/.exec(window.location.pathname)?.[1]
if (opened && opened !== 'new') {
  void import('./screens/workbench/WorkbenchScreen.tsx').catch(() => undefined)
  void client.prefetchQuery({
    queryKey: ['template', opened],
    queryFn: () => call('readDraft', { at: { template: opened } }),
    retry: false,
  })
}

const Application = () => {
  const me = useMe()
  const [isWelcome, setWelcome] = useState(window.location.pathname === '/welcome')
  useTheme(me.data?.theme)
  if (isWelcome)
    return (
      <Welcome
        onDone={() => {
          window.history.replaceState(null, '', '/')
          setWelcome(false)
        }}
      />
    )
  if (me.isPending) return <Waiting what="who you are" />
  if (me.isError)
    return (
      <main id="main" className="mx-auto mt-24 max-w-md">
        <Problem error={me.error} />
        <div className="mt-4">
          <Button shape="main" disabled={me.isFetching} onClick={() => void me.refetch()}>
            Try again
          </Button>
        </div>
      </main>
    )
  return me.data ? <SignedIn me={me.data} /> : <SignIn />
}

const root = document.getElementById('root')
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <Application />
      </QueryClientProvider>
    </StrictMode>,
  )
