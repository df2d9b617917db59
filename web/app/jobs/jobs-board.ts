import { Component, DestroyRef, ElementRef, computed, effect, inject, signal, viewChild } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { MatDialog } from '@angular/material/dialog';
import { MatMenuModule } from '@angular/material/menu';
import { ActivatedRoute, Router, RouterLink } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { v4 as uuid } from 'uuid';
import { Icon } from '../controls/icon';
import { Keys } from '../frame/keys';
import { PlaceStrip } from '../frame/place-strip';
import { Api, type BoardEntry, type SiteEntry } from '../job-state/api';
import { boardTrail } from './board-trail';

const PAGE = 24;

/** All sites and jobs: what is next on each. Search and filters stay in the address. */
@Component({
  selector: 'tac-jobs-board',
  imports: [RouterLink, MatMenuModule, Icon, PlaceStrip],
  templateUrl: './jobs-board.html',
  styleUrl: './jobs-board.scss',
})
export class JobsBoard {
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly dialog = inject(MatDialog);
  private readonly query = toSignal(inject(ActivatedRoute).queryParamMap);
  private readonly keys = inject(Keys);
  protected readonly searchBox = viewChild<ElementRef<HTMLInputElement>>('searchBox');

  protected readonly search = computed(() => this.query()?.get('search') ?? '');
  protected readonly site = computed(() => this.query()?.get('site') ?? '');
  protected readonly archived = computed(() => this.query()?.get('archived') === 'yes');
  protected readonly page = computed(() => Number(this.query()?.get('page') ?? 0) || 0);
  protected readonly sites = signal<readonly SiteEntry[]>([]);
  protected readonly rows = signal<readonly BoardEntry[] | null>(null);
  protected readonly total = signal(0);
  protected readonly failed = signal<string | null>(null);
  protected readonly said = signal<string | null>(null);
  protected readonly pages = computed(() => Math.max(1, Math.ceil(this.total() / PAGE)));
  protected readonly groups = computed(() => {
    const rows = this.rows() ?? [];
    return this.sites()
      .map((site) => ({ site, rows: rows.filter((r) => r.siteId === site.id).map((row) => ({ row, trail: boardTrail(row) })) }))
      .filter(
        (group) =>
          group.rows.length > 0 || (!group.site.archived && this.rows() !== null && !this.search() && !this.archived() && !this.site() && this.page() === 0),
      );
  });

  constructor() {
    effect(() => {
      this.query();
      void this.load();
    });
    const off = this.keys.on('/', () => this.searchBox()?.nativeElement.focus());
    inject(DestroyRef).onDestroy(off);
    document.title = 'Jobs · Tactron';
  }

  protected async load(): Promise<void> {
    const query = new URLSearchParams({
      search: this.search(),
      site: this.site(),
      archived: this.archived() ? 'yes' : 'no',
      page: String(this.page()),
      size: String(PAGE),
    });
    try {
      const [sites, { rows, total }] = await Promise.all([this.api.sites(), this.api.board(query.toString())]);
      this.sites.set(sites);
      this.rows.set(rows);
      this.total.set(total);
      this.failed.set(null);
    } catch (error) {
      this.failed.set((error as Error).message);
    }
  }

  protected filter(change: Record<string, string | null>): void {
    void this.router.navigate([], { queryParams: { page: null, ...change }, queryParamsHandling: 'merge', replaceUrl: true });
  }

  protected async add(): Promise<void> {
    const { JobDialog } = await import('./job-dialog');
    const id = (await firstValueFrom(this.dialog.open(JobDialog, { data: { sites: this.sites }, maxWidth: '640px' }).afterClosed())) as string | undefined;
    if (id) await this.router.navigate(['/jobs', id, 'plate']);
  }

  protected async copy(row: BoardEntry): Promise<void> {
    await this.tell(async () => {
      const tag = `${row.job.tag}-copy`.slice(0, 40);
      await this.api.copyJob(row.id, { id: uuid(), tag });
      return `${tag} made.`;
    });
  }

  protected async archive(row: BoardEntry, archived: boolean): Promise<void> {
    await this.tell(async () => {
      await this.api.archiveJob(row.id, archived);
      return archived ? `${row.job.tag} is in the archive.` : `${row.job.tag} is back.`;
    });
  }

  protected async rename(row: BoardEntry): Promise<void> {
    const { RenameDialog } = await import('./rename-dialog');
    const done = (await firstValueFrom(this.dialog.open(RenameDialog, { data: row }).afterClosed())) as string | undefined;
    if (done) await this.tell(() => Promise.resolve(done));
  }

  protected async importFile(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    const file = field.files?.[0];
    if (!file) return;
    await this.tell(async () => {
      let data: unknown;
      try {
        data = JSON.parse(await file.text());
      } catch {
        throw new Error(`${file.name} is no job file: it is not JSON.`);
      }
      const { copied } = await this.api.importFile(data);
      return copied ? `${file.name} is in as a copy: a job with its id is here already.` : `${file.name} is in.`;
    });
    field.value = '';
  }

  /** "marrowick-f" as it stands on the device: Marrowick F. */
  protected title(family: string): string {
    return family.replace(/(^|-)(\w)/gu, (_all, dash: string, letter: string) => `${dash ? ' ' : ''}${letter.toUpperCase()}`);
  }

  protected when(iso: string): string {
    return new Date(iso).toLocaleString('en-GB', { day: '2-digit', month: 'short', hour: '2-digit', minute: '2-digit' });
  }

  private async tell(act: () => Promise<string>): Promise<void> {
    try {
      this.said.set(await act());
    } catch (error) {
      this.said.set((error as Error).message);
    }
    await this.load();
  }
}
