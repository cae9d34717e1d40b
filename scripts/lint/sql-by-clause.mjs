import { isStatement, layOut } from './sql.mjs'

/** A statement in a template literal is laid out by clause; what stands in quotes becomes one when it has several. */
export const sqlByClause = {
  meta: {
    type: 'layout',
    fixable: 'whitespace',
    messages: { layout: 'SQL is written by clause; `npm run fix` does it.' },
  },
  create(context) {
    const look = (node) => {
      if (!isStatement(node)) return
      const { sourceCode } = context
      const source = sourceCode.getText(node)
      const escaped =
        node.type === 'Literal'
          ? node.value.replaceAll('\\', '\\\\').replaceAll('`', '\\`').replaceAll('${', '\\${')
          : source.slice(1, -1)
      const [start] = node.range
      const line = sourceCode.text.slice(sourceCode.text.lastIndexOf('\n', start - 1) + 1, start)
      const indent = line.length - line.trimStart().length
      const text = layOut(escaped, line.trim() === '' ? indent + 1 : indent + 2)
      if (node.type === 'Literal' && !text.includes('\n')) return
      const wanted = `\`${text}\``
      if (wanted !== source)
        context.report({
          node,
          messageId: 'layout',
          fix: (fixer) => fixer.replaceText(node, wanted),
        })
    }
    return { Literal: look, TemplateLiteral: look }
  },
}
