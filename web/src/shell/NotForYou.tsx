import { Link } from 'react-router'
import type { Me } from '@wickerframe/contract'
import { rolesInWords, whoMay, type Capability } from '@wickerframe/contract/capabilities'
import { Page } from '../controls/controls.tsx'

/** An address that is not for whoever opened it: for whom it is, and the way back. */
export const NotForYou = ({ me, needs, home }: { me: Me; needs: Capability; home: string }) => (
  <Page title={`This is for ${whoMay(needs)}`}>
    <p className="mt-3">
      You are signed in as {me.name}, {rolesInWords(me.roles) || 'without a role'}. If you need what
      is here, ask an administrator.
    </p>
    <p className="mt-3">
      <Link className="underline" to={home}>
        Back to your own first page
      </Link>
    </p>
  </Page>
)
