import { useEffect } from 'react'
import type { Me } from '@wickerframe/contract'

/** Draws everything in the theme that somebody chose; without one, in that of the device. */
export const useTheme = (theme: Me['theme'] = 'as the device'): void =>
  useEffect(() => {
    document.documentElement.dataset['theme'] = theme
  }, [theme])
