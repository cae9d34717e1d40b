import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import {
  copyTemplate,
  emptyTemplate,
  freshKey,
  newLayer,
  readDocument,
  Template,
  templateFromSentences,
  usualSentences,
} from '@wickerframe/core'
import { call } from '../../api/client.ts'
import { useTemplates, useVersion } from '../../api/queries.ts'
import { Button, Choice, Field, Page, Pick, Problem } from '../../controls/controls.tsx'
import { useAddress } from '../../shell/useAddress.ts'
import { GrowingOutline } from './GrowingOutline.tsx'
import { ModelPage } from './ModelPage.tsx'
import { SentencesPage } from './SentencesPage.tsx'

type Way = 'sentences' | 'model' | 'copy' | 'layer' | 'nothing' | 'file'
const ways: readonly (readonly [Way, string, string])[] = [
  ['sentences', 'A page of sentences', 'Fill in the blanks; the outline grows beside them.'],
  [
    'model',
    'A model course',
    'Read a course that is as it should be, and take what repeats, how things are named, and what recurs word for word.',
  ],
  ['copy', 'Another template', 'A copy of a version, with a life of its own.'],
  [
    'layer',
    'A layer on a template',
    'Adds to a version, for a programme or a shared course; what stands above stays, and newer versions can be taken over.',
  ],
  ['nothing', 'Nothing', 'A home page that names the course, and an empty outline.'],
  ['file', 'A file', 'A template document (JSON), as versions are handed out.'],
]

/** Makes a new template, one way or another; nothing is kept until the button is pressed. */
export const NewTemplateScreen = () => {
  const { search, set } = useAddress()
  const navigate = useNavigate()
  const client = useQueryClient()
  const templates = useTemplates()
  const way = (search.get('way') ?? 'sentences') as Way
  const on = search.get('on') ?? ''
  const source = templates.data?.find((one) => one.key === on)
  const version = Number(search.get('version') ?? source?.versions[0]?.number ?? 0) || null
  const document = useVersion(on, on === '' ? null : version)
  const [answers, setAnswers] = useState(usualSentences)
  const [title, setTitle] = useState('')
  const [fromModel, setFromModel] = useState<Template | null>(null)
  const [fromFile, setFromFile] = useState<Template | null>(null)
  const [fileProblems, setFileProblems] = useState<readonly string[]>([])
  // “new” is this screen’s own address.
  const taken = new Set(['new', ...(templates.data ?? []).map((one) => one.key)])
  const named =
    title.trim() ||
    (way === 'copy' && source
      ? `${source.title}, copy`
      : way === 'layer' && source
        ? `Layer on ${source.title}`
        : way === 'file'
          ? (fromFile?.title ?? '')
          : 'New standard')
  const key = freshKey(named, taken)
  const sentences = templateFromSentences({ ...answers, title: named || 'New standard' }, taken)
  const made: Template | null =
    way === 'sentences'
      ? sentences.ok
        ? sentences.value
        : null
      : way === 'nothing'
        ? emptyTemplate(key, named)
        : way === 'model'
          ? fromModel && { ...fromModel, key, title: named }
          : way === 'file'
            ? fromFile && {
                ...fromFile,
                title: named,
                key: taken.has(fromFile.key) ? key : fromFile.key,
              }
            : document.data
              ? way === 'copy'
                ? copyTemplate(document.data, key, named)
                : newLayer(document.data, key, named)
              : null
  const make = useMutation({
    mutationFn: (template: Template) =>
      call('addTemplate', { body: { ...template, version: undefined } }),
    onSuccess: async (answer) => {
      await client.invalidateQueries({ queryKey: ['templates'] })
      await navigate(`/templates/${answer.key}`)
    },
  })
  const readFile = async (file: File) => {
    setFromFile(null)
    let json: unknown
    try {
      json = JSON.parse(await file.text())
    } catch {
      setFileProblems(['it is no JSON'])
      return
    }
    const read = readDocument(Template, json)
    if (read.ok) setFromFile(read.value)
    setFileProblems(
      read.ok
        ? []
        : read.problems
            .slice(0, 8)
            .map(
              (problem) =>
                `at ${problem.path || '/'}: found ${problem.found}; expected ${problem.expected}`,
            ),
    )
  }
  return (
    <Page
      title="New template"
      above={
        <Link className="underline" to="/templates">
          Templates
        </Link>
      }
      beside={
        <Button
          shape="main"
          disabled={made === null || make.isPending}
          onClick={() => made && make.mutate(made)}
        >
          Make the template
        </Button>
      }
    >
      <div className="mt-2 flex flex-wrap items-center gap-2" role="group" aria-label="Begin with">
        <span className="text-ink-2">Begin with</span>
        {ways.map(([id, text]) => (
          <Choice key={id} pressed={way === id} onClick={() => set({ way: id })}>
            {text}
          </Choice>
        ))}
      </div>
      <p className="mt-1 text-ink-2">{ways.find(([id]) => id === way)?.[2]}</p>
      <Problem error={make.error ?? document.error} />
      <div className="mt-3 grid items-start gap-6 lg:grid-cols-2">
        <section className="grid gap-3 bg-sheet p-4">
          <Field
            label="It is called"
            value={title}
            placeholder={named}
            onChange={(event) => setTitle(event.target.value)}
          />
          {way === 'sentences' && <SentencesPage answers={answers} onChange={setAnswers} />}
          {way === 'sentences' && !sentences.ok && (
            <p role="alert" className="text-rust">
              {sentences.problems[0]?.expected}
            </p>
          )}
          {way === 'model' && (
            <ModelPage
              course={search.get('course') ?? ''}
              templateKey={key}
              title={named}
              onCourse={(id) => set({ course: id || null })}
              onMade={setFromModel}
            />
          )}
          {(way === 'copy' || way === 'layer') && (
            <div className="flex flex-wrap gap-3">
              <Pick
                label="Template"
                value={on}
                onChange={(event) => set({ on: event.target.value || null, version: null })}
                options={[
                  { value: '', text: 'which …' },
                  ...(templates.data ?? [])
                    .filter((one) => one.versions.length > 0)
                    .map((one) => ({ value: one.key, text: one.title })),
                ]}
              />
              {source && (
                <Pick
                  label="Version"
                  value={String(version ?? '')}
                  onChange={(event) => set({ version: event.target.value })}
                  options={source.versions.map((version) => ({
                    value: String(version.number),
                    text: `version ${version.number}${version.retired ? ', retired' : ''}`,
                  }))}
                />
              )}
            </div>
          )}
          {way === 'file' && (
            <label className="text-ink-2">
              Template document{' '}
              <input
                type="file"
                accept="application/json,.json"
                onChange={(event) => {
                  const [file] = event.target.files ?? []
                  if (file) void readFile(file)
                }}
              />
            </label>
          )}
          {fileProblems.length > 0 && way === 'file' && (
            <div role="alert" className="border-l-4 border-rust bg-rust-soft px-3 py-1">
              <p>This file cannot be used:</p>
              <ul className="list-disc pl-5">
                {fileProblems.map((problem) => (
                  <li key={problem}>{problem}</li>
                ))}
              </ul>
            </div>
          )}
        </section>
        {made ? (
          <GrowingOutline template={made} />
        ) : (
          <p className="p-4 text-ink-2">The outline stands here as soon as there is one.</p>
        )}
      </div>
    </Page>
  )
}
