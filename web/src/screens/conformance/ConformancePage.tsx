import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { Page } from '../../controls/controls.tsx'

/** A page that stands beside the weave, with the way back to it. */
export const ConformancePage = ({
  title,
  here,
  beside,
  children,
}: {
  title: string
  /** What it is called after the way back. */
  here: string
  beside?: ReactNode
  children: ReactNode
}) => (
  <Page
    title={title}
    above={
      <>
        <Link className="underline" to="/conformance">
          Conformance
        </Link>{' '}
        › {here}
      </>
    }
    beside={beside}
  >
    {children}
  </Page>
)
