import { createItem } from './kinds/create-item.ts'
import { createModule } from './kinds/create-module.ts'
import { duplicateItem } from './kinds/duplicate-item.ts'
import { moveItem } from './kinds/move-item.ts'
import { moveModule } from './kinds/move-module.ts'
import { removeItem } from './kinds/remove-item.ts'
import { removeModule } from './kinds/remove-module.ts'
import { setCourse } from './kinds/set-course.ts'
import { setHome } from './kinds/set-home.ts'
import { setItem } from './kinds/set-item.ts'
import { setModule } from './kinds/set-module.ts'
import { setNavigation } from './kinds/set-navigation.ts'

/** Every kind of change of a course. A kind is one file, and a line here. */
export const definedChanges = [
  setCourse,
  setNavigation,
  setHome,
  createModule,
  createItem,
  setModule,
  setItem,
  moveModule,
  moveItem,
  removeModule,
  removeItem,
  duplicateItem,
] as const
