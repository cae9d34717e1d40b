import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import {
  freshKey,
  templateFromSentences,
  usualSentences,
  type Sentences,
  type Template,
} from '@wickerframe/core'
import type { TemplateSummary } from '@wickerframe/contract'
import { call } from '../../api/client.ts'
import { useTemplates, useVersion } from '../../api/queries.ts'
import { Button, Choice, Field, Page, Pick, Problem } from '../../controls/controls.tsx'
import { useAddress } from '../../shell/useAddress.ts'
import { beginnings, isWay, readTemplateFile, type Way } from './beginnings.ts'
import { GrowingOutline } from './GrowingOutline.tsx'
import { ModelPage } from './ModelPage.tsx'
import { SentencesPage } from './SentencesPage.tsx'

/** Makes a new template, one way or another; nothing is kept until the button is pressed. */
export const NewTemplateScreen = () => {
  const { search, set } = useAddress()
  const navigate = useNavigate()
  const client = useQueryClient()
  const templates = useTemplates()
  const asked = search.get('way')
  const way: Way = isWay(asked) ? asked : 'sentences'
  const source = templates.data?.find(({ key }) => key === search.get('on')) ?? null
  const number = Number(search.get('version') ?? source?.versions[0]?.number ?? 0) || null
  const version = useVersion(source?.key ?? '', source && number)
  const [answers, setAnswers] = useState(usualSentences)
  const [typedTitle, setTypedTitle] = useState('')
  const [fromModel, setFromModel] = useState<Template | null>(null)
  /** Whether what was made of the model is out of date: something was decided since. */
  const [isOutOfDate, setOutOfDate] = useState(false)
  const [fromFile, setFromFile] = useState<Template | null>(null)
  // “new” is this screen’s own address.
  const taken = new Set(['new', ...(templates.data ?? []).map(({ key }) => key)])
  const title =
    typedTitle.trim() || beginnings[way].title({ source: source?.title ?? null, fromFile })
  const key = freshKey(title, taken)
  const made = beginnings[way].template({
    key,
    title,
    taken,
    answers,
    fromModel,
    fromFile,
    version: version.data ?? null,
    source: source?.title ?? null,
  })
  const make = useMutation({
    mutationFn: (template: Template) =>
      call('addTemplate', { body: { ...template, version: undefined } }),
    onSuccess: async (answer) => {
      await client.invalidateQueries({ queryKey: ['templates'] })
      await navigate(`/templates/${answer.key}`)
    },
  })
  const material = {
    sentences: (
      <FromSentences answers={answers} title={title} taken={taken} onChange={setAnswers} />
    ),
    model: (
      <ModelPage
        course={search.get('course') ?? ''}
        templateKey={key}
        title={title}
        onCourse={(id) => set({ course: id || null })}
        onAsked={() => setOutOfDate(true)}
        onMade={(template) => {
          setOutOfDate(false)
          setFromModel(template)
        }}
      />
    ),
    copy: <FromVersion templates={templates.data ?? []} source={source} version={number} />,
    layer: <FromVersion templates={templates.data ?? []} source={source} version={number} />,
    nothing: null,
    file: <FromFile onRead={setFromFile} />,
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
          disabled={made === null || make.isPending || (way === 'model' && isOutOfDate)}
          onClick={() => made && make.mutate(made)}
        >
          Make the template
        </Button>
      }
    >
      <div className="mt-2 flex flex-wrap items-center gap-2" role="group" aria-label="Begin with">
        <span className="text-ink-2">Begin with</span>
        {(Object.keys(beginnings) as Way[]).map((id) => (
          <Choice key={id} pressed={way === id} onClick={() => set({ way: id })}>
            {beginnings[id].label}
          </Choice>
        ))}
      </div>
      <p className="mt-1 text-ink-2">{beginnings[way].about}</p>
      <Problem error={make.error ?? version.error} />
      <div className="mt-3 grid items-start gap-6 lg:grid-cols-2">
        <section className="grid gap-3 bg-sheet p-4">
          <Field
            label="It is called"
            value={typedTitle}
            placeholder={title}
            onChange={(event) => setTypedTitle(event.target.value)}
          />
          {material[way]}
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

const FromSentences = ({
  answers,
  title,
  taken,
  onChange,
}: {
  answers: Sentences
  title: string
  taken: ReadonlySet<string>
  onChange: (answers: Sentences) => void
}) => {
  const made = templateFromSentences({ ...answers, title }, taken)
  return (
    <>
      <SentencesPage answers={answers} onChange={onChange} />
      {!made.ok && (
        <p role="alert" className="text-rust">
          {made.problems[0]?.expected}
        </p>
      )}
    </>
  )
}

const FromVersion = ({
  templates,
  source,
  version,
}: {
  templates: readonly TemplateSummary[]
  source: TemplateSummary | null
  version: number | null
}) => {
  const { set } = useAddress()
  return (
    <div className="flex flex-wrap gap-3">
      <Pick
        label="Template"
        value={source?.key ?? ''}
        onChange={(event) => set({ on: event.target.value || null, version: null })}
        options={[
          { value: '', text: 'which …' },
          ...templates
            .filter(({ versions }) => versions.length > 0)
            .map(({ key, title }) => ({ value: key, text: title })),
        ]}
      />
      {source && (
        <Pick
          label="Version"
          value={String(version ?? '')}
          onChange={(event) => set({ version: event.target.value })}
          options={source.versions.map(({ number, retired }) => ({
            value: String(number),
            text: `version ${number}${retired ? ', retired' : ''}`,
          }))}
        />
      )}
    </div>
  )
}

const FromFile = ({ onRead }: { onRead: (template: Template | null) => void }) => {
  const [problems, setProblems] = useState<readonly string[]>([])
  const read = async (file: File) => {
    onRead(null)
    const { template, problems: found } = readTemplateFile(await file.text())
    onRead(template)
    setProblems(found)
  }
  return (
    <>
      <label className="text-ink-2">
        Template document{' '}
        <input
          type="file"
          accept="application/json,.json"
          onChange={(event) => {
            const [file] = event.target.files ?? []
            if (file) void read(file)
          }}
        />
      </label>
      {problems.length > 0 && (
        <div role="alert" className="border-l-4 border-rust bg-rust-soft px-3 py-1">
          <p>This file cannot be used:</p>
          <ul className="list-disc pl-5">
            {problems.map((problem) => (
              <li key={problem}>{problem}</li>
            ))}
          </ul>
        </div>
      )}
    </>
  )
}
