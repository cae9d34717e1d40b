import sanitizeHtml from 'sanitize-html'
import {
  frameWords,
  formulaAttributes,
  formulaElements,
  styleProperties,
  styleValue,
} from '@wickerframe/core'

export const escape = (text: string): string =>
  text.replace(/[&<>"']/g, (character) => `&#${character.charCodeAt(0)};`)

const attributesOfFormulas = Object.fromEntries(
  [...formulaElements].map((element) => [element, [...formulaAttributes]]),
)

const allowedStyles = {
  '*': Object.fromEntries(styleProperties.map((property) => [property, [styleValue]])),
}

/** Course HTML made safe to show: no script, no event attributes, no frames, no addresses that run. */
export const safeHtml = (html: string): string =>
  sanitizeHtml(html, {
    allowedTags: [
      ...sanitizeHtml.defaults.allowedTags,
      'img',
      'h1',
      'h2',
      'details',
      'summary',
      ...formulaElements,
    ],
    allowedAttributes: {
      '*': ['style'],
      a: ['href'],
      img: ['src', 'alt', 'width', 'height'],
      th: ['scope', 'colspan', 'rowspan'],
      td: ['colspan', 'rowspan'],
      ...attributesOfFormulas,
    },
    allowedStyles,
    // It has no network: what it would show is said.
    transformTags: {
      iframe: (_, attribs) => ({
        tagName: 'p',
        attribs: {},
        text: frameWords(attribs['title'] ?? '', attribs['src'] ?? ''),
      }),
    },
    allowedSchemes: ['https', 'mailto'],
    allowProtocolRelative: false,
  })

const style = `
  body { margin: 0; background: #eef0ea; color: #20261f; font: 16px/1.6 Georgia, 'DejaVu Serif', serif; }
  main { max-width: 46rem; margin: 0 auto; padding: 1.5rem 2rem 6rem; background: #fff; min-height: 100vh; }
  header { border-bottom: 3px double #9aa595; margin-bottom: 1.5rem; padding-bottom: .5rem; font-size: 14px; }
  h1 { font-size: 1.7rem; margin: .2rem 0; } h2 { margin-top: 3rem; border-top: 1px solid #c9d0c4; padding-top: 1rem; } h3 { margin-bottom: .2rem; }
  .words { color: #50594c; font-style: italic; font-size: 14px; }
  form { display: inline-block; } form.block { display: block; margin: .6rem 0; }
  button { font: 14px Georgia, serif; background: none; border: 0; border-bottom: 1px solid #3d5a34; color: #2c4a24; padding: 0; margin-right: .8rem; cursor: pointer; }
  input, textarea, select { font: 15px Georgia, serif; padding: .25rem .4rem; border: 1px solid #6f7a6a; background: #fff; }
  textarea { width: 100%; box-sizing: border-box; }
  a { color: #2c4a24; } li { margin: .15rem 0; } img { max-width: 100%; }
  .page { border-left: 3px solid #c9d0c4; padding-left: 1rem; }
`

/** A page of the practice platform. It has no script at all. */
export const page = (title: string, body: string): string => `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${escape(title)} · Practice platform</title><style>${style}</style></head>
<body><main><header>Practice platform of Kestrel Sound Maritime College: a stand-in, for trying things out. <a href="/">All courses</a> · <a href="/misbehaviours">Misbehaviours</a></header>
${body}</main></body></html>`

export const button = (
  action: string,
  label: string,
  fields: Readonly<Record<string, string>> = {},
): string =>
  `<form method="post" action="${escape(action)}">${Object.entries(fields)
    .map(([name, value]) => `<input type="hidden" name="${escape(name)}" value="${escape(value)}">`)
    .join('')}<button>${escape(label)}</button></form>`
