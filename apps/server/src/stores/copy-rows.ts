import type { CopyState, Detail } from '@mailbag/core';

/** What a manifest tells of a copy. */
export interface ManifestRow {
  id: number;
  code: string;
  row: number;
  recipient: string;
  address: string;
  templateName: string;
  path: string;
  size: number;
  sha256: string;
  state: string;
  since: string;
  /** Values of the chosen columns, as JSON. */
  metadata: string | null;
}

export interface AddressedCopy {
  id: number;
  batchId: number;
  recordOrdinal: number;
  /** The envelope it goes in; null: in none. */
  deliveryId: number | null;
  address: string;
  state: CopyState;
}

export interface CopiesOfMailing {
  mailingId: number;
  mailingName: string;
  count: number;
  detail: Detail | null;
}

/** A copy that is about to be planned. */
export interface PlannedCopy {
  code: string;
  recordOrdinal: number;
  /** What identifies its record; empty: nothing does, or its time is over. */
  recordKey: string;
  row: number;
  position: number;
  /** Which copy of the template for its record, from 0. */
  part: number;
  templateId: number;
  templateName: string;
  pages: number;
  recipient: string;
  address: string;
  path: string;
  pathKey: string;
  wantsPaper: boolean;
  isProtected: boolean;
  /** As JSON. */
  metadata: string | null;
  /** What the search finds it by. */
  search: string;
}

/** Another copy of the same template for the same record. */
export interface BesideCopy {
  id: number;
  code: string;
  batchId: number;
  recordOrdinal: number;
  /** Time at which its batch began. */
  at: string;
}

/** A copy that was made for a record, or is planned. */
export interface CopyOfRecord {
  id: number;
  code: string;
  path: string;
  templateName: string;
  pages: number;
  state: CopyState;
  sha256: string | null;
  batchId: number;
  recordOrdinal: number;
  position: number;
  recipient: string;
}
