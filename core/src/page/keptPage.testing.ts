import { remember } from '../remember/index.ts'
import { analysePage } from './analysePage.ts'

/** The facts of a page, read once for all tests of a file: most courses in a table of cases share most pages. */
export const keptPage = remember(5000, analysePage)
