import { Component, computed, effect, inject, input, signal } from '@angular/core';
import { Title } from '@angular/platform-browser';
import { RouterLink } from '@angular/router';
import { v4 as uuid } from 'uuid';
import {
  usualRoles,
  type Instrument,
  type OwnTolerances,
  type SiteDocument,
} from '@tactron/core/job';
import { PlaceStrip } from '../frame/place-strip';
import { Preferences } from '../frame/preferences';
import { Desk } from '../job-state/desk';
import { Keeping } from '../job-state/keeping';
import { InstrumentForm } from './instrument-form';
import { kindNames } from './instrument-names';
import { SiteDocuments, type KnownSite } from './site-documents';
import { ToleranceTable } from './tolerance-table';

/** What one site settles for all its jobs: who signs a record, by how much readings may differ, and the instruments it has. */
@Component({
  selector: 'tac-site-page',
  imports: [PlaceStrip, InstrumentForm, RouterLink, ToleranceTable],
  templateUrl: './site-page.html',
  styleUrl: './site-page.scss',
})
export class SitePage {
  readonly siteId = input.required<string>();
  private readonly documents = inject(SiteDocuments);
  private readonly preferences = inject(Preferences);
  private readonly keeping = inject(Keeping);
  protected readonly name = signal('');
  protected readonly known = signal<KnownSite | null>(null);
  protected readonly problem = signal('');
  protected readonly said = signal('');
  protected readonly role = signal('');
  protected readonly usual = usualRoles.join(', ');
  protected readonly roles = computed(() => this.known()?.document.requiredRoles ?? []);
  private readonly today = new Date().toISOString().slice(0, 10);
  protected readonly instruments = computed(() =>
    Object.entries(this.known()?.document.instruments ?? {})
      .map(([id, i]) => ({
        id,
        ...i,
        told: (i.measures ?? []).map((kind) => kindNames[kind]).join(', ') || 'not told',
        rms: i.measures?.includes('current')
          ? i.trueRms
            ? 'true RMS'
            : i.trueRms === false
              ? 'no true RMS'
              : ''
          : '',
        ended: i.calibratedUntil !== undefined && i.calibratedUntil < this.today,
      }))
      .sort(
        (x, y) =>
          Number(x.outOfUse ?? false) - Number(y.outOfUse ?? false) || x.name.localeCompare(y.name),
      ),
  );

  constructor() {
    const [desk, title] = [inject(Desk), inject(Title)];
    effect(() => {
      const id = this.siteId();
      void this.documents.of(id).then((known) => this.known.set(known));
      void desk
        .sites()
        .then(({ rows }) => this.name.set(rows.find((s) => s.id === id)?.name ?? ''))
        .catch(() => undefined);
    });
    effect(() => title.setTitle(`${this.name() || 'Site'} · Tactron`));
  }

  protected addRole(event: Event): void {
    event.preventDefault();
    const role = this.role().trim();
    if (!role || this.roles().includes(role)) return;
    void this.change(`“${role}” signs from now on.`, (d) => ({
      ...d,
      requiredRoles: [...(d.requiredRoles.length ? d.requiredRoles : []), role],
    })).then((done) => done && this.role.set(''));
  }

  protected dropRole(role: string): void {
    void this.change(`“${role}” signs no more.`, (d) => ({
      ...d,
      requiredRoles: d.requiredRoles.filter((r) => r !== role),
    }));
  }

  protected earlier(role: string): void {
    void this.change('The order is changed.', (d) => {
      const roles = [...d.requiredRoles];
      const at = roles.indexOf(role);
      if (at > 0) [roles[at - 1], roles[at]] = [roles[at], roles[at - 1]];
      return { ...d, requiredRoles: roles };
    });
  }

  protected tolerate(tolerances: OwnTolerances): void {
    void this.change('The tolerances are settled.', (d) => ({ ...d, tolerances }));
  }

  protected add(instrument: Instrument): void {
    void this.change(`${instrument.name} is there from now on.`, (d) => ({
      ...d,
      instruments: { ...d.instruments, [uuid()]: instrument },
    }));
  }

  protected use(id: string, outOfUse: boolean): void {
    void this.change(outOfUse ? 'It is out of use.' : 'It is in use again.', (d) => {
      const { outOfUse: _before, ...kept } = d.instruments[id];
      return {
        ...d,
        instruments: { ...d.instruments, [id]: outOfUse ? { ...kept, outOfUse } : kept },
      };
    });
  }

  private async change(
    said: string,
    recipe: (document: SiteDocument) => SiteDocument,
  ): Promise<boolean> {
    this.problem.set('');
    this.said.set('');
    const me = this.keeping.me();
    const author = me?.accounts ? { name: me.name, role: me.trade } : this.preferences.signed();
    try {
      this.known.set(await this.documents.change(this.siteId(), author, recipe));
      this.said.set(said);
      return true;
    } catch (error) {
      this.problem.set(`${(error as Error).message} Nothing was changed.`);
      return false;
    }
  }
}
