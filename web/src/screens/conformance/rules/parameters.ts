import type { RuleUse } from '@wickerframe/contract'

/** A parameter of a rule that can be set in a form. */
export interface Parameter {
  name: string
  about: string
  kind: 'number' | 'flag' | 'choice' | 'lines'
  choices: readonly string[]
  initial: unknown
}

/** As much of a JSON Schema as is looked at. */
interface Shape {
  type?: string
  enum?: readonly unknown[]
  items?: Shape
  description?: string
  default?: unknown
}

const words = (name: string): string =>
  name.replace(/([A-Z])/g, (letter) => ` ${letter.toLowerCase()}`)

/** The parameters of a rule that a form can set, from their JSON Schema; those of other shapes are left to the template’s file. */
export const parametersOf = ({ parameters }: Pick<RuleUse, 'parameters'>): Parameter[] =>
  Object.entries(parameters).flatMap(([name, schema]): Parameter[] => {
    const { type, enum: choices, items, description, default: initial } = schema as Shape
    const about = description ?? words(name)
    const of = (kind: Parameter['kind'], known: readonly string[] = []): Parameter[] => [
      { name, about, kind, choices: known, initial },
    ]
    if (choices) return of('choice', choices.map(String))
    if (type === 'number' || type === 'integer') return of('number')
    if (type === 'boolean') return of('flag')
    const isOfText = items?.type === 'string'
    return type === 'array' && isOfText ? of('lines') : []
  })

/** What somebody typed, as the parameter takes it; nothing where it is empty. */
export const valueOf = ({ kind }: Parameter, typed: string): unknown => {
  if (kind === 'flag') return typed === 'true'
  if (kind === 'lines')
    return typed
      .split('\n')
      .map((line) => line.trim())
      .filter(Boolean)
  if (typed.trim() === '') return undefined
  return kind === 'number' ? Number(typed) : typed
}

export const typedOf = ({ kind }: Parameter, value: unknown): string =>
  kind === 'lines' && Array.isArray(value) ? value.join('\n') : String(value ?? '')
