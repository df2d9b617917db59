import { Component, computed, inject, input } from '@angular/core';
import type { Job } from '@tactron/core/job';
import { OpenJob } from '../../job-state/open-job';

/** Setting by setting, or beginning with an arrangement that the device has ready: key presses compared, and what each wipes. */
@Component({
  selector: 'tac-keying-ways',
  template: `
    @if (offered()) {
      <fieldset class="sheet">
        <legend>Ways to key it</legend>
        @for (way of ways(); track way.readyMade) {
          <label [attr.data-way]="way.readyMade ?? 'singly'">
            <input
              type="radio"
              name="keying-way"
              [checked]="way.readyMade === chosen()"
              (change)="take(way.readyMade)"
            />
            <span>
              <b>{{ way.name ? 'Ready-made: ' + way.name : 'Setting by setting' }}</b>
              {{ way.settings }} values, {{ way.presses }} presses
              @if (way.readyMade) {
                <span class="soft">{{
                  way.again.length
                    ? 'wipes ' + way.again.join(', ') + ', which are keyed again after it'
                    : 'wipes nothing that is planned'
                }}</span>
              }
            </span>
          </label>
        }
      </fieldset>
    }
  `,
  styles: `
    fieldset {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 24px;
      margin: 0;
      padding: 8px 16px;
      border: 0;
    }
    legend {
      float: left;
      width: 100%;
      padding: 0;
      font-weight: 650;
    }
    label {
      display: flex;
      gap: 8px;
      align-items: center;
      min-height: 44px;
      cursor: pointer;
    }
    span span {
      display: block;
    }
  `,
})
export class KeyingWays {
  private readonly open = inject(OpenJob);
  /** A line of this session is keyed: the way is taken. */
  readonly begun = input(false);
  protected readonly ways = computed(() => this.open.derived()?.keyingWays ?? []);
  protected readonly offered = computed(
    () => this.ways().length > 1 && !this.begun() && !this.open.signing().closed,
  );
  protected readonly chosen = computed(() => {
    const way = this.open.job()?.decisions.readyMade;
    return this.ways().some((w) => w.readyMade === way) ? way : undefined;
  });

  protected take(readyMade: string | undefined): void {
    this.open.edit('way of keying', (draft: Job) => {
      if (readyMade === undefined) delete draft.decisions.readyMade;
      else draft.decisions.readyMade = readyMade;
    });
  }
}
