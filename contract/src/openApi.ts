import { jsonSchemaOf } from '@wickerframe/core'
import { apiRoutes, type ApiRoute } from './api.ts'
import { connectorOperations, connectorPath } from './connector.ts'

const parametersOf = (path: string) =>
  [...path.matchAll(/\{(\w+)\}/g)].map((match) => ({
    name: match[1],
    in: 'path',
    required: true,
    schema: { type: 'string' },
  }))
const jsonBody = (schema: Parameters<typeof jsonSchemaOf>[1]) => ({
  'application/json': { schema: jsonSchemaOf('body', schema) },
})

/** The platform connector as an OpenAPI 3.1 document. */
export const connectorDocument = () => {
  const paths: Record<string, Record<string, object>> = {}
  for (const operation of connectorOperations) {
    const at = (paths[connectorPath + operation.path] ??= {})
    at[operation.method] = {
      summary: operation.summary,
      parameters: [
        ...parametersOf(operation.path),
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
      ...(operation.body
        ? { requestBody: { required: true, content: jsonBody(operation.body) } }
        : {}),
      responses: {
        200: { description: 'done', content: jsonBody(operation.answer) },
        ...Object.fromEntries(
          Object.entries(operation.refusals).map(([status, description]) => [
            status,
            { description },
          ]),
        ),
      },
      security: [{ token: [] }],
    }
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Wickerframe platform connector', version: '1' },
    components: { securitySchemes: { token: { type: 'http', scheme: 'bearer' } } },
    paths,
  }
}

/** Wickerframe's own API as an OpenAPI 3.1 document; who may call a route stands in x-roles. */
export const apiDocument = () => {
  const paths: Record<string, Record<string, object>> = {}
  const routes: readonly ApiRoute[] = apiRoutes
  for (const route of routes) {
    const path = route.path.replace(/:(\w+)/g, '{$1}')
    const at = (paths[path] ??= {})
    at[route.method] = {
      summary: route.summary,
      parameters: parametersOf(path),
      ...(route.body ? { requestBody: { required: true, content: jsonBody(route.body) } } : {}),
      responses: {
        200: { description: 'done' },
        default: { description: 'problem details (RFC 9457)' },
      },
      'x-roles': route.roles,
    }
  }
  return { openapi: '3.1.0', info: { title: 'Wickerframe', version: '1' }, paths }
}
