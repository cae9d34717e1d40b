import { z } from 'zod'
import {
  Change,
  CheckResult,
  Course,
  CourseChild,
  CourseItem,
  CourseModule,
  Facts,
  Finding,
  JsonValue,
  Part,
  Problem,
  Remark,
  Template,
  TemplateEdit,
  Term,
} from '@wickerframe/core'
import { roles, capabilities } from './capabilities.ts'
import { connectorOperations, connectorPath, ProblemDetails } from './connector.ts'
import type { ConnectorOperation } from './connector.ts'
import { pathParameters } from './pathParameters.ts'
import { isMedia, redirect, type Media, type ParameterName, type Route } from './route.ts'
import {
  CourseSummary,
  routeNamed,
  routeNames,
  RunSummary,
  TemplateSummary,
} from './routes/index.ts'

type JsonSchema = z.core.JSONSchema.JSONSchema

/** What stands in many bodies and answers, and so has a name of its own in the documents. */
const named: Readonly<Record<string, z.ZodType>> = {
  Change,
  CheckResult,
  Course,
  CourseChild,
  CourseItem,
  CourseModule,
  CourseSummary,
  Facts,
  Finding,
  JsonValue,
  Part,
  Problem,
  Remark,
  RunSummary,
  Template,
  TemplateEdit,
  TemplateSummary,
  Term,
}

const inComponents = (id: string) => `#/components/schemas/${id}`

/** References inside one schema lead to what the whole document has. */
const rewritten = (value: unknown, to: (reference: string) => string): unknown => {
  if (Array.isArray(value)) return value.map((inner) => rewritten(inner, to))
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(
    Object.entries(value)
      .filter(([key]) => key !== '$id' && key !== '$schema' && key !== '$defs')
      .map(([key, inner]) => [
        key,
        key === '$ref' && typeof inner === 'string' ? to(inner) : rewritten(inner, to),
      ]),
  )
}

/**
 * Schemas of a document, each once, by name: those that stand in many places, and the body or answer of every operation.
 * What is given (`input`) may leave out what has a default; what is answered (`output`) has all of it.
 */
const componentsOf = (
  own: Readonly<Record<string, z.ZodType>>,
  io: 'input' | 'output',
  suffix: string,
): Record<string, unknown> => {
  const registry = z.registry<{ id: string }>()
  for (const [id, schema] of Object.entries({ ...named, ...own }))
    if (!registry.has(schema)) registry.add(schema, { id: `${id}${suffix}` })
  const { schemas } = z.toJSONSchema(registry, { io, unrepresentable: 'any', uri: inComponents })
  const components: Record<string, unknown> = {}
  for (const [id, schema] of Object.entries<JsonSchema>(schemas)) {
    const to = (reference: string) =>
      reference === '#'
        ? inComponents(id)
        : reference.replace(/^#\/\$defs\/(.+)$/, (_, inner: string) =>
            inComponents(`${id}_${inner}`),
          )
    components[id] = rewritten(schema, to)
    for (const [inner, definition] of Object.entries(schema.$defs ?? {}))
      components[`${id}_${inner}`] = rewritten(definition, to)
  }
  return components
}

/** Only what the operations lead to, however far. */
const reached = (
  components: Readonly<Record<string, unknown>>,
  from: unknown,
): Record<string, unknown> => {
  const found: Record<string, unknown> = {}
  const look = (value: unknown): void => {
    for (const [, id] of JSON.stringify(value).matchAll(/"#\/components\/schemas\/([^"]+)"/g))
      if (id !== undefined && !(id in found) && id in components) {
        found[id] = components[id]
        look(components[id])
      }
  }
  look(from)
  return Object.fromEntries(Object.entries(found).sort(([a], [b]) => (a < b ? -1 : 1)))
}

/** What an operation of either contract says of itself. */
interface Described {
  id: string
  method: string
  path: string
  summary: string
  parameters: readonly object[]
  body: z.ZodType | Media | undefined
  answer: z.ZodType | Media
  refusals: Readonly<Record<string, object>>
  more: object
}

const queryParameters = (query: z.ZodObject | undefined): object[] =>
  query === undefined
    ? []
    : Object.entries(query.shape).map(([name, schema]) => {
        const {
          $schema: _,
          description,
          ...json
        } = z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' })
        return {
          name,
          in: 'query',
          required: !schema.safeParse(undefined).success,
          ...(description === undefined ? {} : { description }),
          schema: json,
        }
      })
const pathNames = (path: string): string[] =>
  [...path.matchAll(/:(\w+)/g)].flatMap(([, name]) => name ?? [])

