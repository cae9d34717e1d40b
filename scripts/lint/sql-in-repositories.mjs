import { isStatement } from './sql.mjs'

/** SQL stands in the repository of what it is about: routes, tasks and the queue’s worker call its functions. */
export const sqlInRepositories = {
  meta: {
    type: 'suggestion',
    messages: {
      elsewhere:
        'SQL outside a repository: give it a function in the repository of what it is about.',
    },
  },
  create(context) {
    const look = (node) => {
      if (isStatement(node)) context.report({ node, messageId: 'elsewhere' })
    }
    return { Literal: look, TemplateLiteral: look }
  },
}
