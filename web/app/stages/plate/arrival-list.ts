import { Component, computed, inject, signal } from '@angular/core';
import { v4 as uuid } from 'uuid';
import type { Job } from '@tactron/core/job';
import { AttachmentRow } from '../../attachments/attachment-row';
import { Choice } from '../../controls/choice';
import { Icon } from '../../controls/icon';
import { OpenJob } from '../../job-state/open-job';

type Kind = NonNullable<Job['plate']['arrival']>[string]['kind'];
const kinds: readonly { readonly value: Kind; readonly name: string }[] = [
  { value: 'state', name: 'state' },
  { value: 'damage', name: 'damage' },
  { value: 'missing', name: 'missing' },
  { value: 'guard', name: 'guard' },
  { value: 'interlock', name: 'interlock' },
];

/** What was there on arrival: state, damage, missing parts, original guards and interlocks. */
@Component({
  selector: 'tac-arrival-list',
  imports: [AttachmentRow, Choice, Icon],
  template: `
    <section aria-label="On arrival">
      <h3>On arrival</h3>
      <p class="soft small">
        Every original guard and interlock is named here before anything is changed.
      </p>
      <ul>
        @for (item of items(); track item.id) {
          <li>
            <span class="mark">{{ item.item.kind }}</span><span>{{ item.item.text }}</span>
            <button
              class="act quiet"
              type="button"
              [attr.aria-label]="'Take out ' + item.item.text"
              (click)="remove(item.id)"
            >
              <tac-icon name="close" />
            </button>
          </li>
        }
      </ul>
      <tac-choice
        label="Kind"
        [options]="kinds"
        [value]="kind()"
        (changed)="kind.set($any($event))"
      />
      <form (submit)="add($event)">
        <label class="named"
          >What you see
          <input
            class="field"
            maxlength="400"
            [value]="text()"
            (input)="text.set($any($event.target).value)"
        /></label>
        <button class="act" type="submit" [disabled]="!text().trim()">
          <tac-icon name="add" /> Note it
        </button>
      </form>
      <tac-attachment-row subject="arrival" />
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 9px;
      padding: 0 9px 14px;
    }
    ul {
      list-style: none;
      margin: 0;
      padding: 0;
    }
    li {
      display: grid;
      grid-template-columns: 84px 1fr auto;
      gap: 8px;
      align-items: center;
      border-bottom: 1px solid var(--line);
      font-size: 14px;
    }
    form {
      display: grid;
      gap: 8px;
      justify-items: start;
    }
    form label {
      width: 100%;
    }
    .mark {
      justify-content: center;
    }
  `,
})
export class ArrivalList {
  private readonly open = inject(OpenJob);
  protected readonly kinds = kinds;
  protected readonly kind = signal<Kind>('damage');
  protected readonly text = signal('');
  protected readonly items = computed(() =>
    Object.entries((this.open.job() as Job).plate.arrival ?? {})
      .map(([id, item]) => ({ id, item }))
      .sort((x, y) => x.item.ord - y.item.ord),
  );

  protected add(event: Event): void {
    event.preventDefault();
    const ord = Math.max(0, ...this.items().map(({ item }) => item.ord)) + 1;
    const entry = { ord, kind: this.kind(), text: this.text().trim() };
    if (!entry.text) return;
    this.open.edit(
      'noted on arrival',
      (draft) => void ((draft.plate.arrival ??= {})[uuid()] = entry),
    );
    this.text.set('');
  }

  protected remove(id: string): void {
    this.open.edit('arrival note taken out', (draft) => void delete draft.plate.arrival?.[id]);
  }
}
