import { isStatement } from './sql.mjs'

/** A function holds one SQL statement: its name says what the statement does. */
export const oneStatement = {
  meta: {
    type: 'suggestion',
    messages: {
      second: 'A second SQL statement in one function: give it a function, and a name, of its own.',
    },
  },
  create(context) {
    const open = [0]
    const enter = () => void open.push(0)
    const leave = () => void open.pop()
    const look = (node) => {
      if (!isStatement(node)) return
      open[open.length - 1] += 1
      if (open.at(-1) === 2) context.report({ node, messageId: 'second' })
    }
    return {
      FunctionDeclaration: enter,
      'FunctionDeclaration:exit': leave,
      FunctionExpression: enter,
      'FunctionExpression:exit': leave,
      ArrowFunctionExpression: enter,
      'ArrowFunctionExpression:exit': leave,
      Literal: look,
      TemplateLiteral: look,
    }
  },
}
