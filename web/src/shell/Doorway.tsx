import type { ReactNode } from 'react'

/** What stands before the application: signing in, a link that was followed, asking for an account. */
export const Doorway = ({ children }: { children: ReactNode }) => (
  <main id="main" className="mx-auto mt-24 max-w-md border border-line bg-sheet">
    <div className="woven-edge" />
    <div className="flex flex-col gap-4 p-8">
      <h1 className="title flex items-center gap-3">
        <img src="/mark.svg" alt="" width="28" height="28" className="rounded-xs bg-[#fbf8f1]" />{' '}
        Wickerframe
      </h1>
      {children}
    </div>
  </main>
)
