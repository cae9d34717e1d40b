import { oneStatement } from './one-statement.mjs'
import { packageWalls } from './package-walls.mjs'
import { pure } from './pure.mjs'
import { sqlByClause } from './sql-by-clause.mjs'
import { sqlInRepositories } from './sql-in-repositories.mjs'

/** Our own lint rules, beside those that oxlint brings. */
export default {
  meta: { name: 'wickerframe' },
  rules: {
    'package-walls': packageWalls,
    pure,
    'sql-by-clause': sqlByClause,
    'one-statement': oneStatement,
    'sql-in-repositories': sqlInRepositories,
  },
}
