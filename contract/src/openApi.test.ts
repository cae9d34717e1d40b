import { Validator } from '@seriousme/openapi-schema-validator'
import { describe, expect, it } from 'vitest'
import { connectorOperations } from './connector.ts'
import { apiDocument, connectorDocument } from './openApi.ts'
import { routeNamed, routeNames } from './routes/index.ts'

const documents = [
  ['the API', apiDocument()],
  ['the connector', connectorDocument()],
] as const

interface Operation {
  operationId: string
  parameters?: { name: string; in: string; required: boolean }[]
  requestBody?: { content: Record<string, { schema?: { $ref: string } }> }
  responses: Record<string, { content?: Record<string, { schema?: { $ref: string } }> }>
  security?: Record<string, unknown>[]
}
const operationsOf = ({ paths }: { paths: Record<string, Record<string, object>> }) =>
  Object.entries(paths).flatMap(([path, methods]) =>
    Object.values(methods).map((operation) => ({ path, ...(operation as Operation) })),
  )

describe.each(documents)('the OpenAPI document of %s', (_, document) => {
  // The schema of OpenAPI 3.1 (spec.openapis.org/oas/3.1/schema), as an independent validator ships it.
  it('is valid by an independent validator', async () => {
    const result = await new Validator().validate(structuredClone(document))
    expect(result.errors ?? []).toEqual([])
    expect(result.valid).toBe(true)
  })
  it('has no reference that leads nowhere, and no schema that claims an id', () => {
    const text = JSON.stringify(document)
    const targets = new Set(
      [...text.matchAll(/"\$ref":"([^"]+)"/g)].flatMap(([, target]) => target ?? []),
    )
    expect(targets.size).toBeGreaterThan(5)
    for (const target of targets) {
      const found = target
        .slice(2)
        .split('/')
        .reduce<unknown>(
          (at, step) =>
            typeof at === 'object' && at !== null
              ? Object.entries(at).find(([key]) => key === step)?.[1]
              : undefined,
          document,
        )
      expect([target, found === undefined]).toEqual([target, false])
    }
    expect(text).not.toContain('"$id"')
    expect(text).not.toContain('"$defs"')
  })
  it('names every operation once, and says what each answers', () => {
    const operations = operationsOf(document)
    const ids = operations.map((operation) => operation.operationId)
    expect(new Set(ids).size).toBe(ids.length)
    for (const { operationId, responses } of operations) {
      if (responses['303']) {
        // Nothing but an address, where the browser goes on.
        expect([operationId, responses['200']]).toEqual([operationId, undefined])
        continue
      }
      const content = Object.entries(responses['200']?.content ?? {})
      expect([operationId, content.length]).toEqual([operationId, 1])
      for (const [media, { schema }] of content)
        if (media === 'application/json')
          expect([operationId, schema?.$ref]).toEqual([operationId, expect.stringMatching(/^#/)])
    }
  })
  it('describes what stands in each address', () => {
    for (const { path, parameters = [] } of operationsOf(document))
      expect(
        parameters
          .filter((parameter) => parameter.in === 'path')
          .map((parameter) => parameter.name),
      ).toEqual([...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => name))
  })
})

describe('both documents', () => {
  it('hold every route and every operation', () => {
    expect(
      operationsOf(apiDocument())
        .map(({ operationId }) => operationId)
        .sort(),
    ).toEqual([...routeNames].sort())
    expect(
      operationsOf(connectorDocument())
        .map(({ operationId }) => operationId)
        .sort(),
    ).toEqual(Object.keys(connectorOperations).sort())
  })
  it('tell the list of changes after a cursor, and what signing in asks for', () => {
    const list = operationsOf(connectorDocument()).find(
      ({ operationId }) => operationId === 'listCourses',
    )
    expect(list?.parameters).toContainEqual(
      expect.objectContaining({ name: 'after', in: 'query', required: false }),
    )
    const signIn = operationsOf(apiDocument()).find(({ operationId }) => operationId === 'signIn')
    expect(signIn?.security).toEqual([])
    expect(signIn?.requestBody?.content['application/json']?.schema?.$ref).toMatch(/^#/)
  })
})

describe('paths of the API', () => {
  it('are each one route, whatever their parameters are called', () => {
    const shapes = routeNames.map((name) => {
      const { method, path } = routeNamed(name)
      return `${method} ${path.replace(/:\w+/g, ':')}`
    })
    expect(new Set(shapes).size).toBe(shapes.length)
  })
})
