import {
  cuttersOf,
  type BackupsKept,
  type RunningTimer,
  type BenchPage,
  type CareListed,
  type Fingerprint,
  type Found,
  type JobPage,
  type JobRow,
  type JournalEntry,
  type Owner,
  type OwnerListed,
  type Person,
  type Settings,
  type SoundBefore,
  type TableAnswer,
  type TableName,
  type Clock,
  type StockPromise,
  type StockRow,
  type DonorFound,
  type DonorRow,
  type OilRow,
  type WatchPage,
  type ToolRow,
  type WitnessListed,
} from '@treadle/contract'
import type { DonorWanted, HoleRules, Learned, YearTold } from '@treadle/core'
import { once } from './once.ts'
import { setWorkshopZone } from './workshopZone.ts'
import { keepInPage } from './keepInPage.ts'
import { useCallback } from 'react'
import { notifications } from '@mantine/notifications'
import {
  MutationObserver,
  notifyManager,
  QueryClient,
  useMutation,
  useQuery,
  useQueryClient,
} from '@tanstack/react-query'
import { ApiProblem, isAway, request } from './api.ts'

const retryWhileAway = (_count: number, error: Error) => isAway(error)
const slower = (attempt: number) => Math.min(8000, 500 * 2 ** attempt)

// A page shows what was kept before anything else is done, not a timer later: between the two what was just said would be
// gone from it, and a press would be made on that.
notifyManager.setScheduler(queueMicrotask)

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: { retry: retryWhileAway, retryDelay: slower, staleTime: 5000, networkMode: 'always' },
    // A change that the server did not answer is kept and sent again: ids are ours, so it is made once.
    mutations: { retry: retryWhileAway, retryDelay: slower, networkMode: 'always' },
  },
})

export const useBench = () =>
  useQuery({ queryKey: ['bench'], queryFn: () => request<BenchPage>('GET', '/bench'), refetchInterval: 30_000 })
/** What falls due of the clocks at home, so many months ahead. */
export const useCare = (months: number) =>
  useQuery({ queryKey: ['care', months], queryFn: () => request<CareListed[]>('GET', `/care?months=${months}`) })
/** The last year of the workshop, or another that ends before a month. */
export const useYear = (until: string) =>
  useQuery({ queryKey: ['year', until], queryFn: () => request<YearTold>('GET', `/year?until=${until}`) })
export const useJob = (id: string) =>
  useQuery({ queryKey: ['job', id], queryFn: () => request<JobPage>('GET', `/jobs/${id}`) })
/** A watch with its minutes; while it runs, what is new is fetched and put to what is there. */
export const useWatch = (id: string | null, running: boolean) =>
  useQuery({
    queryKey: ['watch', id],
    queryFn: async (): Promise<WatchPage> => {
      const before = queryClient.getQueryData<WatchPage>(['watch', id])
      // The last minute may have been told short, and anew since.
      const after = (before?.minutes.at(-1)?.minute ?? 0) - 1
      const now = await request<WatchPage>('GET', `/watches/${id}?after=${after}`)
      return before ? { ...now, minutes: [...before.minutes.filter((m) => m.minute <= after), ...now.minutes] } : now
    },
    enabled: id !== null,
    refetchInterval: running ? 10_000 : false,
  })
/** How a clock went when it left; null: it was never heard, or is on its first visit. */
export const useFingerprint = (clockId: string) =>
  useQuery({
    queryKey: ['fingerprint', clockId],
    queryFn: () => request<Fingerprint | null>('GET', `/clocks/${clockId}/fingerprint`),
  })
/** How the clock sounded on the visit before this one. */
export const useSoundBefore = (jobId: string) =>
  useQuery({
    queryKey: ['sound-before', jobId],
    queryFn: () => request<SoundBefore | null>('GET', `/jobs/${jobId}/sound-before`),
    staleTime: Infinity,
  })
/** The baths that run in open jobs. */
export const useRunning = () =>
  useQuery({ queryKey: ['timers'], queryFn: () => request<RunningTimer[]>('GET', '/timers'), refetchInterval: 30_000 })
