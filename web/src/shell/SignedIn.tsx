import { BrowserRouter, Navigate, Route, Routes } from 'react-router'
import type { Me } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { screens } from '../screens/screens.tsx'
import { NotForYou } from './NotForYou.tsx'
import { Shell } from './Shell.tsx'

/** Everything behind the sign-in: every screen at its address, or for whom it is. */
export const SignedIn = ({ me }: { me: Me }) => {
  const home = screens.find(({ needs }) => may(me, needs))?.path ?? '/courses'
  return (
    <BrowserRouter>
      <Routes>
        <Route element={<Shell me={me} />}>
          {screens.map(({ path, needs, show }) => (
            <Route
              key={path}
              path={path}
              element={may(me, needs) ? show(me) : <NotForYou me={me} needs={needs} home={home} />}
            />
          ))}
          <Route path="*" element={<Navigate to={home} replace />} />
        </Route>
      </Routes>
    </BrowserRouter>
  )
}
