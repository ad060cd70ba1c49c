import { Module } from '@nestjs/common';
import { APP_FILTER, APP_GUARD, APP_INTERCEPTOR } from '@nestjs/core';
import { TypeOrmModule } from '@nestjs/typeorm';
import { AccountsController } from './accounts/accounts.controller.js';
import { AccountEntity, SessionEntity } from './accounts/accounts.entity.js';
import { HiddenValues } from './accounts/hidden-values.js';
import { Passwords } from './accounts/passwords.service.js';
import { AccountsService } from './accounts/accounts.service.js';
import { SessionGuard } from './accounts/session.guard.js';
import { ArchiveService } from './archive/archive.service.js';
import { BounceSettings } from './settings/bounce-settings.service.js';
import { BouncesController } from './bounces/bounces.controller.js';
import { BouncesService } from './bounces/bounces.service.js';
import { IncomingMail } from './incoming/incoming-mail.service.js';
import { InboundSmtp } from './incoming/inbound-smtp.service.js';
import { MailboxReader } from './incoming/mailbox-reader.service.js';
import { BatchStarts } from './batches/batch-starts.service.js';
import { StartEstimates } from './batches/start-estimates.service.js';
import { BatchesController } from './batches/batches.controller.js';
import { BatchMaking } from './batches/batch-making.service.js';
import { BatchMails } from './batches/batch-mails.service.js';
import { BatchSummaries } from './batches/batch-summaries.service.js';
import { BatchesService } from './batches/batches.service.js';
import { FrozenBatches } from './frozen/frozen-batches.js';
import { JobsController } from './jobs/jobs.controller.js';
import { Jobs } from './jobs/jobs.service.js';
import { CopiesController } from './copies/copies.controller.js';
import { CopyDeliveriesController } from './delivery/copy-deliveries.controller.js';
import { ImportReportsController } from './corrections/import-reports.controller.js';
import { SourceLinksController } from './mailings/source-links.controller.js';
import { CopiesService } from './copies/copies.service.js';
import { Ledger } from './copies/ledger.service.js';
import { LedgerExports } from './copies/ledger-exports.service.js';
import { SavedViews } from './copies/saved-views.service.js';
import { ConnectionsController } from './databases/connections.controller.js';
import { ConnectionEntity } from './databases/connections.entity.js';
import { ConnectionsService } from './databases/connections.service.js';
import { CorrectionsController } from './corrections/corrections.controller.js';
import { CorrectionsService } from './corrections/corrections.service.js';
import { Claims } from './delivery/claims.service.js';
import { DeliveryService } from './delivery/delivery.service.js';
import { Envelopes } from './delivery/envelopes.service.js';
import { OutgoingMessages } from './delivery/outgoing-messages.service.js';
import { CopyActions } from './delivery/copy-actions.service.js';
import { DeskController } from './desk/desk.controller.js';
import { Course } from './desk/course.service.js';
import { DeskService } from './desk/desk.service.js';
import { Needs } from './desk/needs.service.js';
import { HistoryController } from './people/history.controller.js';
import { History } from './history/history.service.js';
import { AnswersInterceptor } from './platform/answers.interceptor.js';
import { config } from './platform/config.js';
import { HistoryInterceptor } from './people/history.interceptor.js';
import { HereService } from './live/here.service.js';
import { LiveController } from './live/live.controller.js';
import { LiveService } from './live/live.service.js';
import { MailingCopies } from './mailings/mailing-copies.service.js';
import { LastCopies } from './mailings/last-copies.service.js';
import { EarlierMaps } from './mailings/earlier-maps.service.js';
import { FindingLists } from './mailings/finding-lists.service.js';
import { FindingsController } from './mailings/findings.controller.js';
import { MailingFiles } from './mailings/mailing-files.service.js';
import { MailingHistory } from './mailings/mailing-history.service.js';
import { Surveys } from './mailings/surveys.service.js';
import { TrialsController } from './trials/trials.controller.js';
import { Trials } from './trials/trials.service.js';
import { SurveysController } from './mailings/surveys.controller.js';
import { MailingChecks } from './mailings/mailing-checks.service.js';
import { MailingsController } from './mailings/mailings.controller.js';
import { MailingEntity } from './mailings/mailings.entity.js';
import { MailingRevisions } from './mailings/mailing-revisions.service.js';
import { MailingsService } from './mailings/mailings.service.js';
import { AttachedFiles } from './mailings/attached-files.service.js';
import { MessageSamples } from './mailings/message-samples.service.js';
import { PaperController } from './paper/paper.controller.js';
import { Gathering } from './paper/gathering.service.js';
import { PrintRuns } from './paper/print-runs.service.js';
import { Printing } from './paper/printing.service.js';
import { Printers } from './paper/printers.service.js';
import { Invitations } from './people/invitations.service.js';
import { PeopleController } from './people/people.controller.js';
import { dataSourceOptions } from './data-source.js';
import { Transactions } from './persistence/transactions.js';
import { ErrorFilter } from './error-filter.js';
import { FacesController } from './settings/faces.controller.js';
import { HealthController } from './safety/health.controller.js';
import { RegistersController } from './registers/registers.controller.js';
import { WastebasketController } from './wastebasket/wastebasket.controller.js';
import { Wastebasket } from './wastebasket/wastebasket.service.js';
import { Registers } from './registers/registers.service.js';
import { RemindersController } from './reminders/reminders.controller.js';
import { Reminders } from './reminders/reminders.service.js';
import { RetentionController } from './retention/retention.controller.js';
import { Retention } from './retention/retention.service.js';
import { Backups } from './safety/backups.service.js';
import { Hold } from './safety/hold.service.js';
import { SafetyController } from './safety/safety.controller.js';
import { Sweep } from './safety/sweep.service.js';
import { SelfChecks } from './safety/self-checks.service.js';
import { SendersController } from './senders/senders.controller.js';
import { MailServerEntity, SenderEntity } from './senders/senders.entity.js';
import { SenderCodes } from './senders/sender-codes.service.js';
import { DeletedMailServers } from './senders/deleted-mail-servers.service.js';
import { DeletedSenders } from './senders/deleted-senders.service.js';
import { SendersService } from './senders/senders.service.js';
import { SettingsController } from './settings/settings.controller.js';
import { SettingEntity } from './settings/settings.entity.js';
import { SettingsService } from './settings/settings.service.js';
import { SourcesController } from './sources/sources.controller.js';
import { SourceEntity } from './sources/sources.entity.js';
import { ImportReports } from './corrections/import-report.service.js';
import { RecordExports } from './sources/record-exports.service.js';
import { RecordSearch } from './sources/record-search.service.js';
import { IntakeKind } from './sources/kinds/intake-kind.js';
import { Editions } from './intakes/editions.service.js';
import { IntakesController } from './intakes/intakes.controller.js';
import { IntakesService } from './intakes/intakes.service.js';
import { IntakeTrials } from './intakes/intake-trials.service.js';
import { PersonalLinks } from './intakes/personal-links.service.js';
import { Notices } from './intakes/notices.service.js';
import { SignatureBoxes } from './intakes/signature-boxes.service.js';
import { Submissions } from './intakes/submissions.service.js';
import { CopyMail } from './public/copy-mail.service.js';
import { SavedVisits } from './public/saved-visits.service.js';
import { PublicIntakes } from './public/public-intakes.service.js';
import { PublicIntakesController } from './public/public-intakes.controller.js';
import { DatabaseKind } from './sources/kinds/database-kind.js';
import { FileKind } from './sources/kinds/file-kind.js';
import { SourceKinds } from './sources/kinds/source-kinds.js';
import { SourceLookups } from './sources/source-lookups.service.js';
import { SourcePictures } from './sources/source-pictures.service.js';
import { SourceFiles } from './sources/source-files.service.js';
import { SourceReadings } from './sources/source-readings.service.js';
import { SourcesService } from './sources/sources.service.js';
import { StarterSheets } from './mailings/starter-sheet.service.js';
import { FieldLists } from './templates/field-lists.service.js';
import { LayoutsController } from './templates/layouts.controller.js';
import { LayoutsService } from './templates/layouts.service.js';
import { TemplatesController } from './templates/templates.controller.js';
import { TemplateEntity, TemplateRevisionEntity } from './templates/templates.entity.js';
import { TemplatesService } from './templates/templates.service.js';
import { LogCare } from './work/log-care.js';
import { Pool } from './work/pool.js';

