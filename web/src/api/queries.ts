import { useQuery, useQueryClient, type UseQueryResult } from '@tanstack/react-query'
import { useEffect, useRef } from 'react'
import type { AnswerTo, Me, RouteName } from '@wickerframe/contract'
import { isAttended, watchAttention } from '../shell/attention.ts'
import { ApiError, call } from './client.ts'
import { followRun } from './followRun.ts'

/** What a hook gives that reads a route. */
type Read<Name extends RouteName> = UseQueryResult<AnswerTo<Name>>

export const useMe = () =>
  useQuery({
    queryKey: ['me'],
    queryFn: async (): Promise<Me | null> => {
      try {
        return await call('whoAmI')
      } catch (cause) {
        if (cause instanceof ApiError && cause.body.status === 401) return null
        throw cause
      }
    },
    staleTime: Infinity,
  })
export const useToday = (): Read<'today'> =>
  useQuery({ queryKey: ['today'], queryFn: () => call('today') })
export const useTemplates = (enabled = true): Read<'listTemplates'> =>
  useQuery({ queryKey: ['templates'], queryFn: () => call('listTemplates'), enabled })
export const useDraft = (key: string, enabled = true): Read<'readDraft'> =>
  useQuery({
    queryKey: ['template', key],
    queryFn: () => call('readDraft', { at: { template: key } }),
    enabled,
    staleTime: Infinity,
    refetchOnWindowFocus: false,
  })
export const useComments = (key: string): Read<'listComments'> =>
  useQuery({
    queryKey: ['comments', key],
    queryFn: () => call('listComments', { at: { template: key } }),
  })
export const useLibrary = (): Read<'listLibrary'> =>
  useQuery({ queryKey: ['library'], queryFn: () => call('listLibrary') })
export const useVersion = (key: string, number: number | null): Read<'readVersion'> =>
  useQuery({
    queryKey: ['version', key, number],
    queryFn: () => call('readVersion', { at: { template: key, version: number ?? 0 } }),
    enabled: number !== null,
    staleTime: Infinity,
  })
export const useCourses = (): Read<'listCourses'> =>
  useQuery({ queryKey: ['courses'], queryFn: () => call('listCourses') })
export const useCourse = (id: string, asOf: string | null): Read<'readCourse'> =>
  useQuery({
    queryKey: ['course', id, asOf],
    queryFn: () => call('readCourse', { at: { course: id }, query: asOf ? { asOf } : {} }),
  })
export const useConformance = (asOf: string | null): Read<'conformance'> =>
  useQuery({
    queryKey: ['conformance', asOf],
    queryFn: () => call('conformance', { query: asOf ? { asOf } : {} }),
  })
const pulseMilliseconds = 4000
/** How courses stand is read again by itself when one of them was told anew; what is shown stays until then. */
export const useFreshChecks = (): void => {
  const client = useQueryClient()
  const { data, refetch } = useQuery({
    queryKey: ['checks-pulse'],
    queryFn: () => call('checksPulse'),
    staleTime: 0,
  })
  useEffect(() => {
    watchAttention()
    const timer = setInterval(() => {
      if (isAttended()) void refetch()
    }, pulseMilliseconds)
    return () => clearInterval(timer)
  }, [refetch])
  const seen = useRef<string | null>(null)
  const pulse = data?.pulse ?? null
  useEffect(() => {
    if (pulse === null) return
    if (seen.current !== null && seen.current !== pulse)
      for (const queryKey of [['conformance'], ['today'], ['history']])
        void client.invalidateQueries({ queryKey })
    seen.current = pulse
  }, [pulse, client])
}
export const useTerms = (): Read<'listTerms'> =>
  useQuery({ queryKey: ['terms'], queryFn: () => call('listTerms'), staleTime: 60_000 })
export const useTerm = (code: string | null): Read<'readTerm'> =>
  useQuery({
    queryKey: ['term', code],
    queryFn: () => call('readTerm', { at: { term: code ?? '' } }),
    enabled: code !== null,
    staleTime: Infinity,
    refetchOnWindowFocus: false,
  })
/** What is known of a course besides its content. */
export const useFacts = (courseId: string): Read<'factsOfCourse'> =>
  useQuery({
    queryKey: ['course', courseId, 'facts'],
    queryFn: () => call('factsOfCourse', { at: { course: courseId } }),
    enabled: courseId !== '',
    staleTime: Infinity,
  })
/** The names that a part bears in every course of a template; `part` may be `course`. */
export const useNamesInUse = (template: string, part: string): Read<'namesInUse'> =>
  useQuery({
    queryKey: ['names', template, part],
    queryFn: () => call('namesInUse', { query: { template, part } }),
    enabled: template !== '' && part !== '',
    refetchOnWindowFocus: false,
  })
export const useStandingRules = (): Read<'listStandingRules'> =>
  useQuery({ queryKey: ['standing-rules'], queryFn: () => call('listStandingRules') })
export const useMessages = (): Read<'listMessages'> =>
  useQuery({ queryKey: ['messages'], queryFn: () => call('listMessages') })
export const useRollouts = (): Read<'listRollouts'> =>
  useQuery({ queryKey: ['rollouts'], queryFn: () => call('listRollouts') })

/** A run, fetched again whenever its stream says that something of it changed. */
export const useRun = (id: number | null): Read<'readRun'> => {
  const client = useQueryClient()
  const query = useQuery({
    queryKey: ['run', id],
    queryFn: () => call('readRun', { at: { run: id ?? 0 } }),
    enabled: id !== null,
  })
  const state = query.data?.state
  const goesOn = state !== undefined && state !== 'done' && state !== 'cancelled'
  useEffect(() => {
    if (id === null || !goesOn) return
    return followRun(id, () => void client.invalidateQueries({ queryKey: ['run', id] }))
  }, [client, id, goesOn])
  return query
}
