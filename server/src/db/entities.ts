import 'reflect-metadata';
import { Column, Entity, Index, PrimaryColumn, PrimaryGeneratedColumn } from 'typeorm';
import type { Author, Job, Operation, Proof, SiteDocument } from '@tactron/core/job';

/** What an account may do; each may what the one before may. */
export const roles = ['reader', 'electrician', 'supervisor'] as const;
export type Role = (typeof roles)[number];

@Entity({ name: 'site' })
export class SiteRow {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'boolean', default: false }) archived: boolean;
  /** What the site settles for its jobs; null until it settles anything. */
  @Column({ type: 'jsonb', nullable: true }) document: SiteDocument | null;
  @Column({ type: 'integer', default: 0 }) revision: number;
  @Column({ type: 'timestamptz', name: 'created_at', default: () => 'now()' }) createdAt: Date;
}

/** Every document a site ever had: read and added to, never changed. */
@Entity({ name: 'site_change' })
export class SiteChangeRow {
  @PrimaryColumn({ type: 'uuid', name: 'site_id' }) siteId: string;
  @PrimaryColumn({ type: 'integer' }) revision: number;
  @Column({ type: 'jsonb' }) document: SiteDocument;
  @Column({ type: 'jsonb' }) author: Author;
  @Column({ type: 'timestamptz', name: 'at_client' }) atClient: Date;
  @Column({ type: 'timestamptz', name: 'at_server', default: () => 'now()' }) atServer: Date;
  @Column({ type: 'uuid', name: 'sent_by', nullable: true }) sentBy: string | null;
}

@Entity({ name: 'job' })
@Index('job_board', ['archived', 'tag'])
export class JobRow {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Index('job_site') @Column({ type: 'uuid', name: 'site_id' }) siteId: string;
  @Column({ type: 'text' }) tag: string;
  @Column({ type: 'text' }) machine: string;
  @Column({ type: 'text' }) family: string;
  @Column({ type: 'jsonb' }) document: Job;
  @Column({ type: 'integer', default: 0 }) revision: number;
  @Column({ type: 'boolean', default: false }) archived: boolean;
  @Column({ type: 'timestamptz', name: 'updated_at', default: () => 'now()' }) updatedAt: Date;
}

@Entity({ name: 'job_change' })
@Index('job_change_order', ['jobId', 'revision'], { unique: true })
export class JobChangeRow {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'job_id' }) jobId: string;
  @Column({ type: 'integer' }) revision: number;
  /** `edit`, or `checkpoint`: the one operation is the whole document. */
  @Column({ type: 'text', default: 'edit' }) kind: string;
  @Column({ type: 'text', default: '' }) label: string;
  @Column({ type: 'jsonb' }) patch: Operation[];
  @Column({ type: 'jsonb' }) author: Author;
  @Column({ type: 'timestamptz', name: 'at_client' }) atClient: Date;
  @Column({ type: 'timestamptz', name: 'at_server', default: () => 'now()' }) atServer: Date;
  @Column({ type: 'integer', name: 'clock_ahead_s', nullable: true }) clockAheadS: number | null;
  @Column({ type: 'uuid', name: 'sent_by', nullable: true }) sentBy: string | null;
  /** How the hash is taken; null as the first releases took it. */
  @Column({ type: 'integer', nullable: true }) formula: 2 | null;
  @Column({ type: 'text', name: 'prev_hash' }) prevHash: string;
  @Column({ type: 'text' }) hash: string;
}

@Entity({ name: 'evidence' })
@Index('evidence_order', ['jobId', 'seq'], { unique: true })
export class EvidenceRow {
  @PrimaryColumn({ type: 'uuid', name: 'job_id' }) jobId: string;
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'integer' }) seq: number;
  @Column({ type: 'integer', name: 'job_revision' }) jobRevision: number;
  @Column({ type: 'text' }) kind: string;
  @Column({ type: 'text' }) subject: string;
  @Column({ type: 'jsonb' }) body: unknown;
  @Column({ type: 'jsonb', nullable: true }) supersedes: string | string[] | null;
  @Column({ type: 'text', nullable: true }) why: string | null;
  @Column({ type: 'jsonb' }) author: Author;
  @Column({ type: 'text', name: 'at_client' }) atClient: string;
  @Column({ type: 'text', name: 'at_server' }) atServer: string;
  @Column({ type: 'integer', name: 'clock_ahead_s', nullable: true }) clockAheadS: number | null;
  @Column({ type: 'uuid', name: 'sent_by', nullable: true }) sentBy: string | null;
  @Column({ type: 'text', name: 'core_version' }) coreVersion: string;
  /** How the hash is taken; null as the first release took it. */
  @Column({ type: 'integer', nullable: true }) formula: 2 | null;
  @Column({ type: 'text', name: 'prev_hash' }) prevHash: string;
  @Column({ type: 'text' }) hash: string;
}