export const useBackups = () =>
  useQuery({ queryKey: ['backups'], queryFn: () => request<BackupsKept>('GET', '/backups') })
export const useShopJournal = () =>
  useQuery({ queryKey: ['journal', 'shop'], queryFn: () => request<JournalEntry[]>('GET', '/journal') })
async function askSettings(): Promise<Settings> {
  const settings = await request<Settings>('GET', '/settings')
  setWorkshopZone(settings.timeZone)
  return settings
}

export const useSettings = () => useQuery({ queryKey: ['settings'], queryFn: askSettings, staleTime: 60_000 })
export const usePromises = () =>
  useQuery({ queryKey: ['stock', 'promises'], queryFn: () => request<StockPromise[]>('GET', '/stock/promises') })
export const useDonors = () => useQuery({ queryKey: ['donors'], queryFn: () => request<DonorRow[]>('GET', '/donors') })

/** Used parts that fit what is wanted; asked once something is. */
export function useDonorsFitting(wanted: DonorWanted | null, taken: string | null = null) {
  const words = new URLSearchParams(
    Object.entries({ ...wanted, taken }).flatMap(([name, value]) =>
      value === null || value === '' ? [] : [[name, `${value}`]],
    ),
  ).toString()
  return useQuery({
    queryKey: ['donors', words],
    queryFn: () => request<DonorFound[]>('GET', `/donors/fitting?${words}`),
    enabled: wanted !== null,
  })
}
export const useOils = () => useQuery({ queryKey: ['oils'], queryFn: () => request<OilRow[]>('GET', '/oils') })
export const useOilsSeen = () =>
  useQuery({ queryKey: ['oils', 'seen'], queryFn: () => request<WitnessListed[]>('GET', '/oils/seen') })
export const useWitnesses = (clockId: string) =>
  useQuery({
    queryKey: ['witnesses', clockId],
    queryFn: () => request<WitnessListed[]>('GET', `/clocks/${clockId}/witnesses`),
  })
export const useTools = () => useQuery({ queryKey: ['tools'], queryFn: () => request<ToolRow[]>('GET', '/tools') })
export const useStock = () => useQuery({ queryKey: ['stock'], queryFn: () => request<StockRow[]>('GET', '/stock') })

const rulesOf = once((settings: Settings, stock: StockRow[]): HoleRules => ({
  bushing: settings.bushing,
  cuttersMm: cuttersOf(stock),
}))

/** The rules that holes are judged by, with the drawers' cutters; nothing until both are there. */
export function useHoleRules(): HoleRules | undefined {
  const { data: settings } = useSettings()
  const { data: stock } = useStock()
  return settings && stock && rulesOf(settings, stock)
}
export const usePeople = () =>
  useQuery({ queryKey: ['people'], queryFn: () => request<Person[]>('GET', '/people'), staleTime: 60_000 })
export const useJournal = (id: string, words: string) =>
  useQuery({
    queryKey: ['journal', id, words],
    queryFn: () => request<JournalEntry[]>('GET', `/jobs/${id}/journal?q=${encodeURIComponent(words)}`),
  })

export interface ClockListed {
  clock: Clock
  owner: Owner
  visits: Pick<JobRow, 'id' | 'number' | 'receivedAt' | 'closedAt'>[]
}

export interface ClockHistory {
  clock: Clock
  owner: Owner
  /** each with what was done and found, in words */
  visits: (JobRow & { told: string[] })[]
  journal: JournalEntry[]
  /** what earlier visits taught: the nut's figure where it was learned from readings, and the last oil */
  learned: Learned
}

export const useClocks = (words: string) =>
  useQuery({
    queryKey: ['clocks', words],
    queryFn: () => request<ClockListed[]>('GET', `/clocks?q=${encodeURIComponent(words)}`),
    placeholderData: (before) => before,
  })
export const useClock = (id: string) =>
  useQuery({ queryKey: ['clock', id], queryFn: () => request<ClockHistory>('GET', `/clocks/${id}`) })

export const useOwners = (words: string) =>
  useQuery({
    queryKey: ['owners', words],
    queryFn: () => request<OwnerListed[]>('GET', `/owners?q=${encodeURIComponent(words)}`),
    enabled: words !== '',
    placeholderData: (before) => before,
  })
