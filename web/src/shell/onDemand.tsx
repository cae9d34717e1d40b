import { useEffect, useReducer, type ComponentType, type ReactNode } from 'react'
import { Button, Page, Problem, Waiting } from '../controls/controls.tsx'

type OnDemand<P extends object> = ComponentType<P> & { fetchCode: () => Promise<void> }

/**
 * A component whose code comes when it is opened. Once the code is there it is drawn at once: a lazy component would first
 * show its placeholder, and React keeps a placeholder for 300 ms. Where it does not come, that is said, and it can be asked
 * for again.
 * @param what how it is spoken of while its code is on its way, such as “this screen”
 * @param frame what stands around the message that its code did not come
 */
const onDemand = <P extends object>(
  load: () => Promise<ComponentType<P>>,
  what: string,
  frame: (message: ReactNode) => ReactNode,
): OnDemand<P> => {
  const notThere = new Error(
    `The code of ${what} could not be fetched: the server cannot be reached, or a newer Wickerframe was put in place.`,
  )
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
  const Component = (props: P) => {
    const [, drawAgain] = useReducer((count: number) => count + 1, 0)
    const isDrawn = Loaded !== null
    useEffect(() => {
      if (isDrawn) return
      // Somebody else may have had it fetched since this was drawn: it is asked for all the same, and then drawn.
      const ask = () => fetchCode().then(drawAgain)
      // What was on its way when the network came back fails still, and whoever asked meanwhile with it.
      const askTwice = () => void ask().then(() => (failed ? ask() : undefined))
      void ask()
      window.addEventListener('online', askTwice)
      return () => window.removeEventListener('online', askTwice)
    }, [isDrawn])
    if (Loaded) return <Loaded {...props} />
    if (!failed) return <Waiting what={what} />
    return frame(
      <>
        <div className="mt-3">
          <Problem error={notThere} />
        </div>
        <div className="mt-4">
          <Button shape="main" onClick={() => void again().then(drawAgain)}>
            Try again
          </Button>
        </div>
      </>,
    )
  }
  return Object.assign(Component, { fetchCode })
}

/** A whole screen, whose code comes when its address is opened. */
export const screenOnDemand = <P extends object>(
  load: () => Promise<ComponentType<P>>,
): OnDemand<P> =>
  onDemand(load, 'this screen', (message) => <Page title="Not here yet">{message}</Page>)

/** A part of a screen that only some visits need. */
export const viewOnDemand = <P extends object>(
  load: () => Promise<ComponentType<P>>,
): OnDemand<P> => onDemand(load, 'this view', (message) => message)
