import { Component, computed, effect, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Job } from '@tactron/core/job';
import { Compute } from '../../compute/compute';
import type { PartsAndTools } from '@tactron/core/said';
import { Icon } from '../../controls/icon';
import { saveFile } from '../../controls/save-file';
import { OpenJob } from '../../job-state/open-job';

/** What has to be there and what to bring, as a sheet to print and as CSV. */
@Component({
  selector: 'tac-parts-sheet',
  imports: [Icon, RouterLink],
  template: `
    <div class="tools no-print">
      <a class="act" routerLink="../plate">Back to Plate</a>
      <button class="act" type="button" (click)="csv()"><tac-icon name="download" /> CSV</button>
      <button class="act main" type="button" (click)="print()">
        <tac-icon name="print" /> Print
      </button>
    </div>
    <article class="sheet record">
      <h2>{{ job().tag }} · parts and tools</h2>
      <p class="soft">{{ job().machine }}</p>
      @if (sheet(); as s) {
        <h3>Parts</h3>
        <table class="plain" aria-label="Parts">
          <thead>
            <tr>
              <th>quantity</th>
              <th>what</th>
              <th>tag</th>
              <th>there</th>
            </tr>
          </thead>
          <tbody>
            @for (p of s.parts; track $index) {
              <tr>
                <td class="mono">{{ p.quantity }}</td>
                <td>{{ p.what }}</td>
                <td class="mono">{{ p.tag }}</td>
                <td><span class="box"></span></td>
              </tr>
            }
          </tbody>
        </table>
        <h3>Tools and instruments</h3>
        <table class="plain" aria-label="Tools">
          <thead>
            <tr>
              <th>what</th>
              <th>for</th>
              <th>packed</th>
            </tr>
          </thead>
          <tbody>
            @for (t of s.tools; track t.what) {
              <tr>
                <td>{{ t.what }}</td>
                <td>{{ t.why }}</td>
                <td><span class="box"></span></td>
              </tr>
            }
          </tbody>
        </table>
        @if (!job().adopted) {
          <p class="soft">
            No plan is adopted yet: station, wires, ferrules and markers come with it.
          </p>
        }
      } @else {
        <p role="status">Reckoning …</p>
      }
    </article>
  `,
  styles: `
    :host {
      display: grid;
      gap: 14px;
    }
    .tools {
      display: flex;
      gap: 8px;
    }
    .record {
      display: grid;
      gap: 10px;
      padding: 20px 24px;
      max-width: 860px;
    }
    .box {
      display: inline-block;
      width: 16px;
      height: 16px;
      border: 1.5px solid var(--line-strong);
    }
    @media print {
      .record {
        border: 0;
        padding: 0;
      }
    }
  `,
})
export class PartsSheet {
  private readonly open = inject(OpenJob);
  private readonly compute = inject(Compute);
  protected readonly job = computed(() => this.open.job() as Job);
  protected readonly sheet = signal<PartsAndTools | null>(null);

  constructor() {
    effect(() => {
      const [job, profile] = [this.open.job(), this.open.profile()];
      if (job && profile) void this.compute.parts(job, profile).then((s) => this.sheet.set(s));
    });
  }

  protected csv(): void {
    saveFile(`${this.job().tag}-parts-and-tools.csv`, this.sheet()?.csv ?? '', 'text/csv');
  }

  protected print(): void {
    window.print();
  }
}
