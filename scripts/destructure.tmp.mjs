import { readFileSync, writeFileSync } from 'node:fs'
import { execSync } from 'node:child_process'
import { parseSync } from 'rolldown/utils'
const only = process.argv.slice(2)
const files = only.length ? only : execSync('git ls-files "*.ts" "*.tsx"', { encoding: 'utf8' }).trim().split('\n')
const reserved = new Set('break case catch class const continue debugger default delete do else enum export extends false finally for function if import in instanceof new null return super switch this throw true try typeof var void while with let static yield await async arguments eval'.split(' '))
const kids = (node) => {
  const out = []
  for (const key in node) {
    if (['type','start','end','range','loc','parent'].includes(key)) continue
    const v = node[key]
    if (Array.isArray(v)) { for (const x of v) if (x && typeof x.type === 'string') out.push([x, key]) }
    else if (v && typeof v.type === 'string') out.push([v, key])
  }
  return out
}
const isKey = (node, key, parent) =>
  (parent.type === 'MemberExpression' && key === 'property' && !parent.computed) ||
  (['Property','PropertyDefinition','MethodDefinition','TSPropertySignature','TSMethodSignature'].includes(parent.type) && key === 'key' && !parent.computed && !parent.shorthand) ||
  (parent.type === 'JSXAttribute' && key === 'name')
let total = 0
const run = (file) => {
  const text = readFileSync(file, 'utf8')
  if (!/\bone\b/.test(text)) return
  const { program } = parseSync(file, text, { lang: file.endsWith('x') ? 'tsx' : 'ts' })
  const edits = []
  const taken = []
  const overlaps = (a, b) => taken.some(([s, e]) => a < e && s < b)
  const attempt = (fn, binding, parts) => {
    if (binding.typeAnnotation || binding.optional) return
    if (fn.returnType) return
    const refs = []; const names = new Set(); let bad = false
    const walk = (node, key, parent, grand, grandKey) => {
      if ((node.type === 'Identifier' || node.type === 'JSXIdentifier') && !isKey(node, key, parent)) {
        if (node.name === 'one') {
          if (node.type !== 'Identifier' || parent.type !== 'MemberExpression' || key !== 'object' || parent.computed || parent.optional) { bad = true; return }
          if (parent.property.type !== 'Identifier') { bad = true; return }
          if (grand?.type === 'AssignmentExpression' && grandKey === 'left') bad = true
          if (grand?.type === 'UpdateExpression' || (grand?.type === 'UnaryExpression' && grand.operator === 'delete')) bad = true
          if (grand?.type === 'CallExpression' && grandKey === 'callee') bad = true
          if (grand?.type === 'TaggedTemplateExpression') bad = true
          refs.push({ member: parent, prop: parent.property.name, grand, grandKey })
          return
        }
        names.add(node.name)
      }
      if (node.type === 'TSTypeReference' || node.type === 'TSTypeQuery') { const t = text.slice(node.start, node.end); if (/\bone\b/.test(t)) bad = true }
      for (const [c, k] of kids(node)) walk(c, k, node, parent, key)
    }
    for (const [p, k] of parts) walk(p, k, fn, null, null)
    if (bad || refs.length === 0) return
    const props = [...new Set(refs.map((r) => r.prop))]
    if (props.length > 3) return
    for (const p of props) if (reserved.has(p) || names.has(p)) return
    if (overlaps(fn.start, fn.end)) return
    taken.push([fn.start, fn.end])
    edits.push({ start: binding.start, end: binding.end, text: `{ ${props.join(', ')} }`, wrap: fn })
    for (const r of refs) {
      if (r.grand?.type === 'Property' && r.grandKey === 'value' && !r.grand.computed && !r.grand.shorthand && r.grand.key.type === 'Identifier' && r.grand.key.name === r.prop)
        edits.push({ start: r.grand.start, end: r.grand.end, text: r.prop })
      else edits.push({ start: r.member.start, end: r.member.end, text: r.prop })
    }
    total++
  }
  const visit = (node) => {
    for (const [c] of kids(node)) visit(c)
    if (node.type === 'ArrowFunctionExpression')
      for (const p of node.params) if (p.type === 'Identifier' && p.name === 'one')
        attempt(node, p, [[node.body, 'body'], ...node.params.filter((q) => q !== p).map((q) => [q, 'params'])])
    if (node.type === 'ForOfStatement' && node.left.type === 'VariableDeclaration' && node.left.declarations[0]?.id.type === 'Identifier' && node.left.declarations[0].id.name === 'one' )
      attempt(node, node.left.declarations[0].id, [[node.body, 'body']])
  }
  visit(program)
  let out = text
  for (const e of edits.sort((a, b) => b.start - a.start)) {
    let t = e.text
    if (e.wrap?.type === 'ArrowFunctionExpression' && out[e.start - 1] !== '(' && !/[(,]\s*$/.test(out.slice(0, e.start))) t = `(${t})`
    out = out.slice(0, e.start) + t + out.slice(e.end)
  }
  if (out !== text) writeFileSync(file, out)
}
for (let pass = 0; pass < 3; pass++) files.forEach(run)
console.log(total)
