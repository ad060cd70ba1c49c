import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What of a batch is to leave next is found at once, however many of it wait. */
export class WaitingDeliveries1764500000000 implements MigrationInterface {
  name = 'WaitingDeliveries1764500000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('DROP INDEX delivery_by_batch');
    await runner.query('CREATE INDEX delivery_by_batch ON delivery (batchId, state, held, nextTryAt)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP INDEX delivery_by_batch');
    await runner.query('CREATE INDEX delivery_by_batch ON delivery (batchId, state)');
  }
}
