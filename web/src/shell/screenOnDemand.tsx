import { useEffect, useReducer, type ComponentType } from 'react'
import { Button, Page, Problem, Waiting } from '../controls/controls.tsx'

const notThere = new Error(
  'This screen’s own code could not be fetched: the server cannot be reached, or a newer Wickerframe was put in place.',
)

/**
 * A screen whose code comes when it is opened. Once the code is there it is drawn at once: a lazy component would first
 * show its placeholder, and React keeps a placeholder for 300 ms. Where it does not come, that is said, and it can be asked
 * for again.
 */
export const screenOnDemand = <P extends object>(
  load: () => Promise<ComponentType<P>>,
): ComponentType<P> & { fetchCode: () => Promise<void> } => {
  let Loaded: ComponentType<P> | null = null
  let failed = false
  const fetchCode = async () => {
    try {
      Loaded ??= await load()
      failed = false
    } catch {
      failed = true
    }
  }
  const again = async () => {
    await fetchCode()
    // A browser may remember that the code did not come; a page loaded anew asks for it once more.
    if (failed && navigator.onLine) window.location.reload()
  }
  const Screen = (props: P) => {
    const [, drawAgain] = useReducer((count: number) => count + 1, 0)
    useEffect(() => {
      const ask = () => {
        if (!Loaded) void fetchCode().then(drawAgain)
      }
      ask()
      window.addEventListener('online', ask)
      return () => window.removeEventListener('online', ask)
    }, [])
    if (Loaded) return <Loaded {...props} />
    if (!failed) return <Waiting what="this screen" />
    return (
      <Page title="Not here yet">
        <div className="mt-3">
          <Problem error={notThere} />
        </div>
        <div className="mt-4">
          <Button shape="main" onClick={() => void again().then(drawAgain)}>
            Try again
          </Button>
        </div>
      </Page>
    )
  }
  return Object.assign(Screen, { fetchCode })
}
