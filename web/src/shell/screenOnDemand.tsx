import { lazy, type ComponentType } from 'react'

/**
 * A screen whose code comes when it is opened. Once the code is there it is drawn at once: a lazy component would first
 * show its placeholder, and React keeps a placeholder for 300 ms.
 */
export const screenOnDemand = <P extends object>(
  load: () => Promise<ComponentType<P>>,
): ComponentType<P> & { fetchCode: () => Promise<void> } => {
  let Loaded: ComponentType<P> | null = null
  const fetchCode = async () => {
    Loaded ??= await load()
  }
  const Later = lazy(async () => ({ default: await load() })) as unknown as ComponentType<P>
  const Screen = (props: P) => (Loaded ? <Loaded {...props} /> : <Later {...props} />)
  return Object.assign(Screen, { fetchCode })
}