/** Evidence that came with a file: who brought it, from which server, and what the file could prove. */
@Entity({ name: 'evidence_origin' })
@Index('evidence_origin_job', ['jobId'])
export class EvidenceOriginRow {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'job_id' }) jobId: string;
  /** The job it was taken for: another one where the file came in as a copy. */
  @Column({ type: 'uuid', name: 'from_job' }) fromJob: string;
  @Column({ type: 'integer', name: 'first_seq' }) firstSeq: number;
  @Column({ type: 'integer' }) count: number;
  @Column({ type: 'jsonb' }) author: Author;
  @Column({ type: 'timestamptz', default: () => 'now()' }) at: Date;
  /** Fingerprint of the key that signed the file; null where none did. */
  @Column({ type: 'text', nullable: true }) server: string | null;
  @Column({ type: 'text' }) proof: Proof;
  /** Pieces the seal stood for, and the hash with which the chain ended in the file. */
  @Column({ type: 'integer' }) sealed: number;
  @Column({ type: 'text' }) ends: string;
}

/** Which account has sent a picture or file: naming one by its hash alone opens nothing. */
@Entity({ name: 'blob_sender' })
export class BlobSenderRow {
  @PrimaryColumn({ type: 'text' }) sha256: string;
  @PrimaryColumn({ type: 'uuid', name: 'account_id' }) accountId: string;
}

@Entity({ name: 'device_profile' })
export class DeviceProfileRow {
  @PrimaryColumn({ type: 'text' }) sha256: string;
  @Column({ type: 'text' }) family: string;
  @Column({ type: 'jsonb' }) document: Record<string, unknown>;
  @Column({ type: 'timestamptz', name: 'created_at', default: () => 'now()' }) createdAt: Date;
}

/** A picture or file, stored once however often it is named. */
@Entity({ name: 'blob' })
export class BlobRow {
  @PrimaryColumn({ type: 'text' }) sha256: string;
  @Column({ type: 'text' }) type: string;
  @Column({ type: 'integer' }) bytes: number;
  @Column({ type: 'bytea' }) body: Buffer;
  @Column({ type: 'timestamptz', name: 'created_at', default: () => 'now()' }) createdAt: Date;
}

@Entity({ name: 'account' })
@Index('account_login', ['login'], { unique: true })
export class AccountRow {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'text' }) login: string;
  @Column({ type: 'text' }) name: string;
  /** What the person is by trade, as it stands beside the name on changes and readings. */
  @Column({ type: 'text' }) trade: string;
  @Column({ type: 'text' }) role: Role;
  @Column({ type: 'boolean', default: false }) administrator: boolean;
  @Column({ type: 'text', name: 'password_hash' }) passwordHash: string;
  @Column({ type: 'boolean', default: false }) disabled: boolean;
  @Column({ type: 'timestamptz', name: 'created_at', default: () => 'now()' }) createdAt: Date;
}

@Entity({ name: 'account_site' })
export class AccountSiteRow {
  @PrimaryColumn({ type: 'uuid', name: 'account_id' }) accountId: string;
  @PrimaryColumn({ type: 'uuid', name: 'site_id' }) siteId: string;
}

@Entity({ name: 'invitation' })
@Index('invitation_token', ['tokenHash'], { unique: true })
export class InvitationRow {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'text', name: 'token_hash' }) tokenHash: string;
  @Column({ type: 'text' }) role: Role;
  @Column({ type: 'jsonb' }) sites: string[];
  @Column({ type: 'uuid', name: 'invited_by' }) invitedBy: string;
  @Column({ type: 'timestamptz', name: 'created_at', default: () => 'now()' }) createdAt: Date;
  @Column({ type: 'timestamptz', name: 'expires_at' }) expiresAt: Date;
  @Column({ type: 'timestamptz', name: 'used_at', nullable: true }) usedAt: Date | null;
  @Column({ type: 'timestamptz', name: 'revoked_at', nullable: true }) revokedAt: Date | null;
}

/** Who read and changed what, while accounts are on. */
@Entity({ name: 'audit' })
@Index('audit_job', ['jobId', 'id'])
export class AuditRow {
  @PrimaryGeneratedColumn('identity', { type: 'bigint', generatedIdentity: 'BY DEFAULT' })
  id: string;
  @Column({ type: 'timestamptz', default: () => 'now()' }) at: Date;
  @Column({ type: 'uuid', name: 'account_id', nullable: true }) accountId: string | null;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) act: string;
  @Column({ type: 'uuid', name: 'job_id', nullable: true }) jobId: string | null;
  @Column({ type: 'text', default: '' }) detail: string;
}

export const entities = [
  SiteRow,
  SiteChangeRow,
  JobRow,
  JobChangeRow,
  EvidenceRow,
  EvidenceOriginRow,
  BlobSenderRow,
  DeviceProfileRow,
  BlobRow,
  AccountRow,
  AccountSiteRow,
  InvitationRow,
  AuditRow,
];
