import 'reflect-metadata';
import { Column, Entity, Index, PrimaryColumn } from 'typeorm';
import type { Author, Job, Operation } from '@tactron/core/job';

@Entity({ name: 'site' })
export class SiteRow {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'boolean', default: false }) archived: boolean;
  @Column({ type: 'timestamptz', name: 'created_at', default: () => 'now()' }) createdAt: Date;
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
  @Column({ type: 'text', default: 'edit' }) kind: string;
  @Column({ type: 'jsonb' }) patch: Operation[];
  @Column({ type: 'jsonb' }) author: Author;
  @Column({ type: 'timestamptz', name: 'at_client' }) atClient: Date;
  @Column({ type: 'timestamptz', name: 'at_server', default: () => 'now()' }) atServer: Date;
  @Column({ type: 'text', name: 'prev_hash' }) prevHash: string;
  @Column({ type: 'text' }) hash: string;
}

@Entity({ name: 'evidence' })
@Index('evidence_order', ['jobId', 'seq'], { unique: true })
export class EvidenceRow {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'job_id' }) jobId: string;
  @Column({ type: 'integer' }) seq: number;
  @Column({ type: 'integer', name: 'job_revision' }) jobRevision: number;
  @Column({ type: 'text' }) kind: string;
  @Column({ type: 'text' }) subject: string;
  @Column({ type: 'jsonb' }) body: unknown;
  @Column({ type: 'uuid', nullable: true }) supersedes: string | null;
  @Column({ type: 'text', nullable: true }) why: string | null;
  @Column({ type: 'jsonb' }) author: Author;
  @Column({ type: 'text', name: 'at_client' }) atClient: string;
  @Column({ type: 'text', name: 'at_server' }) atServer: string;
  @Column({ type: 'text', name: 'core_version' }) coreVersion: string;
  @Column({ type: 'text', name: 'prev_hash' }) prevHash: string;
  @Column({ type: 'text' }) hash: string;
}

@Entity({ name: 'device_profile' })
export class DeviceProfileRow {
  @PrimaryColumn({ type: 'text' }) sha256: string;
  @Column({ type: 'text' }) family: string;
  @Column({ type: 'jsonb' }) document: Record<string, unknown>;
  @Column({ type: 'timestamptz', name: 'created_at', default: () => 'now()' }) createdAt: Date;
}

export const entities = [SiteRow, JobRow, JobChangeRow, EvidenceRow, DeviceProfileRow];
