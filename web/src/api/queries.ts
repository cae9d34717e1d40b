import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import type {
  Conformance,
  CourseDetail,
  CourseSummary,
  Me,
  LibraryEntry,
  Message,
  RunDetail,
  RunSummary,
  NamesInUse,
  StandingRules,
  TemplateComment,
  TemplateDraft,
  TemplateSummary,
  TermDetail,
  TodayView,
} from '@wickerframe/contract'
import type { Facts, Template, Term } from '@wickerframe/core'
import { ApiError, get } from './client.ts'

export const useMe = () =>
  useQuery({
    queryKey: ['me'],
    queryFn: async (): Promise<Me | null> => {
      try {
        return await get<Me>('/api/me')
      } catch (cause) {
        if (cause instanceof ApiError && cause.body.status === 401) return null
        throw cause
      }
    },
    staleTime: Infinity,
  })
export const useToday = () =>
  useQuery({ queryKey: ['today'], queryFn: () => get<TodayView>('/api/today') })
export const useTemplates = (enabled = true) =>
  useQuery({
    queryKey: ['templates'],
    queryFn: () => get<TemplateSummary[]>('/api/templates'),
    enabled,
  })
export const useDraft = (key: string, enabled = true) =>
  useQuery({
    queryKey: ['template', key],
    queryFn: () => get<TemplateDraft>(`/api/templates/${key}`),
    enabled,
    staleTime: Infinity,
    refetchOnWindowFocus: false,
  })
export const useComments = (key: string) =>
  useQuery({
    queryKey: ['comments', key],
    queryFn: () => get<TemplateComment[]>(`/api/templates/${key}/comments`),
  })
export const useLibrary = () =>
  useQuery({ queryKey: ['library'], queryFn: () => get<LibraryEntry[]>('/api/library') })
export const useVersion = (key: string, number: number | null) =>
  useQuery({
    queryKey: ['version', key, number],
    queryFn: () => get<Template>(`/api/templates/${key}/versions/${number}`),
    enabled: number !== null,
    staleTime: Infinity,
  })
export const useCourses = () =>
  useQuery({ queryKey: ['courses'], queryFn: () => get<CourseSummary[]>('/api/courses') })
export const useCourse = (id: string, asOf: string | null) =>
  useQuery({
    queryKey: ['course', id, asOf],
    queryFn: () => get<CourseDetail>(`/api/courses/${id}${asOf ? `?asOf=${asOf}` : ''}`),
  })
export const useConformance = (asOf: string | null) =>
  useQuery({
    queryKey: ['conformance', asOf],
    queryFn: () => get<Conformance>(`/api/conformance${asOf ? `?asOf=${asOf}` : ''}`),
  })
export const useTerms = () =>
  useQuery({ queryKey: ['terms'], queryFn: () => get<Term[]>('/api/terms'), staleTime: 60_000 })
export const useTerm = (code: string | null) =>
  useQuery({
    queryKey: ['term', code],
    queryFn: () => get<TermDetail>(`/api/terms/${code}`),
    enabled: code !== null,
    staleTime: Infinity,
    refetchOnWindowFocus: false,
  })
/** What is known of a course besides its content. */
export const useFacts = (courseId: string) =>
  useQuery({
    queryKey: ['course', courseId, 'facts'],
    queryFn: () => get<Facts>(`/api/courses/${courseId}/facts`),
    enabled: courseId !== '',
    staleTime: Infinity,
  })
/** The names that a part bears in every course of a template; `part` may be `course`. */
export const useNamesInUse = (template: string, part: string) =>
  useQuery({
    queryKey: ['names', template, part],
    queryFn: () => get<NamesInUse>(`/api/names?template=${template}&part=${part}`),
    enabled: template !== '' && part !== '',
    refetchOnWindowFocus: false,
  })
export const useStandingRules = () =>
  useQuery({
    queryKey: ['standing-rules'],
    queryFn: () => get<StandingRules>('/api/standing-rules'),
  })
export const useMessages = () =>
  useQuery({ queryKey: ['messages'], queryFn: () => get<Message[]>('/api/messages') })
export const useRollouts = () =>
  useQuery({ queryKey: ['rollouts'], queryFn: () => get<RunSummary[]>('/api/rollouts') })

/** A run, fetched again whenever its stream says that something of it changed. */
export const useRun = (id: number | null) => {
  const client = useQueryClient()
  const query = useQuery({
    queryKey: ['run', id],
    queryFn: () => get<RunDetail>(`/api/runs/${id}`),
    enabled: id !== null,
  })
  const over = query.data?.state === 'done' || query.data?.state === 'cancelled'
  useEffect(() => {
    if (id === null || over) return
    const stream = new EventSource(`/api/runs/${id}/events`)
    stream.addEventListener(
      'changed',
      () => void client.invalidateQueries({ queryKey: ['run', id] }),
    )
    return () => stream.close()
  }, [client, id, over])
  return query
}
