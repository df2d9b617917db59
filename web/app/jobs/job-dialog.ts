import { Component, computed, inject, linkedSignal, signal, type Signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { v4 as uuid } from 'uuid';
import { emptyJob, emptySite, sameTolerances, type Job } from '@tactron/core/job';
import { Preferences } from '../frame/preferences';
import type { ProfileEntry, SiteEntry } from '../job-state/api';
import { Desk } from '../job-state/desk';
import { SiteDocuments } from '../site/site-documents';

/** Makes a job: where, what it is called, and with which device. */
@Component({
  selector: 'tac-job-dialog',
  imports: [MatDialogModule],
  template: `
    <form (submit)="make($event)">
      <h2 mat-dialog-title>New job</h2>
      <mat-dialog-content>
        <label class="named"
          >Site
          <select
            class="field"
            name="site"
            [value]="site()"
            (change)="site.set($any($event.target).value)"
          >
            @for (s of sites(); track s.id) {
              <option [value]="s.id" [selected]="s.id === site()">{{ s.name }}</option>
            }
            <option value="new" [selected]="site() === 'new'">A new site …</option>
          </select>
        </label>
        @if (site() === 'new') {
          <label class="named"
            >Name of the site
            <input
              class="field"
              name="siteName"
              maxlength="120"
              [value]="siteName()"
              (input)="siteName.set($any($event.target).value)"
          /></label>
        }
        <label class="named"
          >Tag
          <input
            class="field"
            name="tag"
            maxlength="40"
            placeholder="FM-AUGER"
            [value]="tag()"
            (input)="tag.set($any($event.target).value)"
        /></label>
        <label class="named"
          >Machine
          <input
            class="field"
            name="machine"
            maxlength="200"
            placeholder="Green-malt auger"
            [value]="machine()"
            (input)="machine.set($any($event.target).value)"
        /></label>
        <label class="named"
          >Practice
          <select class="field" name="practice" (change)="practice.set($any($event.target).value)">
            <option value="IEC" [selected]="practice() === 'IEC'">IEC 60204-1</option>
            <option value="NFPA" [selected]="practice() === 'NFPA'">NFPA 79</option>
          </select>
        </label>
        <label class="named"
          >Device family
          <select
            class="field"
            name="family"
            [value]="sha()"
            (change)="sha.set($any($event.target).value)"
          >
            @for (p of profiles(); track p.sha256) {
              <option [value]="p.sha256" [selected]="p.sha256 === sha()">
                {{ p.title
                }}{{ p.gaps.length ? ' (plates and sums; its profile cannot be planned yet)' : '' }}
              </option>
            }
          </select>
        </label>
        <label class="named"
          >Model
          <select
            class="field"
            name="model"
            [value]="model()"
            (change)="chosenModel.set($any($event.target).value)"
          >
            @for (m of models(); track m.name) {
              <option [value]="m.name" [selected]="m.name === model()">
                {{ m.name }} · {{ m.ratedKw ?? m.ratedHp }} {{ m.ratedKw ? 'kW' : 'hp' }} ·
                {{ m.ratedA }} A
              </option>
            }
          </select>
        </label>
        @if (problem(); as p) {
          <p class="bad" role="alert">{{ p }}</p>
        }
      </mat-dialog-content>
      <mat-dialog-actions>
        <button class="act" type="button" mat-dialog-close>Cancel</button>
        <button class="act main" type="submit" [disabled]="!ready()">Make the job</button>
      </mat-dialog-actions>
    </form>
  `,
  styles:
    'mat-dialog-content { display: grid; gap: 12px; min-width: min(460px, 80vw); padding-top: 6px !important; } .bad { color: var(--bad); }',
})
export class JobDialog {
  private readonly desk = inject(Desk);
  private readonly preferences = inject(Preferences);
  private readonly documents = inject(SiteDocuments);
  private readonly ref = inject(MatDialogRef<JobDialog>);
  /** The board may still be reading its sites when the dialog opens. */
  protected readonly sites = inject<{ sites: Signal<readonly SiteEntry[]> }>(MAT_DIALOG_DATA).sites;
  protected readonly siteName = signal('');
  protected readonly site = linkedSignal<readonly SiteEntry[], string>({
    source: this.sites,
    computation: (sites, before) => {
      const own = before?.value === 'new' && (before.source.length > 0 || this.siteName() !== '');
      const kept = own || sites.some((s) => s.id === before?.value);
      return kept && before ? before.value : (sites[0]?.id ?? 'new');
    },
  });
  protected readonly tag = signal('');
  protected readonly machine = signal('');
  protected readonly practice = signal<Job['practice']>(this.preferences.practice());
  protected readonly profiles = signal<readonly ProfileEntry[]>([]);
  protected readonly sha = signal('');
  protected readonly chosenModel = signal('');
  protected readonly problem = signal<string | null>(null);
  protected readonly models = computed(
    () => this.profiles().find((p) => p.sha256 === this.sha())?.models ?? [],
  );
  protected readonly model = computed(() =>
    this.models().some((m) => m.name === this.chosenModel())
      ? this.chosenModel()
      : (this.models()[0]?.name ?? ''),
  );
  protected readonly ready = computed(
    () => this.tag().trim() && this.model() && (this.site() !== 'new' || this.siteName().trim()),
  );

  constructor() {
    this.desk.profiles().then(
      ({ rows: profiles }) => {
        this.profiles.set(profiles);
        const planned = profiles.filter((p) => p.gaps.length === 0);
        const last = planned.find((p) => p.family === this.preferences.family());
        this.sha.set((last ?? planned.at(0))?.sha256 ?? '');
      },
      (error: Error) => this.problem.set(error.message),
    );
  }

  protected async make(event: Event): Promise<void> {
    event.preventDefault();
    const profile = this.profiles().find((p) => p.sha256 === this.sha());
    if (!this.ready() || !profile) return;
    try {
      const site = this.site() === 'new' ? { id: uuid(), name: this.siteName().trim() } : undefined;
      const siteId = site?.id ?? this.site();
      const pinned = {
        family: profile.family,
        model: this.model(),
        version: '1',
        sha256: profile.sha256,
      };
      const { tolerances } = site ? emptySite() : (await this.documents.of(siteId)).document;
      const job = emptyJob({
        id: uuid(),
        siteId,
        tag: this.tag().trim(),
        machine: this.machine().trim(),
        practice: this.practice(),
        profile: pinned,
      });
      if (!sameTolerances(tolerances, undefined)) job.tolerances = tolerances;
      await this.desk.makeJob(job, this.preferences.signed(), site);
      this.preferences.family.set(profile.family);
      this.ref.close(job.id);
    } catch (error) {
      this.problem.set((error as Error).message);
    }
  }
}