const documentOf = (title: string, operations: readonly Described[], security: object) => {
  const bodies: Record<string, z.ZodType> = {}
  const answers: Record<string, z.ZodType> = {}
  for (const { id, body, answer } of operations) {
    if (body !== undefined && !isMedia(body)) bodies[`${id}Body`] = body
    if (!isMedia(answer)) answers[`${id}Answer`] = answer
  }
  const components = {
    ...componentsOf({ ...answers, ProblemDetails }, 'output', ''),
    ...componentsOf(bodies, 'input', 'Given'),
  }
  const nameOf = (schema: z.ZodType, own: string, suffix: string) => {
    const known = Object.entries(named).find(([, one]) => one === schema)?.[0] ?? own
    return inComponents(`${known}${suffix}`)
  }
  const content = (what: z.ZodType | Media, own: string, suffix: string) =>
    isMedia(what)
      ? { [what.media]: {} }
      : { 'application/json': { schema: { $ref: firstNamed(what, own, suffix) } } }
  /** A schema that several operations share has the name of the first of them. */
  const firsts = new Map<z.ZodType, string>()
  const firstNamed = (schema: z.ZodType, own: string, suffix: string) => {
    const name = firsts.get(schema) ?? own
    firsts.set(schema, name)
    return nameOf(schema, name, suffix)
  }
  const problem = {
    description: 'problem details (RFC 9457)',
    content: { 'application/problem+json': { schema: { $ref: inComponents('ProblemDetails') } } },
  }
  const paths: Record<string, Record<string, object>> = {}
  for (const { id, method, path, summary, parameters, body, answer, refusals, more } of operations)
    (paths[path.replace(/:(\w+)/g, '{$1}')] ??= {})[method] = {
      operationId: id,
      summary,
      ...(parameters.length > 0 ? { parameters } : {}),
      ...(body === undefined
        ? {}
        : { requestBody: { required: true, content: content(body, `${id}Body`, 'Given') } }),
      responses: {
        ...(answer === redirect
          ? {
              303: {
                description: 'the browser goes on there',
                headers: { Location: { schema: { type: 'string' } } },
              },
            }
          : { 200: { description: 'done', content: content(answer, `${id}Answer`, '') } }),
        ...Object.fromEntries(
          Object.entries(refusals).map(([status, said]) => [status, { ...problem, ...said }]),
        ),
        default: problem,
      },
      ...more,
    }
  return {
    openapi: '3.1.0',
    info: { title, version: '1' },
    components: { securitySchemes: security, schemas: reached(components, paths) },
    paths,
  }
}

const described = (id: string, operation: ConnectorOperation): Described => ({
  id,
  method: operation.method,
  path: connectorPath + operation.path,
  summary: operation.summary,
  parameters: [
    ...pathNames(operation.path).map((name) => ({
      name,
      in: 'path',
      required: true,
      schema: { type: 'string' },
    })),
    ...queryParameters(operation.query),
    ...(operation.needsKey
      ? [
          {
            name: 'Idempotency-Key',
            in: 'header',
            required: true,
            schema: { type: 'string', minLength: 8, maxLength: 100 },
          },
        ]
      : []),
  ],
  body: operation.body,
  answer: operation.answer,
  refusals: Object.fromEntries(
    Object.entries(operation.refusals).map(([status, description]) => [status, { description }]),
  ),
  more: { security: [{ token: [] }] },
})

/** The platform connector as an OpenAPI 3.1 document. */
export const connectorDocument = () =>
  documentOf(
    'Wickerframe platform connector',
    Object.entries(connectorOperations).map(([id, operation]) => described(id, operation)),
    { token: { type: 'http', scheme: 'bearer' } },
  )

const whoMayCall = ({ may }: Route) => (may === 'anyone' ? roles : capabilities[may])

/** Wickerframe's own API as an OpenAPI 3.1 document; who may call a route stands in x-roles. */
export const apiDocument = () =>
  documentOf(
    'Wickerframe',
    routeNames.map((id): Described => {
      const route = routeNamed(id)
      return {
        id,
        method: route.method,
        path: route.path,
        summary: route.summary,
        parameters: [
          ...pathNames(route.path).map((name) => {
            const { $schema: _, ...schema } = z.toJSONSchema(
              pathParameters[name as ParameterName],
              { io: 'output' },
            )
            return { name, in: 'path', required: true, schema }
          }),
          ...queryParameters(route.query),
          ...(route.method === 'post'
            ? [
                {
                  name: 'X-Wickerframe',
                  in: 'header',
                  required: true,
                  description: 'Says that the request comes from Wickerframe’s own pages',
                  schema: { const: '1' },
                },
              ]
            : []),
        ],
        body: route.body,
        answer: route.answer,
        refusals: {},
        more: {
          'x-roles': whoMayCall(route),
          security: route.may === 'anyone' ? [] : [{ session: [] }],
        },
      }
    }),
    { session: { type: 'apiKey', in: 'cookie', name: 'wickerframe-session' } },
  )
