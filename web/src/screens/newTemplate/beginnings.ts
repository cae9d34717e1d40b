import {
  copyTemplate,
  emptyTemplate,
  newLayer,
  readDocument,
  Template,
  templateFromSentences,
  type Sentences,
} from '@wickerframe/core'

/** What a new template can begin with, as far as it is there. */
export interface Material {
  key: string
  title: string
  /** Keys that other templates have. */
  taken: ReadonlySet<string>
  answers: Sentences
  fromModel: Template | null
  fromFile: Template | null
  /** A version of another template, and that template's title. */
  version: Template | null
  source: string | null
}

export interface Beginning {
  label: string
  about: string
  /** What it is called until somebody says so. */
  title: (material: Pick<Material, 'source' | 'fromFile'>) => string
  /** null: something is missing yet. */
  template: (material: Material) => Template | null
}

const newStandard = () => 'New standard'

export const beginnings = {
  sentences: {
    label: 'A page of sentences',
    about: 'Fill in the blanks; the outline grows beside them.',
    title: newStandard,
    template: ({ answers, title, taken }) => {
      const made = templateFromSentences({ ...answers, title }, taken)
      return made.ok ? made.value : null
    },
  },
  model: {
    label: 'A model course',
    about:
      'Read a course that is as it should be, and take what repeats, how things are named, and what recurs word for word.',
    title: newStandard,
    template: ({ fromModel, key, title }) => fromModel && { ...fromModel, key, title },
  },
  copy: {
    label: 'Another template',
    about: 'A copy of a version, with a life of its own.',
    title: ({ source }) => (source === null ? newStandard() : `${source}, copy`),
    template: ({ version, key, title }) => version && copyTemplate(version, key, title),
  },
  layer: {
    label: 'A layer on a template',
    about:
      'Adds to a version, for a programme or a shared course; what stands above stays, and newer versions can be taken over.',
    title: ({ source }) => (source === null ? newStandard() : `Layer on ${source}`),
    template: ({ version, key, title }) => version && newLayer(version, key, title),
  },
  nothing: {
    label: 'Nothing',
    about: 'A home page that names the course, and an empty outline.',
    title: newStandard,
    template: ({ key, title }) => emptyTemplate(key, title),
  },
  file: {
    label: 'A file',
    about: 'A template document (JSON), as versions are handed out.',
    title: ({ fromFile }) => fromFile?.title ?? '',
    template: ({ fromFile, key, title, taken }) =>
      fromFile && { ...fromFile, title, key: taken.has(fromFile.key) ? key : fromFile.key },
  },
} as const satisfies Record<string, Beginning>

export type Way = keyof typeof beginnings
export const isWay = (text: string | null): text is Way =>
  text !== null && Object.hasOwn(beginnings, text)

/** A template document as somebody hands it in; what is wrong with it, for people, where it is none. */
export const readTemplateFile = (
  text: string,
): { template: Template; problems: [] } | { template: null; problems: string[] } => {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    return { template: null, problems: ['it is no JSON'] }
  }
  const read = readDocument(Template, json)
  return read.ok
    ? { template: read.value, problems: [] }
    : {
        template: null,
        problems: read.problems
          .slice(0, 8)
          .map(
            ({ path, found, expected }) =>
              `at ${path || '/'}: found ${found}; expected ${expected}`,
          ),
      }
}
