import type {
  AccountAnswer,
  BackupsAnswer,
  BatchSummary,
  BouncesAnswer,
  ChecksAnswer,
  ConnectionAnswer,
  CopyDetail,
  CountedRecordsAnswer,
  CorrectionAnswer,
  CurrentTrialAnswer,
  DatabaseTable,
  CourseAnswer,
  CourseSpan,
  DeskAnswer,
  FindAnswer,
  FindingsAnswer,
  FlaggedAnswer,
  HistoryLine,
  HoldAnswer,
  IntakeDetail,
  IntakeSummary,
  ImportReport,
  IncomingReport,
  LedgerCounts,
  LedgerPage,
  MailRulesAnswer,
  MailServerAnswer,
  MailingChangeLine,
  MailingDetail,
  MailingPlan,
  MailingSummary,
  MatchingRecords,
  MessageSample,
  OfficeRequest,
  PaperWaiting,
  PicksAnswer,
  PictureNamesAnswer,
  PeopleAnswer,
  PrintRunDetail,
  PrintRunSummary,
  PrinterAnswer,
  RecordViewAnswer,
  RecordsAnswer,
  JobsAnswer,
  LayoutAidsAnswer,
  LayoutAnswer,
  LastCopyAnswer,
  LearnedAnswer,
  RegisterAnswer,
  ReminderAnswer,
  RetentionAnswer,
  SavedView,
  SelfCheckAnswer,
  SenderAnswer,
  SourceSummary,
  StartEstimate,
  StartGroup,
  StartList,
  SubmissionCopy,
  WastebasketLine,
  SubmissionsAnswer,
  SurveyAnswer,
  EditionsAnswer,
  RevisionSummary,
  TemplateDetail,
  TemplateSummary,
} from '@mailbag/contract';
import type { SourceRecord } from '@mailbag/core';
import { infiniteQueryOptions, keepPreviousData, queryOptions, useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { api } from './client';

/** A message as it went out. */
export interface SentMessage {
  from: string;
  to: string[];
  subject: string;
  html: string;
  text: string;
  attachments: string[];
  /** Whether it is proved to be what went out; null: that was not written down. */
  isAsSent: boolean | null;
}

/** Every question to the server, with the key under which its answer is kept. */
/** Names that are read at a time. */
const PICTURES_A_PAGE = 60;

export const queries = {
  account: () => queryOptions({ queryKey: ['account'], queryFn: () => api.get<AccountAnswer>('/api/account'), staleTime: Infinity }),
  course: (span: CourseSpan) =>
    queryOptions({
      queryKey: ['desk', 'course', span],
      queryFn: () => api.get<CourseAnswer>(`/api/desk/course?span=${span}`),
      placeholderData: keepPreviousData,
    }),
  desk: () => queryOptions({ queryKey: ['desk'], queryFn: () => api.get<DeskAnswer>('/api/desk') }),
  intakes: () => queryOptions({ queryKey: ['intakes'], queryFn: () => api.get<IntakeSummary[]>('/api/intakes') }),
  intake: (id: number) => queryOptions({ queryKey: ['intakes', id], queryFn: () => api.get<IntakeDetail>(`/api/intakes/${id}`) }),
  submissionCopies: (id: number, submission: number) =>
    queryOptions({
      queryKey: ['intakes', id, 'copies', submission],
      queryFn: () => api.get<SubmissionCopy[]>(`/api/intakes/${id}/submissions/${submission}/copies`),
    }),
  submissions: (id: number, from: number, count: number, text: string, only: string) =>
    queryOptions({
      queryKey: ['intakes', id, 'submissions', from, count, text, only],
      queryFn: () =>
        api.get<SubmissionsAnswer>(
          `/api/intakes/${id}/submissions?from=${from}&count=${count}&text=${encodeURIComponent(text)}&only=${encodeURIComponent(only)}`,
        ),
      placeholderData: keepPreviousData,
    }),
  templates: () => queryOptions({ queryKey: ['templates'], queryFn: () => api.get<TemplateSummary[]>('/api/templates') }),
  template: (id: number) => queryOptions({ queryKey: ['templates', id], queryFn: () => api.get<TemplateDetail>(`/api/templates/${id}`) }),
  templateRevision: (id: number, revisionId: number) =>
    queryOptions({
      queryKey: ['templates', id, revisionId],
      queryFn: () => api.get<TemplateDetail>(`/api/templates/${id}?revision=${revisionId}`),
    }),
  templateRevisions: (id: number) =>
    queryOptions({ queryKey: ['templates', id, 'revisions'], queryFn: () => api.get<RevisionSummary[]>(`/api/templates/${id}/revisions`) }),
  layout: (id: number) => queryOptions({ queryKey: ['layout', id], queryFn: () => api.get<LayoutAnswer>(`/api/templates/${id}/layout`) }),
  /** What lies on the pages of a revision never changes. */
  layoutAids: (id: number, revisionId: number) =>
    queryOptions({
      queryKey: ['layout-aids', id, revisionId],
      queryFn: () => api.getSlowly<LayoutAidsAnswer>(`/api/templates/${id}/layout/aids?revision=${revisionId}`),
      staleTime: Infinity,
    }),
  /** Two revisions never change, so they are compared once. */
  editions: (id: number, before: number, after: number) =>
    queryOptions({
      queryKey: ['editions', id, before, after],
      queryFn: () => api.get<EditionsAnswer>(`/api/templates/${id}/revisions/${before}/compared-with/${after}`),
      staleTime: Infinity,
    }),
  /** A revision never changes, so its bytes are asked for once. */
  templatePdf: (id: number, revisionId: number) =>
    queryOptions({
      queryKey: ['template-pdf', id, revisionId],
      queryFn: () => api.bytes(`/api/templates/${id}/pdf?revision=${revisionId}`),
      staleTime: Infinity,
      gcTime: 600_000,
    }),
  /** The picture that a record names; null: it is not there, which is told where the record is checked. */
  sourcePicture: (source: number, name: string) =>
    queryOptions({
      queryKey: ['sources', source, 'picture', name],
      queryFn: () => api.bytes(`/api/sources/${source}/pictures?name=${encodeURIComponent(name)}`).catch(() => null),
      retry: false,
    }),
  pictureNames: (source: number, total: number) =>
    infiniteQueryOptions({
      queryKey: ['sources', source, 'picture-names', total],
      initialPageParam: 0,
      queryFn: ({ pageParam }) =>
        api.get<PictureNamesAnswer>(`/api/sources/${source}/picture-names?from=${pageParam}&count=${PICTURES_A_PAGE}`),
      getNextPageParam: ({ total: all }, pages) => (pages.length * PICTURES_A_PAGE < all ? pages.length * PICTURES_A_PAGE : undefined),
    }),
  picture: (fileId: string) =>
    queryOptions({ queryKey: ['picture', fileId], queryFn: () => api.bytes(`/api/mailings/pictures/${fileId}`), staleTime: Infinity }),
  sources: () => queryOptions({ queryKey: ['sources'], queryFn: () => api.get<SourceSummary[]>('/api/sources') }),
  source: (id: number) => queryOptions({ queryKey: ['sources', id], queryFn: () => api.get<SourceSummary>(`/api/sources/${id}`) }),
  corrections: (sourceId: number) =>
    queryOptions({
      queryKey: ['corrections', sourceId],
      queryFn: () => api.get<CorrectionAnswer[]>(`/api/sources/${sourceId}/corrections`),
    }),
  importReport: (sourceId: number) =>
    queryOptions({ queryKey: ['sources', sourceId, 'report'], queryFn: () => api.get<ImportReport>(`/api/sources/${sourceId}/report`) }),
  connections: () => queryOptions({ queryKey: ['connections'], queryFn: () => api.get<ConnectionAnswer[]>('/api/connections') }),
  tables: (connectionId: number) =>
    queryOptions({
      queryKey: ['connections', connectionId, 'tables'],
      queryFn: () => api.getSlowly<DatabaseTable[]>(`/api/connections/${connectionId}/tables`),
      retry: false,
    }),
  records: (sourceId: number, from: number, count: number) =>
    queryOptions({
      queryKey: ['records', sourceId, from, count],
      queryFn: () => api.get<RecordsAnswer>(`/api/sources/${sourceId}/records?from=${from}&count=${count}`),
      staleTime: Infinity,
    }),
  mailings: () => queryOptions({ queryKey: ['mailings'], queryFn: () => api.get<MailingSummary[]>('/api/mailings') }),
  mailing: (id: number) => queryOptions({ queryKey: ['mailings', id], queryFn: () => api.get<MailingDetail>(`/api/mailings/${id}`) }),
  checks: (id: number) =>
    queryOptions({
      queryKey: ['checks', id],
      queryFn: () => api.get<ChecksAnswer>(`/api/mailings/${id}/checks`),
      refetchInterval: ({ state }) => (state.data && state.data.possible && !state.data.current ? 700 : false),
    }),
  startEstimate: (id: number, digest: string) =>
    queryOptions({
      queryKey: ['start', id, 'estimate', digest],
      queryFn: () => api.get<StartEstimate>(`/api/mailings/${id}/estimate/${digest}`),
      staleTime: Infinity,
      retry: false,
    }),
  mailingChanges: (id: number) =>
    queryOptions({
      queryKey: ['mailings', id, 'changes'],
      queryFn: () => api.get<MailingChangeLine[]>(`/api/mailings/${id}/changes`),
      staleTime: 0,
    }),
  trial: (id: number) => queryOptions({ queryKey: ['trial', id], queryFn: () => api.get<CurrentTrialAnswer>(`/api/mailings/${id}/trial`) }),
  findings: (id: number, filter: string, from: number, count: number) =>
    queryOptions({
      queryKey: ['checks', id, 'findings', filter, from, count],
      queryFn: () => api.get<FindingsAnswer>(`/api/mailings/${id}/findings?from=${from}&count=${count}${filter}`),
      placeholderData: keepPreviousData,
    }),
  flagged: (id: number) =>
    queryOptions({ queryKey: ['checks', id, 'flagged'], queryFn: () => api.get<FlaggedAnswer>(`/api/mailings/${id}/flagged`) }),
  lastCopy: (id: number, index: number) =>
    queryOptions({
      queryKey: ['checks', id, 'last-copy', index],
      queryFn: () => api.get<LastCopyAnswer>(`/api/mailings/${id}/records/${index}/last-copy`),
      retry: false,
    }),
  learned: (id: number) =>
    queryOptions({ queryKey: ['mailings', id, 'learned'], queryFn: () => api.get<LearnedAnswer>(`/api/mailings/${id}/learned`) }),
  /** Worked out anew whenever the checks have run, as they do after every change of the map or of a record. */
  survey: (id: number) =>
    queryOptions({
      queryKey: ['checks', id, 'survey'],
      queryFn: () => api.getSlowly<SurveyAnswer>(`/api/mailings/${id}/survey`),
      placeholderData: keepPreviousData,
      retry: false,
    }),
  countedRecords: (id: number, which: { template: number; field: string; of: string; value: string }) =>
    queryOptions({
      queryKey: ['checks', id, 'counted', which],
      queryFn: () =>
        api.getSlowly<CountedRecordsAnswer>(
          `/api/mailings/${id}/survey/records?${new URLSearchParams({ ...which, template: String(which.template) }).toString()}`,
        ),
      retry: false,
    }),
  picks: (id: number, wish: string) =>
    queryOptions({
      queryKey: ['checks', id, 'picks', wish],
      queryFn: () => api.getSlowly<PicksAnswer>(`/api/mailings/${id}/picks?${wish}`),
      placeholderData: keepPreviousData,
      retry: false,
    }),
  batch: (id: number) => queryOptions({ queryKey: ['batches', id], queryFn: () => api.get<BatchSummary>(`/api/batches/${id}`) }),
  running: () => queryOptions({ queryKey: ['batches', 'running'], queryFn: () => api.get<BatchSummary[]>('/api/batches/running') }),
  copy: (id: number) => queryOptions({ queryKey: ['copies', id], queryFn: () => api.get<CopyDetail>(`/api/copies/${id}`) }),
  ledgerCounts: (filter: string) =>
    queryOptions({
      queryKey: ['copies', 'counts', filter],
      queryFn: () => api.get<LedgerCounts>(`/api/copies/counts?${filter}`),
      placeholderData: keepPreviousData,
    }),
  mailServers: () => queryOptions({ queryKey: ['senders', 'servers'], queryFn: () => api.get<MailServerAnswer[]>('/api/mail-servers') }),
  senders: () => queryOptions({ queryKey: ['senders', 'list'], queryFn: () => api.get<SenderAnswer[]>('/api/senders') }),
  mailRules: () =>
    queryOptions({ queryKey: ['settings', 'mail-rules'], queryFn: () => api.get<MailRulesAnswer>('/api/settings/mail-rules') }),
  office: () => queryOptions({ queryKey: ['settings', 'office'], queryFn: () => api.get<OfficeRequest>('/api/settings/office') }),
  bounces: () => queryOptions({ queryKey: ['bounces'], queryFn: () => api.get<BouncesAnswer>('/api/bounces') }),
  matchingRecords: (mailing: number, text: string, only: 'corrected' | 'looked' | null) =>
    queryOptions({
      queryKey: ['matching-records', mailing, text, only],
      queryFn: () =>
        api.getSlowly<MatchingRecords>(`/api/mailings/${mailing}/records?text=${encodeURIComponent(text)}${only ? `&only=${only}` : ''}`),
      placeholderData: keepPreviousData,
      staleTime: 0,
    }),
  hold: () => queryOptions({ queryKey: ['safety', 'hold'], queryFn: () => api.get<HoldAnswer>('/api/safety/hold') }),
  backups: () => queryOptions({ queryKey: ['safety', 'backups'], queryFn: () => api.get<BackupsAnswer>('/api/safety/backups') }),
  selfCheck: () => queryOptions({ queryKey: ['safety', 'self-check'], queryFn: () => api.get<SelfCheckAnswer>('/api/safety/self-check') }),
  reports: () => queryOptions({ queryKey: ['bounces', 'reports'], queryFn: () => api.get<IncomingReport[]>('/api/bounces/reports') }),
  printers: () => queryOptions({ queryKey: ['printers'], queryFn: () => api.get<PrinterAnswer[]>('/api/printers') }),
  printRuns: () => queryOptions({ queryKey: ['print-runs', 'list'], queryFn: () => api.get<PrintRunSummary[]>('/api/print-runs') }),
  printRun: (id: number) => queryOptions({ queryKey: ['print-runs', id], queryFn: () => api.get<PrintRunDetail>(`/api/print-runs/${id}`) }),
  paperWaiting: (mailing: number | null) =>
    queryOptions({
      queryKey: ['print-runs', 'waiting', mailing],
      queryFn: () => api.get<PaperWaiting>(`/api/print-runs/waiting${mailing === null ? '' : `?mailing=${mailing}`}`),
      placeholderData: keepPreviousData,
    }),
  wastebasket: () => queryOptions({ queryKey: ['wastebasket'], queryFn: () => api.get<WastebasketLine[]>('/api/wastebasket') }),
  jobs: () => queryOptions({ queryKey: ['jobs'], queryFn: () => api.get<JobsAnswer>('/api/jobs') }),
  registers: () => queryOptions({ queryKey: ['registers'], queryFn: () => api.get<RegisterAnswer[]>('/api/registers') }),
  people: () => queryOptions({ queryKey: ['people'], queryFn: () => api.get<PeopleAnswer>('/api/people') }),
  invitation: (token: string) =>
    queryOptions({
      queryKey: ['invitation', token],
      queryFn: () => api.get<{ name: string; email: string }>(`/api/people/invitation?token=${encodeURIComponent(token)}`),
      retry: false,
    }),
  retention: () => queryOptions({ queryKey: ['retention'], queryFn: () => api.get<RetentionAnswer>('/api/retention') }),
  reminders: (id: number) =>
    queryOptions({ queryKey: ['copies', 'reminders', id], queryFn: () => api.get<ReminderAnswer>(`/api/mailings/${id}/reminders`) }),
  savedViews: () => queryOptions({ queryKey: ['saved-views'], queryFn: () => api.get<SavedView[]>('/api/copies/views') }),
  /** The message of a mailing for one record, as it is being written. */
  messageSample: (id: number, index: number, draft: Pick<MailingPlan, 'message' | 'output'>) =>
    queryOptions({
      queryKey: ['message-sample', id, index, draft],
      queryFn: () => api.post<MessageSample>(`/api/mailings/${id}/message-sample`, { index, ...draft }),
      placeholderData: keepPreviousData,
      retry: false,
      gcTime: 10_000,
    }),
  sentMessage: (copyId: number) =>
    queryOptions({
      queryKey: ['copies', copyId, 'message'],
      queryFn: () => api.get<SentMessage>(`/api/copies/${copyId}/message`),
      retry: false,
    }),
  find: (text: string) =>
    queryOptions({
      queryKey: ['find', text],
      queryFn: () => api.get<FindAnswer>(`/api/find?text=${encodeURIComponent(text)}`),
      enabled: text.trim().length > 1,
      placeholderData: keepPreviousData,
    }),
};

/** The ledger, page after page. */
export const useLedger = (filter: string) =>
  useInfiniteQuery({
    queryKey: ['copies', 'pages', filter],
    queryFn: ({ pageParam }) => api.get<LedgerPage>(`/api/copies?count=100&${filter}${pageParam ? `&before=${pageParam}` : ''}`),
    initialPageParam: 0,
    getNextPageParam: (page: LedgerPage) => (page.more ? page.rows.at(-1)?.id : undefined),
    placeholderData: keepPreviousData,
  });

/** Lines of the history that come at once. */
const HISTORY_PAGE = 100;
export const historyPages = (text: string) =>
  infiniteQueryOptions({
    queryKey: ['history', text],
    initialPageParam: 0,
    queryFn: ({ pageParam }) =>
      api.get<HistoryLine[]>(`/api/history?text=${encodeURIComponent(text)}${pageParam ? `&before=${pageParam}` : ''}`),
    getNextPageParam: (page) => (page.length < HISTORY_PAGE ? undefined : page.at(-1)?.id),
    placeholderData: keepPreviousData,
  });

/** Places of the records of a source as they are to be seen. @param view as the server takes it, without a question mark */
export const recordView = (sourceId: number, view: string) =>
  queryOptions({
    queryKey: ['record-view', sourceId, view],
    queryFn: async () => (await api.get<RecordViewAnswer>(`/api/sources/${sourceId}/view?${view}`)).ordinals,
    placeholderData: keepPreviousData,
    // What is changed in it stays where it is seen until one orders anew.
    staleTime: Infinity,
    gcTime: 0,
  });
/** Records by their places. */
export const recordsAt = (sourceId: number, ordinals: readonly number[]) =>
  queryOptions({
    queryKey: ['records', sourceId, 'at', ordinals.join()],
    queryFn: () => api.get<RecordsAnswer>(`/api/sources/${sourceId}/records-at?at=${ordinals.join()}`),
  });

const BLOCK = 50;

/** One record of a source by its place; its neighbours come along. */
export function useRecord(sourceId: number | null, index: number): { record: SourceRecord | null; total: number } {
  const from = Math.floor(index / BLOCK) * BLOCK;
  const { data } = useQuery({ ...queries.records(sourceId ?? 0, from, BLOCK), enabled: sourceId !== null, placeholderData: undefined });
  return { record: data?.records[index - from] ?? null, total: data?.total ?? 0 };
}

const START_PAGE = 100;
/** The records behind a number of a batch that is about to start, page by page. */
export const startList = (mailing: number, digest: string, group: StartGroup) =>
  infiniteQueryOptions({
    queryKey: ['start-list', mailing, digest, group],
    queryFn: ({ pageParam }) =>
      api.get<StartList>(`/api/mailings/${mailing}/start/${digest}/${group}?from=${pageParam}&count=${START_PAGE}`),
    initialPageParam: 0,
    getNextPageParam: ({ total }, pages) => (pages.length * START_PAGE < total ? pages.length * START_PAGE : undefined),
    retry: false,
  });
