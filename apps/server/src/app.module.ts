import { Module } from '@nestjs/common';
import { APP_FILTER, APP_GUARD } from '@nestjs/core';
import { TypeOrmModule } from '@nestjs/typeorm';
import { AccountsController } from './accounts/accounts.controller.js';
import { AccountEntity, SessionEntity } from './accounts/accounts.entity.js';
import { AccountsService } from './accounts/accounts.service.js';
import { SessionGuard } from './accounts/session.guard.js';
import { ArchiveService } from './archive/archive.service.js';
import { BatchesController } from './batches/batches.controller.js';
import { BatchEntity } from './batches/batches.entity.js';
import { BatchesService } from './batches/batches.service.js';
import { FrozenBatches } from './batches/frozen-batches.js';
import { PlanCopies } from './batches/plan-copies.js';
import { CopiesController } from './copies/copies.controller.js';
import { CopiesService } from './copies/copies.service.js';
import { ConnectionsController } from './databases/connections.controller.js';
import { ConnectionEntity } from './databases/connections.entity.js';
import { ConnectionsService } from './databases/connections.service.js';
import { CorrectionsController } from './corrections/corrections.controller.js';
import { CorrectionsService } from './corrections/corrections.service.js';
import { DeliveryService } from './delivery/delivery.service.js';
import { DeskController } from './desk/desk.controller.js';
import { DeskService } from './desk/desk.service.js';
import { LiveController } from './live/live.controller.js';
import { LiveService } from './live/live.service.js';
import { MailingChecks } from './mailings/mailing-checks.service.js';
import { MailingsController } from './mailings/mailings.controller.js';
import { MailingEntity } from './mailings/mailings.entity.js';
import { MailingsService } from './mailings/mailings.service.js';
import { dataSourceOptions } from './persistence/data-source.js';
import { Transactions } from './persistence/transactions.js';
import { ErrorFilter } from './platform/error-filter.js';
import { FacesController } from './platform/faces.controller.js';
import { HealthController } from './platform/health.controller.js';
import { SettingsController } from './settings/settings.controller.js';
import { SettingEntity } from './settings/settings.entity.js';
import { SettingsService } from './settings/settings.service.js';
import { SourcesController } from './sources/sources.controller.js';
import { SourceEntity } from './sources/sources.entity.js';
import { ImportReports } from './sources/import-report.service.js';
import { RecordExports } from './sources/record-exports.service.js';
import { SourcesService } from './sources/sources.service.js';
import { StarterSheets } from './mailings/starter-sheet.service.js';
import { TemplatesController } from './templates/templates.controller.js';
import { TemplateEntity, TemplateRevisionEntity } from './templates/templates.entity.js';
import { TemplatesService } from './templates/templates.service.js';
import { Pool } from './work/pool.js';

@Module({
  imports: [
    TypeOrmModule.forRoot(dataSourceOptions()),
    TypeOrmModule.forFeature([
      AccountEntity,
      SessionEntity,
      BatchEntity,
      ConnectionEntity,
      MailingEntity,
      SettingEntity,
      SourceEntity,
      TemplateEntity,
      TemplateRevisionEntity,
    ]),
  ],
  controllers: [
    AccountsController,
    BatchesController,
    ConnectionsController,
    CopiesController,
    CorrectionsController,
    DeskController,
    FacesController,
    HealthController,
    LiveController,
    MailingsController,
    SettingsController,
    SourcesController,
    TemplatesController,
  ],
  providers: [
    AccountsService,
    ArchiveService,
    BatchesService,
    ConnectionsService,
    CopiesService,
    CorrectionsService,
    DeliveryService,
    DeskService,
    FrozenBatches,
    ImportReports,
    LiveService,
    MailingChecks,
    MailingsService,
    PlanCopies,
    Pool,
    RecordExports,
    SettingsService,
    SourcesService,
    StarterSheets,
    TemplatesService,
    Transactions,
    { provide: APP_GUARD, useClass: SessionGuard },
    { provide: APP_FILTER, useClass: ErrorFilter },
  ],
})
export class AppModule {}