@Module({
  imports: [
    TypeOrmModule.forRoot(dataSourceOptions()),
    TypeOrmModule.forFeature([
      AccountEntity,
      SessionEntity,
      ConnectionEntity,
      MailingEntity,
      MailServerEntity,
      SenderEntity,
      SettingEntity,
      SourceEntity,
      TemplateEntity,
      TemplateRevisionEntity,
    ]),
  ],
  controllers: [
    AccountsController,
    BatchesController,
    BouncesController,
    ConnectionsController,
    CopiesController,
    JobsController,
    CopyDeliveriesController,
    CorrectionsController,
    DeskController,
    FacesController,
    HealthController,
    HistoryController,
    LiveController,
    MailingsController,
    FindingsController,
    SurveysController,
    TrialsController,
    PaperController,
    PeopleController,
    RegistersController,
    WastebasketController,
    RemindersController,
    RetentionController,
    SafetyController,
    SendersController,
    SettingsController,
    ImportReportsController,
    SourceLinksController,
    SourcesController,
    IntakesController,
    PublicIntakesController,
    LayoutsController,
    TemplatesController,
  ],
  providers: [
    AccountsService,
    Passwords,
    ArchiveService,
    Backups,
    BatchMaking,
    BatchMails,
    BatchSummaries,
    BatchesService,
    BatchStarts,
    StartEstimates,
    BounceSettings,
    BouncesService,
    IncomingMail,
    ConnectionsService,
    CopiesService,
    Jobs,
    Ledger,
    CorrectionsService,
    Claims,
    DeliveryService,
    Course,
    DeskService,
    Envelopes,
    FrozenBatches,
    Hold,
    ImportReports,
    InboundSmtp,
    Invitations,
    LedgerExports,
    OutgoingMessages,
    LiveService,
    HereService,
    MailingChecks,
    FindingLists,
    MailingHistory,
    MailingFiles,
    Surveys,
    Trials,
    EarlierMaps,
    LastCopies,
    MailingCopies,
    MailboxReader,
    MailingsService,
    MailingRevisions,
    AttachedFiles,
    MessageSamples,
    Needs,
    LogCare,
    Pool,
    Gathering,
    PrintRuns,
    Printing,
    Printers,
    RecordExports,
    Registers,
    Wastebasket,
    History,
    Reminders,
    Retention,
    SavedViews,
    SelfChecks,
    Sweep,
    SenderCodes,
    SendersService,
    DeletedMailServers,
    DeletedSenders,
    SettingsService,
    CopyActions,
    RecordSearch,
    SourceFiles,
    SourceLookups,
    SourcePictures,
    FileKind,
    DatabaseKind,
    IntakeKind,
    Editions,
    IntakesService,
    PersonalLinks,
    IntakeTrials,
    Submissions,
    Notices,
    SignatureBoxes,
    SavedVisits,
    CopyMail,
    PublicIntakes,
    SourceKinds,
    SourcesService,
    SourceReadings,
    StarterSheets,
    FieldLists,
    LayoutsService,
    TemplatesService,
    Transactions,
    { provide: APP_GUARD, useClass: SessionGuard },
    ...(config.checksAnswers ? [{ provide: APP_INTERCEPTOR, useClass: AnswersInterceptor }] : []),
    { provide: APP_INTERCEPTOR, useClass: HistoryInterceptor },
    { provide: APP_INTERCEPTOR, useClass: HiddenValues },
    { provide: APP_FILTER, useClass: ErrorFilter },
  ],
})
export class AppModule {}