export const useOwner = (id: string) =>
  useQuery({ queryKey: ['owner', id], queryFn: () => request<OwnerListed>('GET', `/owners/${id}`) })

export const useFound = (words: string) =>
  useQuery({
    queryKey: ['find', words],
    queryFn: () => request<Found[]>('GET', `/find?q=${encodeURIComponent(words)}`),
    enabled: words !== '',
    placeholderData: (before) => before,
  })
export const useTable = <N extends TableName>(name: N) =>
  useQuery({ queryKey: ['table', name], queryFn: () => request<TableAnswer<N>>('GET', `/tables/${name}`) })
export const useCauseCounts = () =>
  useQuery({ queryKey: ['causes'], queryFn: () => request<Record<string, number>>('GET', '/causes/counts') })

export interface Change {
  method: 'POST' | 'PUT' | 'PATCH' | 'DELETE'
  path: string
  body?: unknown
}

const sending = <T>({ method, path, body }: Change) => request<T>(method, path, body)

/** Sends a picture or a sound; while the server is away it waits its turn like any other change. */
export const sendAsChange = (change: Change): Promise<unknown> =>
  new MutationObserver<unknown, Error, Change>(queryClient, { mutationFn: sending }).mutate(change)

const underWay = new Map<string, Promise<void>>()

/**
 * Waits until all that was said before of the same row is answered: what is taken back while the server is away must not
 * get there before it was said. Gives what lets the next go.
 */
async function afterEarlier(path: string): Promise<() => void> {
  const earlier = underWay.get(path)
  let letGo = (): void => undefined
  const answered = new Promise<void>((resolve) => (letGo = resolve))
  underWay.set(path, answered)
  await earlier
  return () => {
    if (underWay.get(path) === answered) underWay.delete(path)
    letGo()
  }
}

interface Ends<T> {
  onSuccess?: ((answer: T) => void) | undefined
  onError?: ((error: Error) => void) | undefined
}

interface Sender<T> {
  mutate: (change: Change, ends?: Ends<T>) => void
  mutateAsync: (change: Change) => Promise<T>
  isPending: boolean
  /** why the last one was refused */
  error: Error | null
}

/** Tells of a change that was refused, and why. */
export const sayNotKept = (error: unknown) =>
  notifications.show({ color: 'red', title: 'Not kept', message: sentenceOf(error), autoClose: 10_000 })

/**
 * Sends a change and brings the pages up to date. The caller is told how it ended even when bringing the page up to
 * date has meanwhile put another in its place, and a refusal that the caller does not show itself is shown here.
 */
export function useChange<T = unknown>(...alsoStale: string[]): Sender<T> {
  const client = useQueryClient()
  const { mutateAsync, isPending, error } = useMutation({
    mutationFn: sending<T>,
    onMutate: async ({ path }) => {
      const answered = await afterEarlier(path)
      return { sentAt: Date.now(), answered }
    },
    onSettled: async (answer, _error, change, sent) => {
      sent?.answered()
      const kept = sent !== undefined && keepInPage(client, { ...change, ...sent }, answer)
      const timers = change.path.includes('/timers/') ? ['timers'] : []
      const stale = ['bench', 'journal', ...timers, ...(kept ? [] : ['job']), ...alsoStale]
      await Promise.all(stale.map((key) => client.invalidateQueries({ queryKey: [key] })))
    },
  })
  // The same at each render: a row that was given it is not drawn anew for it.
  const mutate = useCallback<Sender<T>['mutate']>(
    (change, ends) =>
      void mutateAsync(change).then(
        (answer) => ends?.onSuccess?.(answer),
        (refusal: Error) => (ends?.onError ?? sayNotKept)(refusal),
      ),
    [mutateAsync],
  )
  return { mutate, mutateAsync, isPending, error }
}

/** The sentence to show for an error, whatever it is. */
export function sentenceOf(error: unknown): string {
  return error instanceof ApiProblem ? error.sentence : error instanceof Error ? error.message : 'Something went wrong.'
}
